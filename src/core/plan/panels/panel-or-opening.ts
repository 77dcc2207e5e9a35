import { Matrix, solve } from 'ml-matrix';
import { COVERAGE, judge, type Judgement } from '../../maths/statistics/verdict';
import { SHAPE_LENGTHS, type HungPanel, type PanelMeasure } from '../../shell/job/entities';
import type { HangStation } from './hang';

export type MeasuredThing = PanelMeasure['thing'];
export type ShapeLength = PanelMeasure['what'];

/** A length of a panel or an opening as all readings together have it: what it is off what it should be, mm. */
export interface ShapeFigure extends Judgement {
  readonly what: ShapeLength;
  readonly value: number;
  readonly sd: number;
  readonly limit: number;
}

/** What is found of the shape of one of the two. */
export interface ThingFound {
  readonly thing: MeasuredThing;
  /** Outside where a length of it is wrong for certain; inside where each is right for certain. */
  readonly verdict: Judgement['verdict'];
  /** What its lengths come to, known well enough to decide by; absent where they are not. */
  readonly isWrong?: boolean;
  readonly lengths: readonly ShapeFigure[];
  /** What was not measured of it. */
  readonly unmeasured: readonly ShapeLength[];
}

export interface Separation {
  readonly panel: ThingFound;
  readonly opening: ThingFound;
  /** Whose fault it is that no position of the panel makes its gaps right. */
  readonly says: 'panel' | 'opening' | 'both' | 'neither' | 'cannotTell';
  /** Two standard deviations do not change what is said. */
  readonly certain: boolean;
}

type Corner = 0 | 1 | 2 | 3;
/** Corners in order round: the front or left lower one, the rear or right lower one, and those above. */
const CORNER: readonly (readonly [-1 | 1, -1 | 1])[] = [
  [-1, -1],
  [1, -1],
  [1, 1],
  [-1, 1],
];
/** The corners each length is taken between. */
export const LENGTH_BETWEEN: Readonly<Record<Exclude<ShapeLength, 'twist'>, readonly [Corner, Corner]>> = {
  ...{ low: [0, 1], highUp: [3, 2] },
  ...{ front: [0, 3], rear: [1, 2] },
  ...{ down: [3, 1], up: [0, 2] },
};

/** Unknowns: two a corner of the opening, two a corner of the panel, its three shifts and turns in its plane, its three out of it, and the twist of each. */
const [OPENING, PANEL, RIGID, TILT, OPENING_TWIST, PANEL_TWIST, UNKNOWNS] = [0, 8, 16, 19, 22, 23, 24];
/** How far a corner may be off before anything was read, and how far the panel may hang off, mm: one standard deviation. */
const SHAPE = 3;
const HANGS = 15;
/** The corner that stands off when three lie flat stands off by so many twists. */
const OFF_FLAT = 4;

/** A twist shows at each corner as a quarter of it, and half of what flush may be off is left for it. */
const limitOf = (what: ShapeLength, limit: number): number => (what === 'twist' ? (OFF_FLAT / 2) * limit : limit);

type Row = Float64Array;

/**
 * Whether what is left of a panel's gaps is the panel's or the opening's. Both are flat quadrilaterals whose corners are off by
 * a little; a gap is what the opening's edge is off less what the panel's is, straight between corners; the lengths measured of
 * each tell its own corners. All together by least squares, with corners that are off by about 3 mm before anything is read.
 * Gaps alone never tell the two apart.
 *
 * @param size   length and height of the panel, mm
 * @param limit  how far a length may be off, mm
 */
export function panelOrOpening(
  size: Pick<HungPanel, 'long' | 'high'>,
  stations: readonly HangStation[],
  measures: readonly Pick<PanelMeasure, 'thing' | 'what' | 'wanted' | 'value' | 'sd'>[],
  limit: number,
): Separation {
  const N = Matrix.zeros(UNKNOWNS, UNKNOWNS);
  const right = new Float64Array(UNKNOWNS);
  const observe = (row: Row, value: number, sd: number) => {
    const weight = 1 / sd ** 2;
    for (let i = 0; i < UNKNOWNS; i++) {
      if (row[i] === 0) continue;
      right[i]! += weight * row[i]! * value;
      for (let j = 0; j < UNKNOWNS; j++) if (row[j] !== 0) N.set(i, j, N.get(i, j) + weight * row[i]! * row[j]!);
    }
  };
  for (let i = 0; i < UNKNOWNS; i++) {
    const row = new Float64Array(UNKNOWNS);
    row[i] = 1;
    observe(row, 0, i >= RIGID && i < OPENING_TWIST ? HANGS : SHAPE);
  }
  for (const { place, gap, flush } of stations) {
    const half = { x: place.x / (size.long / 2), y: place.y / (size.high / 2) };
    observe(gapRow(half, place.normal), gap.now - gap.target, gap.sd);
    if (flush) observe(flushRow(half), flush.now - flush.target, flush.sd);
  }
  for (const { thing, what, wanted, value, sd } of measures) observe(lengthRow(size, thing, what), value - wanted, sd);
  const covariance = solve(N, Matrix.eye(UNKNOWNS));
  const found = covariance.mmul(Matrix.columnVector(right)).to1DArray();
  const of = (thing: MeasuredThing): ThingFound => {
    const lengths = SHAPE_LENGTHS.map((what): ShapeFigure => {
      const row = Matrix.rowVector([...lengthRow(size, thing, what)]);
      const value = row.mmul(Matrix.columnVector(found)).get(0, 0);
      const sd = Math.sqrt(row.mmul(covariance).mmul(row.transpose()).get(0, 0));
      return { what, value, sd, limit: limitOf(what, limit), ...judge(value, sd, limitOf(what, limit)) };
    });
    const said = new Set(lengths.map(({ verdict }) => verdict));
    // What nothing measured says nothing of itself: its twist is asked for only where flush was read.
    const asked = lengths.filter(({ what }) => what !== 'twist' || stations.some(({ flush }) => flush));
    const verdict = said.has('outside')
      ? 'outside'
      : asked.every((each) => each.verdict === 'inside')
        ? 'inside'
        : 'undecided';
    const unmeasured = asked
      .map(({ what }) => what)
      .filter((what) => !measures.some((each) => each.thing === thing && each.what === what));
    const isWrong = lengths.some(({ value, sd, ...of }) => Math.abs(value) > Math.max(of.limit, COVERAGE * sd));
    const isKnown = asked.every(({ sd, ...of }) => COVERAGE * sd <= of.limit);
    return { thing, verdict, lengths, unmeasured, ...(isKnown || verdict === 'outside' ? { isWrong } : {}) };
  };
  const [panel, opening] = [of('panel'), of('opening')];
  const certain = [panel, opening].every(({ verdict }) => verdict !== 'undecided');
  return { panel, opening, says: saying(panel, opening), certain };
}

function saying({ isWrong: panel }: ThingFound, { isWrong: opening }: ThingFound): Separation['says'] {
  if (panel === undefined || opening === undefined) return 'cannotTell';
  if (panel && opening) return 'both';
  if (panel) return 'panel';
  return opening ? 'opening' : 'neither';
}

interface Half {
  readonly x: number;
  readonly y: number;
}

/** How much each corner counts at a place of the rectangle, −1 … 1 both ways. */
const shares = ({ x, y }: Half) => CORNER.map(([cx, cy]) => ((1 + cx * x) * (1 + cy * y)) / 4);

function gapRow(at: Half, [nx, ny]: readonly [number, number]): Row {
  const row = new Float64Array(UNKNOWNS);
  shares(at).forEach((share, c) => {
    row[OPENING + 2 * c] = share * nx;
    row[OPENING + 2 * c + 1] = share * ny;
    row[PANEL + 2 * c] = -share * nx;
    row[PANEL + 2 * c + 1] = -share * ny;
  });
  row[RIGID] = -nx;
  row[RIGID + 1] = -ny;
  row[RIGID + 2] = -(ny * at.x - nx * at.y);
  return row;
}

/** Proud is the panel out of the opening's surface. */
function flushRow({ x, y }: Half): Row {
  const row = new Float64Array(UNKNOWNS);
  row.set([1, x, y], TILT);
  row[PANEL_TWIST] = x * y;
  row[OPENING_TWIST] = -x * y;
  return row;
}

function lengthRow(size: Pick<HungPanel, 'long' | 'high'>, thing: MeasuredThing, what: ShapeLength): Row {
  const row = new Float64Array(UNKNOWNS);
  if (what === 'twist') {
    row[thing === 'panel' ? PANEL_TWIST : OPENING_TWIST] = OFF_FLAT;
    return row;
  }
  const [a, b] = LENGTH_BETWEEN[what];
  const way = [0, 1].map((k) => ((CORNER[b]![k]! - CORNER[a]![k]!) / 2) * (k === 0 ? size.long : size.high));
  const length = Math.hypot(way[0]!, way[1]!);
  const from = thing === 'panel' ? PANEL : OPENING;
  [0, 1].forEach((k) => {
    row[from + 2 * b + k] = way[k]! / length;
    row[from + 2 * a + k] = -way[k]! / length;
  });
  return row;
}

/** What is measured first where it cannot be told: of what was measured less, the widths and diagonals that gaps say least of. */
export function measureFirst({
  panel,
  opening,
}: Separation): { readonly thing: MeasuredThing; readonly what: readonly ShapeLength[] }[] {
  const unsure = ({ thing, lengths, unmeasured }: ThingFound) => ({
    thing,
    what: lengths
      .filter(({ what, verdict, sd }) => unmeasured.includes(what) && verdict !== 'inside' && sd > 0)
      .toSorted((a, b) => b.sd - a.sd)
      .map(({ what }) => what),
  });
  return [unsure(opening), unsure(panel)].filter(({ what }) => what.length > 0);
}
