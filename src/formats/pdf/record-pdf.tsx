import path from 'node:path';
import { Document, Font, Image, Page, renderToBuffer, StyleSheet, Text, View } from '@react-pdf/renderer';
import type { ReactNode } from 'react';
import type { RecordDocument } from '@/core/record/document';
import { UNCERTAINTY_STATEMENT } from '@/core/tolerance/statement';
import {
  BRACE_WORD,
  CAUTION_WORD,
  REFERENCE_WORD,
  STATE_WORD,
  SUPPORT_WORD,
  SUSPENSION_WORD,
} from '@/core/vocabulary/words';
import type { Formatter } from '../formatter';
import { PdfSheet } from './pdf-sheet';

export interface RecordPdfInput {
  readonly record: RecordDocument;
  readonly signature?: {
    readonly number: number;
    readonly signedBy: string;
    readonly signedAt: string;
  };
  readonly paper: 'A4' | 'LETTER';
  readonly format: Formatter;
  /** Small JPEG pictures by the photograph's id. */
  readonly previews: ReadonlyMap<string, Uint8Array>;
}

const FONTS = path.join(process.cwd(), 'node_modules/@fontsource/ibm-plex-sans/files');
let registered = false;

/** Latin first, the extended letters of other languages behind it. */
function registerFonts(): void {
  if (registered) return;
  registered = true;
  for (const subset of ['latin', 'latin-ext', 'cyrillic', 'greek'])
    Font.register({
      family: `Plex-${subset}`,
      fonts: [400, 600].map((fontWeight) => ({
        src: `${FONTS}/ibm-plex-sans-${subset}-${fontWeight}-normal.woff`,
        fontWeight,
      })),
    });
  Font.registerHyphenationCallback((word) => [word]);
}

const style = StyleSheet.create({
  page: {
    fontFamily: ['Plex-latin', 'Plex-latin-ext', 'Plex-cyrillic', 'Plex-greek'],
    fontSize: 8.5,
    padding: 36,
    paddingBottom: 48,
    color: '#1c2430',
  },
  title: { fontSize: 20, fontWeight: 600 },
  part: { fontSize: 12, fontWeight: 600, marginTop: 14, marginBottom: 4 },
  row: { flexDirection: 'row', borderBottomWidth: 0.5, borderColor: '#cfc6b0', paddingVertical: 1.6 },
  head: {
    flexDirection: 'row',
    borderBottomWidth: 1.2,
    borderColor: '#1c2430',
    paddingVertical: 1.6,
    color: '#565a5c',
  },
  soft: { color: '#565a5c' },
  foot: {
    position: 'absolute',
    bottom: 22,
    left: 36,
    right: 36,
    flexDirection: 'row',
    justifyContent: 'space-between',
    color: '#565a5c',
    fontSize: 7.5,
  },
});

interface Column {
  readonly title: string;
  readonly width: string;
  readonly right?: boolean;
}

function Table({ columns, rows }: { columns: readonly Column[]; rows: readonly (readonly string[])[] }) {
  const cell = (text: string, { width, right }: Column, i: number) => (
    <Text key={i} style={{ width, textAlign: right ? 'right' : 'left', paddingRight: 4 }}>
      {text}
    </Text>
  );
  return (
    <View>
      <View style={style.head} wrap={false}>
        {columns.map((column, i) => cell(column.title, column, i))}
      </View>
      {rows.map((row, r) => (
        <View key={r} style={style.row} wrap={false}>
          {columns.map((column, i) => cell(row[i] ?? '', column, i))}
        </View>
      ))}
    </View>
  );
}

const Part = ({ title, children }: { title: string; children: ReactNode }) => (
  <View>
    <Text style={style.part} minPresenceAhead={40}>
      {title}
    </Text>
    {children}
  </View>
);

/** The record as a PDF. */
export function renderRecordPdf(input: RecordPdfInput): Promise<Buffer> {
  registerFonts();
  return renderToBuffer(<RecordPdf {...input} />);
}

function RecordPdf({ record, signature, paper, format, previews }: RecordPdfInput) {
  const { job } = record;
  const facts: readonly (readonly [string, string])[] = [
    ['Shell', job.shell],
    ['Identity number', job.identityNumber],
    ['Owner', job.owner],
    ['Shop', job.shop],
    ['Bench', job.bench],
    ['Driver sits on the', job.driverSide],
    ['Begun', format.day(job.startedAt)],
    [signature ? `Record ${signature.number}, signed` : 'As it stands on', format.day(record.madeAt)],
    [
      'Judged by',
      record.references.map((each) => `${each.name} (${REFERENCE_WORD[each.kind as 'chart'] ?? each.kind})`).join('; '),
    ],
  ];
  return (
    <Document title={`Record of ${job.name}`} author={job.shop} language="en">
      <Page size={paper} style={style.page}>
        <Text style={style.soft}>Record of a car body</Text>
        <Text style={style.title}>{job.name}</Text>
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', marginTop: 6 }}>
          {facts.map(([name, value]) => (
            <View key={name} style={{ width: '33.3%', paddingRight: 8, marginBottom: 4 }}>
              <Text style={style.soft}>{name}</Text>
              <Text>{value || '–'}</Text>
            </View>
          ))}
        </View>
        <Rounds record={record} format={format} />
        <Final record={record} format={format} />
        <Changes record={record} format={format} />
        <Gaps record={record} format={format} />
        <Work record={record} format={format} />
        <Log record={record} format={format} />
        <Photographs record={record} previews={previews} />
        <Part title="How sure this is, and who signs">
          <Text>{UNCERTAINTY_STATEMENT}</Text>
          <View style={{ flexDirection: 'row', marginTop: 34 }} wrap={false}>
            <Text style={{ width: '45%', borderTopWidth: 0.8, paddingTop: 2, marginRight: '10%' }}>
              {signature ? `${signature.signedBy}, ${format.day(signature.signedAt)}` : 'not signed yet'} · for{' '}
              {job.shop || 'the shop'}
            </Text>
            <Text style={{ width: '45%', borderTopWidth: 0.8, paddingTop: 2 }}>received by the owner</Text>
          </View>
        </Part>
        <View style={style.foot} fixed>
          <Text>{job.name}</Text>
          <Text render={({ pageNumber, totalPages }) => `${pageNumber} of ${totalPages}`} />
        </View>
      </Page>
    </Document>
  );
}

type PartProps = Pick<RecordPdfInput, 'record' | 'format'>;

const Rounds = ({ record, format }: PartProps) => (
  <Part title="Rounds of measuring">
    <Table
      columns={[
        { title: 'Round', width: '18%' },
        { title: 'State, support', width: '30%' },
        { title: 'Instruments', width: '20%' },
        { title: 'When, who', width: '14%' },
        { title: 'Readings', width: '6%', right: true },
        { title: 'Aligned on', width: '12%' },
      ]}
      rows={record.rounds.map((round) => [
        `${round.number}. ${round.name}`,
        `${STATE_WORD[round.state as 'cold'] ?? round.state}; ${SUPPORT_WORD[round.support as 'stands'] ?? round.support}, ${SUSPENSION_WORD[round.suspension as 'off'] ?? round.suspension}${round.temperature === null ? '' : `; ${round.temperature} °C`}`,
        round.instruments.join(', '),
        `${format.day(round.startedAt)}, ${round.author}`,
        `${round.readings}`,
        round.control.join(' ') || '–',
      ])}
    />
  </Part>
);

function Final({ record, format }: PartProps) {
  const { final } = record;
  if (!final) return null;
  return (
    <Part title={`Where the shell is: round ${final.round}`}>
      <PdfSheet record={record} />
      <Table
        columns={[
          { title: 'Dimension', width: '10%' },
          { title: 'Name', width: '30%' },
          { title: 'Reference', width: '11%', right: true },
          { title: 'Measured', width: '11%', right: true },
          { title: 'Deviation', width: '10%', right: true },
          { title: '±', width: '7%', right: true },
          { title: `Limit ${format.unit}`, width: '8%', right: true },
          { title: 'Verdict', width: '13%' },
        ]}
        rows={final.dimensions.map((row) => [
          row.code,
          `${format.name(row.name)} (${row.ends}${row.measure === 'level' ? ', level' : ''})`,
          format.length(row.reference),
          format.length(row.measured),
          format.difference(row.deviation),
          format.length(row.plusMinus),
          format.length(row.limit),
          row.verdict + (row.accepted ? ', accepted' : ''),
        ])}
      />
      <View style={{ height: 8 }} />
      <Table
        columns={[
          { title: 'Point', width: '8%' },
          { title: 'Name', width: '34%' },
          { title: 'Length', width: '10%', right: true },
          { title: 'Width', width: '10%', right: true },
          { title: `Height ${format.unit}`, width: '10%', right: true },
          { title: 'Worst ±', width: '8%', right: true },
          { title: 'Limit', width: '7%', right: true },
          { title: 'Verdict', width: '13%' },
        ]}
        rows={final.points.map((row) => [
          row.code,
          format.name(row.name),
          ...row.deviation.map(format.difference),
          format.length(Math.max(...row.plusMinus)),
          format.length(row.limit),
          row.verdict + (row.control ? ', control' : ''),
        ])}
      />
    </Part>
  );
}

function Changes({ record: { changes }, format }: PartProps) {
  if (!changes || changes.rows.length === 0) return null;
  return (
    <Part title={`What changed from round ${changes.earlier} to round ${changes.later}`}>
      {changes.cautions.map((caution) => (
        <Text key={caution}>{CAUTION_WORD[caution]}</Text>
      ))}
      <Table
        columns={[
          { title: 'Dimension', width: '14%' },
          { title: 'Name', width: '40%' },
          { title: `Change ${format.unit}`, width: '15%', right: true },
          { title: '±', width: '12%', right: true },
          { title: 'Verdict', width: '19%' },
        ]}
        rows={changes.rows.map((row) => [
          row.code,
          format.name(row.name),
          format.difference(row.change),
          format.length(row.plusMinus),
          row.verdict,
        ])}
      />
    </Part>
  );
}

function Gaps({ record: { final }, format }: PartProps) {
  if (!final || final.gaps.length === 0) return null;
  return (
    <Part title="Gaps and flushness">
      <Table
        columns={[
          { title: 'Station', width: '16%' },
          { title: 'Seam', width: '36%' },
          { title: `Read ${format.unit}`, width: '12%', right: true },
          { title: 'Wanted', width: '12%', right: true },
          { title: '±', width: '8%', right: true },
          { title: 'Verdict', width: '16%' },
        ]}
        rows={final.gaps.map((gap) => [
          `${gap.seam}.${gap.station} ${gap.quantity}`,
          `${format.name(gap.name)}, ${gap.side}`,
          gap.quantity === 'flush' ? format.difference(gap.measured) : format.length(gap.measured),
          format.length(gap.target),
          format.length(gap.plusMinus),
          gap.verdict,
        ])}
      />
    </Part>
  );
}

function Work({ record: { braces, pulls }, format }: PartProps) {
  if (braces.length + pulls.length === 0) return null;
  return (
    <Part title="Braces and pulls">
      {braces.map((brace) => (
        <Text key={brace.code}>
          {brace.code}: {brace.ends}, {BRACE_WORD[brace.kind]}, {brace.section}
          {brace.length === undefined ? '' : `, ${format.length(brace.length)} ${format.unit}`}; held{' '}
          {brace.holds.join(', ') || 'nothing named'}; {brace.state}
        </Text>
      ))}
      {pulls.map((pull) => (
        <Text key={pull.code}>
          {pull.code} at {pull.point}: {format.length(pull.distance)} {format.unit} wanted; held:{' '}
          {pull.heldAt || 'not said'}
          {pull.springBacks.length > 0
            ? `; sprang back ${pull.springBacks.map(format.difference).join(', ')} ${format.unit}`
            : ''}
        </Text>
      ))}
    </Part>
  );
}

function Log({ record: { log }, format }: PartProps) {
  if (log.length === 0) return null;
  return (
    <Part title="Findings and decisions">
      {log.map((entry, i) => (
        <View key={i} style={{ marginBottom: 4 }} wrap={false}>
          <Text style={style.soft}>
            {entry.kind}, {format.day(entry.at)}, {entry.author}
            {entry.about.length > 0 ? `: ${entry.about.join(', ')}` : ''}
          </Text>
          <Text>
            {format.name(entry.text)}
            {entry.reason ? ` Because: ${format.name(entry.reason)}` : ''}
          </Text>
        </View>
      ))}
    </Part>
  );
}

function Photographs({ record: { photographs }, previews }: Pick<RecordPdfInput, 'record' | 'previews'>) {
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
