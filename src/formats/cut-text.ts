import { JOINT_KINDS, type CutLine, type Joint } from '@/core/shell/job/entities';
import { JOINT_WORD } from '@/core/report/cut-words';
import type { LengthUnit } from '@/core/maths/units/length';
import type { Fault } from './faults';
import { lengthOf, linesOf } from './typed-lines';

/**
 * What a cut line says: its label on the metal, the edge that stays, how far off it runs, what was read back; and where a piece is
 * spliced in, the saw's kerf and the gap left at the joint.
 */
export const CUT_LINE_COLUMNS = ['label', 'edge that stays', 'distance', 'read back', 'kerf', 'gap'];
/** What a joint says: what lies beside, how it is joined, the two sheets, the factory’s spots. */
export const JOINT_COLUMNS = ['beside', 'joined how', 'sheet', 'other sheet', 'spots'];

type Read<Key extends string, Row> = { readonly [K in Key]: Row[] } & { readonly faults: Fault[] };

/** Reads cut lines, one a line: `A; swage line of the sill; 42; 42`. A line keeps its identity by its label. */
export function readCutLines(
  text: string,
  unit: LengthUnit,
  { panelId, known }: { readonly panelId: string; readonly known: readonly CutLine[] },
  newId: () => string,
): Read<'lines', CutLine> {
  const faults: Fault[] = [];
  const lines = linesOf(text, 'lines', faults).flatMap((line): CutLine[] => {
    const before = faults.length;
    const [label = '', edge = '', , readBack = '', kerf = '', gap = ''] = line.cells;
    if (label === '') line.fault('a label first, as it stands on the metal');
    if (edge === '') line.fault('from which edge that stays');
    const distance = lengthOf(line, 2, 'distance', unit);
    const may = (cell: string, k: number) => (cell === '' ? null : lengthOf(line, k, CUT_LINE_COLUMNS[k]!, unit));
    const [read, sawn, left] = [may(readBack, 3), may(kerf, 4), may(gap, 5)];
    if ((sawn ?? 0) < 0 || (left ?? 0) < 0) line.fault('kerf and gap: not below nothing');
    const there = known.find((each) => each.label.toLowerCase() === label.toLowerCase());
    if (faults.length > before) return [];
    return [{ id: there?.id ?? newId(), panelId, label, edge, distance, readBack: read, kerf: sawn, gap: left }];
  });
  const labels = lines.map(({ label }) => label.toLowerCase());
  const twice = labels.find((label, i) => labels.indexOf(label) !== i);
  if (twice) faults.push({ path: 'lines', message: `line “${twice}” stands here twice` });
  return { lines, faults };
}

const KIND_OF: ReadonlyMap<string, Joint['kind']> = new Map(JOINT_KINDS.map((kind) => [JOINT_WORD[kind], kind]));

/** Reads joints, one a line: `inner sill; spot welds; 0.9; 1.2; 38`. */
export function readJoints(
  text: string,
  unit: LengthUnit,
  { panelId, jobId, known }: { readonly panelId: string; readonly jobId: string; readonly known: readonly Joint[] },
  newId: () => string,
): Read<'joints', Joint> {
  const faults: Fault[] = [];
  const joints = linesOf(text, 'joints', faults).flatMap((line): Joint[] => {
    const before = faults.length;
    const [beside = '', how = '', a = '', b = '', spots = ''] = line.cells;
    const kind = KIND_OF.get(how.toLowerCase());
    if (beside === '') line.fault('what lies beside it');
    if (!kind) line.fault(`joined how: one of ${[...KIND_OF.keys()].join(', ')}`);
    const sheet = (cell: string, k: number) => (cell === '' ? null : lengthOf(line, k, JOINT_COLUMNS[k]!, unit));
    const [thicknessA, thicknessB] = [sheet(a, 2), sheet(b, 3)];
    const count = spots === '' ? null : Number(spots);
    if (count !== null && !(Number.isInteger(count) && count >= 0)) line.fault('spots: a whole number, or nothing');
    if (faults.length > before || !kind) return [];
    const there = known.find((each) => each.beside.toLowerCase() === beside.toLowerCase() && each.kind === kind);
    const row = { panelId, jobId, beside, kind, thicknessA, thicknessB, factorySpots: count };
    return [{ ...row, id: there?.id ?? newId(), version: there?.version ?? 1 }];
  });
  return { joints, faults };
}

export const cutLinesText = (lines: readonly CutLine[], length: (mm: number) => string): string =>
  lines
    .map(({ label, edge, distance, readBack, kerf, gap }) =>
      [label, edge, length(distance), ...[readBack, kerf, gap].map((mm) => (mm === null ? '' : length(mm)))]
        .join('; ')
        .replace(/(; )+$/, ''),
    )
    .join('\n');

export const jointsText = (joints: readonly Joint[], fine: (mm: number) => string): string =>
  joints
    .map(({ beside, kind, thicknessA, thicknessB, factorySpots }) =>
      [
        beside,
        JOINT_WORD[kind],
        ...[thicknessA, thicknessB].map((mm) => (mm === null ? '' : fine(mm))),
        factorySpots ?? '',
      ]
        .join('; ')
        .replace(/(; )+$/, ''),
    )
    .join('\n');

/** What a line of a template's outline says. */
export const OUTLINE_COLUMNS = ['to the right', 'up'];
const FEWEST_CORNERS = 3;

/** Reads the outline of a template, a corner a line: `0; 0`, in order round. */
export function readOutline(
  text: string,
  unit: LengthUnit,
): { readonly corners: { readonly x: number; readonly y: number }[]; readonly faults: Fault[] } {
  const faults: Fault[] = [];
  const corners = linesOf(text, 'outline', faults).map((line) => ({
    x: lengthOf(line, 0, OUTLINE_COLUMNS[0]!, unit),
    y: lengthOf(line, 1, OUTLINE_COLUMNS[1]!, unit),
  }));
  if (faults.length === 0 && corners.length < FEWEST_CORNERS)
    faults.push({ path: 'outline', message: 'three corners at least' });
  return { corners, faults };
}
