import type { LengthUnit } from '../../maths/units/length';
import type { JobRows } from '../job/job-rows';
import { fold, type Charted, type ChartDraft, type DraftPoint } from './draft';

/** One thing a chart speaks of, against what the edition in use says of it. */
export interface ChartChange {
  readonly list: 'points' | 'dimensions' | 'seams';
  readonly code: string;
  readonly kind: 'new' | 'changed' | 'gone' | 'same';
  /** What is said otherwise: a length in mm, or words. */
  readonly fields: readonly {
    readonly field: string;
    readonly before: number | string;
    readonly after: number | string;
  }[];
}

type Said = Readonly<Record<string, number | string>>;
type Rows = Charted & Pick<JobRows, 'referencePoints' | 'referenceDimensions' | 'referenceStations'>;

/**
 * What a chart brought in again would change. A list the file does not hold is left as it is; of one it does hold,
 * whatever it does not speak of any more is gone from the next edition.
 *
 * @param referenceId the edition in use
 */
export function compareChart(draft: ChartDraft, rows: Rows, referenceId: string): ChartChange[] {
  return [
    ...(draft.points.length > 0
      ? compared('points', saidOfPoints(draft), pointsHere(rows, referenceId))
      : compared('points', saidOfPoints(draft), namesHere(rows)).filter(({ kind }) => kind !== 'gone')),
    ...compared('dimensions', saidOfDimensions(draft), dimensionsHere(rows, referenceId)),
    ...compared('seams', saidOfSeams(draft), seamsHere(rows, referenceId)),
  ];
}

function compared(
  list: ChartChange['list'],
  said: ReadonlyMap<string, Said>,
  here: ReadonlyMap<string, Said>,
): ChartChange[] {
  if (said.size === 0) return [];
  const changes = [...said].map(([code, after]): ChartChange => {
    const known = [...here.keys()].find((each) => fold(each) === fold(code));
    if (known === undefined) return { list, code, kind: 'new', fields: [] };
    const before = here.get(known)!;
    const fields = [...new Set([...Object.keys(before), ...Object.keys(after)])]
      .map((field) => ({ field, before: before[field] ?? '', after: after[field] ?? '' }))
      .filter((each) => !isSame(each.before, each.after));
    return { list, code: known, kind: fields.length > 0 ? 'changed' : 'same', fields };
  });
  const spoken = new Set([...said.keys()].map(fold));
  const gone = [...here.keys()].filter((code) => !spoken.has(fold(code)));
  return [...changes, ...gone.map((code): ChartChange => ({ list, code, kind: 'gone', fields: [] }))];
}

/** Lengths that a change of unit and back makes differ are the same. */
const isSame = (a: number | string, b: number | string): boolean =>
  typeof a === 'number' && typeof b === 'number' ? Math.abs(a - b) < 0.005 : a === b;

const saidOfPoints = ({ points, named = [] }: ChartDraft) =>
  new Map<string, Said>([
    ...named.map(({ code, name, side }) => [code, { name, side }] as const),
    ...points.map(
      ({ code, name, side, x, y, z, tolerance }) => [code, { name, side, x, y, z, limit: tolerance }] as const,
    ),
  ]);

function pointsHere(rows: Rows, referenceId: string): Map<string, Said> {
  const figures = new Map(
    rows.referencePoints.filter((each) => each.referenceId === referenceId).map((each) => [each.pointId, each]),
  );
  return new Map(
    rows.points.flatMap(({ id, code, name, side }): [string, Said][] => {
      const figure = figures.get(id);
      if (!figure) return [];
      const { x, y, z, tolerance } = figure;
      return [[code, { name, side, x, y, z, limit: tolerance }]];
    }),
  );
}

const namesHere = ({ points }: Rows) =>
  new Map<string, Said>(points.map(({ code, name, side }) => [code, { name, side }]));

const saidOfDimensions = ({ dimensions }: ChartDraft) =>
  new Map<string, Said>(
    dimensions.map(({ code, name, from, to, value, tolerance, measure }) => [
      code,
      { name, ends: `${from} – ${to}`, value, limit: tolerance, measure },
    ]),
  );

function dimensionsHere(rows: Rows, referenceId: string): Map<string, Said> {
  const codes = new Map(rows.points.map(({ id, code }) => [id, code]));
  const figures = new Map(
    rows.referenceDimensions.filter((each) => each.referenceId === referenceId).map((each) => [each.dimensionId, each]),
  );
  return new Map(
    rows.dimensions.flatMap(({ id, code, name, fromPointId, toPointId, measure }): [string, Said][] => {
      const figure = figures.get(id);
      if (!figure) return [];
      const ends = `${codes.get(fromPointId)} – ${codes.get(toPointId)}`;
      return [[code, { name, ends, value: figure.value, limit: figure.tolerance, measure }]];
    }),
  );
}

const saidOfSeams = ({ seams }: ChartDraft) =>
  new Map<string, Said>(
    seams.map(({ code, name, side, stations }) => [
      code,
      {
        name,
        side,
        ...Object.fromEntries(
          stations.flatMap(({ number, gap, flush }) => [
            ...(gap ? [[`${number} gap`, gap.value] as const] : []),
            ...(flush ? [[`${number} flush`, flush.value] as const] : []),
          ]),
        ),
      },
    ]),
  );

function seamsHere(rows: Rows, referenceId: string): Map<string, Said> {
  const figures = rows.referenceStations.filter((each) => each.referenceId === referenceId);
  return new Map(
    rows.seams.map(({ id, code, name, side }): [string, Said] => [
      code,
      {
        name,
        side,
        ...Object.fromEntries(
          rows.seamStations
            .filter(({ seamId }) => seamId === id)
            .flatMap((station) =>
              figures
                .filter(({ stationId }) => stationId === station.id)
                .map(({ quantity, value }) => [`${station.number} ${quantity}`, value]),
            ),
        ),
      },
    ]),
  );
}

/** Car bodies are this long, mm: from a microcar's shell to the longest estate's. */
const SHORTEST = 1200;
const LONGEST = 8000;
const MM_A: Readonly<Record<LengthUnit, number>> = { mm: 1, cm: 10, m: 1000, in: 25.4, ft: 304.8 };

export interface UnlikelySize {
  /** How long this shell would be, mm. */
  readonly length: number;
  /** Units in which its bare numbers would make a car, the likeliest first. */
  readonly units: readonly LengthUnit[];
}

/**
 * A chart of a size no shell has, and the units in which its bare numbers would make sense.
 *
 * @param unit what bare numbers were read in
 * @returns undefined where the size is a shell's, or nothing is said of it
 */
export function unlikelySize({ points, dimensions }: ChartDraft, unit: LengthUnit): UnlikelySize | undefined {
  const reach = (axis: 'x' | 'y' | 'z') => {
    const along = points.map((point: DraftPoint) => point[axis]);
    return points.length < 2 ? 0 : Math.max(...along) - Math.min(...along);
  };
  const length = Math.max(reach('x'), reach('y'), reach('z'), ...dimensions.map(({ value }) => value));
  const isShell = (mm: number) => mm >= SHORTEST && mm <= LONGEST;
  // A few lengths of an opening say nothing of the whole.
  const tooFew = points.length < 4 && dimensions.length < 4;
  if (length === 0 || isShell(length) || (tooFew && length < LONGEST)) return undefined;
  const units = (Object.keys(MM_A) as LengthUnit[]).filter(
    (each) => each !== unit && isShell((length * MM_A[each]) / MM_A[unit]),
  );
  return { length, units };
}
