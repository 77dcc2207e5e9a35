import { Image, Text, View } from '@react-pdf/renderer';
import type { RecordDocument } from '@/core/shell/record-document';
import { foundSentences } from '@/core/report/record/found';
import type { Formatter } from '../formatter';
import { conformityPart } from '../record-made';
import {
  cautionSentences,
  CHANGE_COLUMNS,
  DIMENSION_COLUMNS,
  entryHead,
  entryText,
  GAP_COLUMNS,
  POINT_COLUMNS,
  ROUND_COLUMNS,
  toldParts,
  workLines,
} from '../record-tables';
import { Part, style, Table } from './page-parts';
import { PdfSheet } from './pdf-sheet';

/** The record and how its figures are written. */
interface PartProps {
  readonly record: RecordDocument;
  readonly format: Formatter;
}

export const Rounds = ({ record, format }: PartProps) => (
  <Part title="Rounds of measuring">
    <Table columns={ROUND_COLUMNS} rows={record.rounds} format={format} />
  </Part>
);

/** What became of the shell, in sentences. */
export function Found({ record: { found }, format }: PartProps) {
  if (!found) return null;
  return (
    <Part title={`What was found: round ${found.round}, ${found.roundName}`}>
      {foundSentences(found, format).map((sentence) => (
        <Text key={sentence}>{sentence}</Text>
      ))}
    </Part>
  );
}

export function Final({ record, format }: PartProps) {
  const { final } = record;
  if (!final) return null;
  return (
    <Part title={`Where the shell is: round ${final.round}`}>
      <PdfSheet record={record} />
      <Table columns={DIMENSION_COLUMNS} rows={final.dimensions} format={format} />
      <View style={{ height: 8 }} />
      {final.points.length > 0 ? <Table columns={POINT_COLUMNS} rows={final.points} format={format} /> : null}
    </Part>
  );
}

export function Changes({ record, format }: PartProps) {
  const { changes } = record;
  if (!changes || changes.rows.length === 0) return null;
  return (
    <Part title={`What changed from round ${changes.earlier} to round ${changes.later}`}>
      {cautionSentences(record).map((caution) => (
        <Text key={caution}>{caution}</Text>
      ))}
      <Table columns={CHANGE_COLUMNS} rows={changes.rows} format={format} />
    </Part>
  );
}

export function Gaps({ record: { final }, format }: PartProps) {
  if (!final || final.gaps.length === 0) return null;
  return (
    <Part title="Gaps and flushness">
      <Table columns={GAP_COLUMNS} rows={final.gaps} format={format} />
    </Part>
  );
}

export function Work({ record, format }: PartProps) {
  const lines = workLines(record, format);
  if (lines.length === 0) return null;
  return (
    <Part title="Braces and pulls">
      {lines.map(({ code, text }) => (
        <Text key={code}>
          {code}: {text}
        </Text>
      ))}
    </Part>
  );
}

export function Log({ record: { log }, format }: PartProps) {
  if (log.length === 0) return null;
  return (
    <Part title="Findings and decisions">
      {log.map((entry, i) => (
        <View key={i} style={{ marginBottom: 4 }} wrap={false}>
          <Text style={style.soft}>{entryHead(entry, format)}</Text>
          <Text>{entryText(entry, format)}</Text>
        </View>
      ))}
    </Part>
  );
}

/** Whether the shell conforms, what was accepted, and what is in the way of saying so. */
export function Conformity({ record: { conformity }, format }: PartProps) {
  if (!conformity) return null;
  const { title, lines, accepted } = conformityPart(conformity, format);
  return (
    <Part title={title}>
      {[...lines, ...accepted.map(({ what, reason }) => `${what} ${reason}`)].map((line) => (
        <Text key={line}>{line}</Text>
      ))}
    </Part>
  );
}

/** What is told in lines: doubts, steps, mornings, parts, what was taken back, what is open. */
export const Told = ({ record, format, signed }: PartProps & { readonly signed: boolean }) =>
  toldParts(record, format, signed).map(({ title, lines }) => (
    <Part key={title} title={title}>
      {lines.map((line, i) => (
        <Text key={i}>{line}</Text>
      ))}
    </Part>
  ));

export function Photographs({
  record: { photographs },
  previews,
}: Pick<PartProps, 'record'> & { previews: ReadonlyMap<string, Uint8Array> }) {
  const shown = photographs.filter((photograph) => previews.has(photograph.id));
  if (shown.length === 0) return null;
  return (
    <Part title="Photographs">
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        {shown.map((photograph) => (
          <View key={photograph.id} style={{ width: '32%', marginRight: '1.3%', marginBottom: 6 }} wrap={false}>
            <Image src={{ data: Buffer.from(previews.get(photograph.id)!), format: 'jpg' }} />
            <Text style={style.soft}>
              {photograph.name}, {photograph.author}
            </Text>
          </View>
        ))}
      </View>
    </Part>
  );
}
