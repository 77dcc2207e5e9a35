import { hashText } from './signed-record';
import { ATTACH_WORD, partsText } from '@/core/report/pull-words';
import type { RecordDocument } from '@/core/shell/record-document';
import {
  counted,
  BRACE_WORD,
  CAUTION_WORD,
  GRADE_WORD,
  MORNING_VERDICT_WORD,
  OPEN_WORD,
  PULL_STATE_WORD,
  RUNG_WORD,
  SORT_WORD,
  referenceText,
  STATE_WORD,
  SUPPORT_WORD,
  SUSPENSION_WORD,
} from '@/core/report/vocabulary/words';
import type { Formatter } from './formatter';
import { madeParts, type ToldPart } from './record-made';

/** A column of a table, for the screen and for paper alike. */
export interface TableColumn<Row> {
  /** Its head; a function where the unit is in it. */
  readonly title: string | ((format: Formatter) => string);
  /** Its part of the paper's width, per cent. */
  readonly width: number;
  /** Figures stand to the right. */
  readonly right?: boolean;
  /** The figure or word looked for: strong on the screen. */
  readonly strong?: boolean;
  readonly text: (row: Row, format: Formatter) => string;
  /** Said softly behind it. */
  readonly also?: (row: Row, format: Formatter) => string;
}

export const titleOf = <Row>({ title }: TableColumn<Row>, format: Formatter): string =>
  typeof title === 'string' ? title : title(format);

type Rounds = RecordDocument['rounds'][number];
type Final = NonNullable<RecordDocument['final']>;
type Dimension = Final['dimensions'][number];
type Point = Final['points'][number];
type Gap = Final['gaps'][number];
type Change = NonNullable<RecordDocument['changes']>['rows'][number];

export const ROUND_COLUMNS: readonly TableColumn<Rounds>[] = [
  { title: 'Round', width: 18, text: ({ number, name }) => `${number}. ${name}` },
  {
    title: 'State, support',
    width: 28,
    text: ({ state, support, suspension, temperature }, format) =>
      [
        STATE_WORD[state as 'cold'] ?? state,
        `${SUPPORT_WORD[support as 'stands'] ?? support}, ${SUSPENSION_WORD[suspension as 'off'] ?? suspension}`,
        ...(temperature === null ? [] : [format.temperature(temperature)]),
      ].join('; '),
  },
  { title: 'Instruments', width: 17, text: ({ instruments }) => instruments.join(', ') },
  { title: 'When, who', width: 14, text: ({ startedAt, author }, format) => `${format.day(startedAt)}, ${author}` },
  {
    title: 'Readings',
    width: 9,
    right: true,
    text: ({ readings, struck }) => `${readings}${struck > 0 ? `, ${struck} struck` : ''}`,
  },
  {
    title: 'Aligned on',
    width: 14,
    text: ({ control }) => control.join(', ') || '–',
    also: ({ rms }, format) => (rms === undefined ? '' : `(${format.uncertainty(rms)} ${format.unit} rms)`),
  },
];

export const DIMENSION_COLUMNS: readonly TableColumn<Dimension>[] = [
  { title: 'Dimension', width: 10, text: ({ code }) => code },
  {
    title: 'Name',
    width: 30,
    text: ({ name }, format) => format.name(name),
    also: ({ ends, measure }) => `${ends}${measure === 'level' ? ', level' : ''}`,
  },
  { title: 'Reference', width: 11, right: true, text: ({ reference }, format) => format.length(reference) },
  { title: 'Measured', width: 11, right: true, text: ({ measured }, format) => format.length(measured) },
  {
    title: 'Deviation',
    width: 10,
    right: true,
    strong: true,
    text: ({ deviation }, format) => format.difference(deviation),
  },
  { title: '±', width: 7, right: true, text: ({ plusMinus }, format) => format.uncertainty(plusMinus) },
  { title: ({ unit }) => `Limit ${unit}`, width: 8, right: true, text: ({ limit }, format) => format.length(limit) },
  { title: 'Verdict', width: 13, text: ({ verdict, accepted }) => verdict + (accepted ? ', accepted' : '') },
];

export const POINT_COLUMNS: readonly TableColumn<Point>[] = [
  { title: 'Point', width: 40, text: ({ code }) => code, also: ({ name }, format) => format.name(name) },
  { title: 'Length', width: 10, right: true, text: ({ deviation }, format) => format.difference(deviation[0]) },
  { title: 'Width', width: 10, right: true, text: ({ deviation }, format) => format.difference(deviation[1]) },
  {
    title: ({ unit }) => `Height ${unit}`,
    width: 11,
    right: true,
    text: ({ deviation }, format) => format.difference(deviation[2]),
  },
  {
    title: 'Worst ±',
    width: 9,
    right: true,
    text: ({ plusMinus }, format) => format.uncertainty(Math.max(...plusMinus)),
  },
  { title: 'Limit', width: 7, right: true, text: ({ limit }, format) => format.length(limit) },
  { title: 'Verdict', width: 13, text: ({ verdict, control }) => verdict + (control ? ', control' : '') },
];

export const CHANGE_COLUMNS: readonly TableColumn<Change>[] = [
  { title: 'Dimension', width: 14, text: ({ code }) => code },
  { title: 'Name', width: 40, text: ({ name }, format) => format.name(name) },
  {
    title: ({ unit }) => `Change ${unit}`,
    width: 15,
    right: true,
    strong: true,
    text: ({ change }, format) => format.difference(change),
  },
  { title: '±', width: 12, right: true, text: ({ plusMinus }, format) => format.uncertainty(plusMinus) },
  { title: 'Verdict', width: 19, text: ({ verdict }) => verdict },
];

export const GAP_COLUMNS: readonly TableColumn<Gap>[] = [
  {
    title: 'Station',
    width: 16,
    text: ({ seam, station, quantity }) => `${seam}.${station} ${quantity}`,
    also: ({ round }) => (round === undefined ? '' : `round ${round}`),
  },
  { title: 'Seam', width: 36, text: ({ name, side }, format) => `${format.name(name)}, ${side}` },
  {
    title: ({ unit }) => `Read ${unit}`,
    width: 12,
    right: true,
    strong: true,
    text: ({ quantity, measured }, format) =>
      quantity === 'flush' ? format.difference(measured) : format.length(measured),
  },
  { title: 'Wanted', width: 12, right: true, text: ({ target }, format) => format.length(target) },
  { title: '±', width: 8, right: true, text: ({ plusMinus }, format) => format.uncertainty(plusMinus) },
  { title: 'Verdict', width: 16, text: ({ verdict }) => verdict },
];

export const cautionSentences = (record: RecordDocument): readonly string[] =>
  record.changes?.cautions.map((caution) => CAUTION_WORD[caution]) ?? [];

/** A signature under a record. */
export interface Signature {
  readonly number: number;
  readonly signedBy: string;
  readonly signedAt: string;
  /** Of what was signed, SHA-256; empty where it was signed before that was kept. */
  readonly hash: string | null;
}

/** What the head of a record says, term and text. */
export function recordFacts(
  { job, references, madeAt }: RecordDocument,
  signature: Signature | undefined,
  format: Formatter,
): readonly (readonly [string, string])[] {
  const facts: readonly (readonly [string, string])[] = [
    ['Shell', job.shell],
    ['Identity number', job.identityNumber],
    ['Owner', job.owner],
    ['Shop', job.shop],
    ['Bench', job.bench],
    ['Driver sits on the', job.driverSide],
    ['Begun', format.day(job.startedAt)],
    [signature ? `Record ${signature.number}, signed` : 'As it stands on', format.day(madeAt)],
    ['Judged by', format.name(references.map(referenceText).join('; '))],
  ];
  return facts.map(([term, text]) => [term, text || '–']);
}

/** What a brace in each state does: a planned one holds nothing yet. */
const BRACE_HOLDS = { planned: 'is to hold', fitted: 'holds', loosened: 'is to hold again', removed: 'held' } as const;

/** Braces, then pulls, a line each by its code. */
export const workLines = (record: RecordDocument, format: Formatter): { code: string; text: string }[] =>
  linesOfWork(record, format).map(({ code, text }) => ({ code, text: format.name(text) }));

const linesOfWork = ({ braces, pulls }: RecordDocument, format: Formatter): { code: string; text: string }[] => [
  ...braces.map(({ code, ends, kind, section, length, holds, state }) => ({
    code,
    text: [
      [ends, BRACE_WORD[kind], section, length === undefined ? '' : `${format.length(length)} ${format.unit}`]
        .filter(Boolean)
        .join(', '),
      `${BRACE_HOLDS[state]} ${holds.join(', ') || 'nothing named'}`,
      state,
    ].join('; '),
  })),
  ...pulls.map(
    ({ code, point, against, attach, aim, distance, heldAt, springBacks, state, strokes = [], by = [] }) => ({
      code,
      text: [
        `at ${point}${against ? ` against ${against}` : ''}, ${format.length(distance)} ${format.unit} wanted: ${partsText(aim, format.length)}`,
        ...(attach ? [ATTACH_WORD[attach]] : []),
        ...(state ? [PULL_STATE_WORD[state]] : []),
        `held: ${heldAt || 'not said'}`,
        ...(springBacks.length > 0
          ? [`sprang back ${springBacks.map(format.difference).join(', ')} ${format.unit}`]
          : []),
        ...strokes.map(
          ({ loaded, rested }, i) =>
            `stroke ${i + 1}: ${format.length(loaded)} under load, came to rest at ${format.length(rested)}`,
        ),
        ...(by.length > 0 ? [`by ${by.join(', ')}`] : []),
      ].join('; '),
    }),
  ),
];

type Entry = RecordDocument['log'][number];

export const entryHead = ({ kind, at, author, about }: Entry, format: Formatter): string =>
  `${kind}, ${format.day(at)}, ${author}${about.length > 0 ? `: ${about.join(', ')}` : ''}`;

export const entryText = (entry: Entry, format: Formatter): string =>
  [
    format.name(entry.text),
    ...(entry.reason ? [`Because: ${format.name(entry.reason)}`] : []),
    ...(entry.overturnedBy ? [`Overturned by: ${format.name(entry.overturnedBy)}`] : []),
    ...detailSentences(entry, format),
  ].join(' ');

/** What a finding or a decision says besides its words. */
export function detailSentences(
  { finding, decision }: Pick<Entry, 'finding' | 'decision'>,
  format: Formatter,
): string[] {
  const thickness = ([finding?.before, finding?.after] as const).map((mm) =>
    mm === null || mm === undefined ? undefined : `${format.length(mm)} ${format.unit}`,
  );
  return [
    ...(finding && finding.sort !== 'other' ? [`Kind: ${SORT_WORD[finding.sort]}.`] : []),
    ...(finding?.grade ? [`It is ${GRADE_WORD[finding.grade]}.`] : []),
    ...(thickness[0] || thickness[1] ? [`Before ${thickness[0] ?? '–'}, after ${thickness[1] ?? '–'}.`] : []),
    ...(finding?.weight ? [`${finding.weight === 'structural' ? 'Structural' : 'Cosmetic'}.`] : []),
    ...(finding?.otherSide ? ['Seen on one side: look at the other.'] : []),
    ...(decision?.hours ? [`${counted(decision.hours, 'hour')}.`] : []),
    ...(decision?.ownerSays && decision.ownerSaidAt
      ? [`The owner says ${decision.ownerSays}, ${format.day(decision.ownerSaidAt)}.`]
      : []),
  ];
}

/** What a record tells besides tables, for the screen and for paper alike; parts with nothing in them are left out. */
export function toldParts(record: RecordDocument, format: Formatter, signed: boolean): ToldPart[] {
  const { doubts = [], steps = [], mornings = [], parts = [], takenBack = [], open = [] } = record;
  const told: ToldPart[] = [
    ...madeParts(record, format),
    {
      title: 'Readings left out as doubtful',
      lines: doubts.map(
        ({ round, subject, value, cause }) =>
          `Round ${round}: ${subject}, read ${format.length(value)} ${format.unit}${cause ? `; ${format.name(cause)}` : ''}`,
      ),
    },
    {
      title: 'Done, step by step',
      lines: steps.map(
        ({ rung, title, state, at, author }) =>
          `${RUNG_WORD[rung as 'look'] ?? rung}: ${format.name(title)} – ${state}, ${author}, ${format.day(at)}`,
      ),
    },
    {
      title: 'Mornings',
      lines: mornings.map(
        ({ at, author, round, verdict, readings }) =>
          `${format.day(at)}, ${author}, against round ${round}: ${MORNING_VERDICT_WORD[verdict]} (${readings
            .map(({ ends, change, plusMinus }) => `${ends} ${format.difference(change)} ${format.plusMinus(plusMinus)}`)
            .join('; ')} ${format.unit})`,
      ),
    },
    {
      title: 'Parts taken off',
      lines: parts.map(({ number, part, takenFrom, state, shelf, keepUntil }) =>
        [
          `${number}: ${format.name(part)}`,
          ...(takenFrom ? [`from ${format.name(takenFrom)}`] : []),
          ...[state, shelf].filter(Boolean),
          ...(keepUntil ? [`not scrapped until ${keepUntil}`] : []),
        ].join('; '),
      ),
    },
    {
      title: 'Taken back',
      lines: takenBack.map(({ what, reason, author, at }) => `${what}: ${reason} (${author}, ${format.day(at)})`),
    },
    {
      title: signed ? 'Open when it was signed' : 'Open',
      lines: open.map((each) => openLine(each, format)),
    },
  ];
  return told
    .filter(({ lines }) => lines.length > 0)
    .map(({ title, lines }) => ({ title, lines: lines.map(format.name) }));
}

export const openLine = (
  { kind, subject, reason }: NonNullable<RecordDocument['open']>[number],
  format: Formatter,
): string =>
  `${format.name(subject)}: ${OPEN_WORD[kind]}${reason ? `. Signed all the same: ${format.name(reason)}` : ''}`;

/** By what a signed record is told from every other, also on paper; nothing where it is not known. */
export const hashLine = (signature: Signature | undefined): string | undefined =>
  signature?.hash ? `What is signed, SHA-256: ${hashText(signature.hash)}` : undefined;

/** Who signs, on the left under a record. */
export const signedBy = (signature: Signature | undefined, format: Formatter): string =>
  signature ? `${signature.signedBy}, ${format.day(signature.signedAt)}` : 'not signed yet';
