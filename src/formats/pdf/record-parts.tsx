import { Image, Text, View } from '@react-pdf/renderer';
import type { RecordDocument } from '@/core/shell/record-document';
import { foundSentences } from '@/core/report/record/found';
import { BRACE_WORD, CAUTION_WORD, STATE_WORD, SUPPORT_WORD, SUSPENSION_WORD } from '@/core/report/vocabulary/words';
import type { Formatter } from '../formatter';
import { Part, style, Table } from './page-parts';
import { PdfSheet } from './pdf-sheet';

/** The record and how its figures are written. */
interface PartProps {
  readonly record: RecordDocument;
  readonly format: Formatter;
}

export const Rounds = ({ record, format }: PartProps) => (
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

export function Changes({ record: { changes }, format }: PartProps) {
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

export function Gaps({ record: { final }, format }: PartProps) {
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

export function Work({ record: { braces, pulls }, format }: PartProps) {
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

export function Log({ record: { log }, format }: PartProps) {
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
