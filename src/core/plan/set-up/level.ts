import { inverse, Matrix } from 'ml-matrix';
import type { Position, Vector } from '../../maths/geometry/vector';
import { insideBy } from './choose-mounts';
import { shimsFor, type Shim, type Shimming } from './shims';
import { onOneLine, riseAt, type Lie } from './loads';

/** An undisturbed point: where it should be read, and what was read there; mm, the chart's axes brought onto the bench. */
export interface LevelPoint {
  readonly id: string;
  readonly wanted: Position<'chart'>;
  /** Read coordinates with their standard deviations; one that was not read is absent. */
  readonly read: { readonly [axis in 'x' | 'y' | 'z']?: { readonly value: number; readonly sd: number } };
}

/** A clamp, jack or head that can be moved. */
export interface LevelSupport {
  readonly id: string;
  readonly x: number;
  readonly y: number;
  /** Whether it carries anything now; undefined where nobody felt. */
  readonly carries?: boolean;
  /** How far it can still go down (−) and up, mm. */
  readonly travel?: readonly [down: number, up: number];
  /** How far one turn of its thread lifts, mm; absent where it is shimmed. */
  readonly pitch?: number;
  /** Where it is shimmed: what lies on the shelf. */
  readonly shims?: readonly Shim[];
}

export interface SupportMove {
  readonly id: string;
  /** Up, right and rearward, mm; 0 where it is better left alone. */
  readonly raise: number;
  readonly across: number;
  readonly along: number;
  /** Two standard deviations of the lift, mm. */
  readonly raiseUncertainty: number;
  /** Turns of the thread, up positive. */
  readonly turns?: number;
  /** What to put in where it is shimmed; nothing where it is to be lowered: take out what is nearest. */
  readonly shims?: Shimming;
  /** So many mm of the lift are beyond its travel. */
  readonly beyond: number;
  /** It carries nothing: bring it up until it just takes load, then lift it by `raise`. */
  readonly takeUp: boolean;
  /** The others do not hold the shell while it is loose: a jack beside it has to. */
  readonly jack: boolean;
}

export interface Levelling {
  /** In the order of moving. */
  readonly moves: readonly SupportMove[];
  /** How the shell lies against the bench, with two standard deviations: mm per metre, and mm. */
  readonly lies: {
    readonly pitch: Measured;
    readonly roll: Measured;
    readonly height: Measured;
    readonly yaw?: Measured;
    readonly across?: Measured;
    readonly along?: Measured;
  };
  /** Its front turned against its rear, as mm at the outermost support; absent where too few heights were read. */
  readonly twist?: Measured & { readonly sure: boolean };
  /** Points that do not go with the rest, worst first, and by how many mm. */
  readonly strange: readonly { readonly id: string; readonly by: number }[];
}

export interface Measured {
  readonly value: number;
  /** Two standard deviations. */
  readonly uncertainty: number;
}

export type LevelResult =
  { readonly ok: true; readonly levelling: Levelling } | { readonly ok: false; readonly reason: LevelFault };

export type LevelFault =
  | { readonly kind: 'tooFewHeights'; readonly read: number }
  | { readonly kind: 'heightsOnLine' }
  | { readonly kind: 'tooFewSupports'; readonly there: number };

/** Moves smaller than this, or than their own uncertainty, are not worth a spanner, mm. */
const LEAST_MOVE = 0.2;
/** A residual so many standard deviations large is strange. */
const STRANGE = 3.5;

export interface LevelOptions {
  /** Which height the shell is wanted at: the bench's own, or whichever leaves most supports alone. */
  readonly height: 'bench' | 'free';
  /** Where the weight acts, to tell which support can be loosened without a jack. */
  readonly weight: Vector;
}

/**
 * What to move at each support so that the undisturbed points come onto the bench's planes.
 *
 * Heights less the wanted ones are explained by a lift, two tilts and one twist of the shell (first order in the angles),
 * those along and across by two shifts and a turn, both by weighted least squares. The twist of undisturbed points is put
 * there by the support itself: it is undone with the rest where it is larger than its uncertainty. Every support goes by what
 * the shell at its place is off, the other way.
 */
export function level(
  points: readonly LevelPoint[],
  supports: readonly LevelSupport[],
  { height, weight }: LevelOptions,
): LevelResult {
  const heights = points.flatMap(({ id, wanted: [x, y, z], read }) =>
    read.z ? [{ id, x, y, off: read.z.value - z, sd: read.z.sd }] : [],
  );
  if (supports.length < 3) return { ok: false, reason: { kind: 'tooFewSupports', there: supports.length } };
  if (heights.length < 3) return { ok: false, reason: { kind: 'tooFewHeights', read: heights.length } };
  if (onOneLine(heights)) return { ok: false, reason: { kind: 'heightsOnLine' } };
  const x0 = supports.reduce((sum, { x }) => sum + x, 0) / supports.length;
  const up = fitHeights(heights, supports, x0);
  const flat = fitPlan(points, x0);
  const raises = supports.map(({ x, y }) => -riseAt(up.lie, x, y));
  const spreads = supports.map(({ x, y }) => 2 * up.sdAt(x, y));
  const shift = height === 'free' ? bestShift(raises, spreads) : 0;
  const moves = supports.map((support, i): SupportMove => {
    const wanted = raises[i]! + shift;
    const raise = isWorth(wanted, spreads[i]!) || support.carries === false ? wanted : 0;
    const [down, most] = support.travel ?? [-Infinity, Infinity];
    const others = supports.filter((other) => other !== support && other.carries !== false);
    return {
      id: support.id,
      raise,
      ...flat.moveAt(support.x, support.y),
      raiseUncertainty: spreads[i]!,
      ...(support.pitch ? { turns: raise / support.pitch } : {}),
      ...(!support.pitch && support.shims && raise > 0 ? { shims: shimsFor(raise, support.shims) } : {}),
      beyond: raise > most ? raise - most : raise < down ? raise - down : 0,
      takeUp: support.carries === false,
      jack: others.length < 3 || onOneLine(others) || insideBy(others, weight) < 0,
    };
  });
  const reach = Math.max(...supports.map(({ x, y }) => Math.abs((x - x0) * y)));
  const twist = up.twist && {
    value: up.twist.value * reach,
    uncertainty: up.twist.uncertainty * reach,
    sure: up.twist.sure,
  };
  return {
    ok: true,
    levelling: {
      // What carries nothing first, so that the shell follows; then the largest.
      moves: moves.toSorted((a, b) => Number(b.takeUp) - Number(a.takeUp) || Math.abs(b.raise) - Math.abs(a.raise)),
      lies: { ...up.lies, ...flat.lies },
      ...(twist ? { twist } : {}),
      strange: up.strange,
    },
  };
}

const isWorth = (move: number, uncertainty: number): boolean => Math.abs(move) >= Math.max(LEAST_MOVE, uncertainty);

/** The common lift that leaves most supports alone, of those the one that moves the rest least. */
function bestShift(raises: readonly number[], spreads: readonly number[]): number {
  const figure = (shift: number) => {
    const moved = raises.map((raise) => raise + shift).filter((raise, i) => isWorth(raise, spreads[i]!));
    return moved.length * 1000 + moved.reduce((sum, raise) => sum + Math.abs(raise), 0);
  };
  return [0, ...raises.map((raise) => -raise)].sort((a, b) => figure(a) - figure(b))[0]!;
}

interface HeightRead {
  readonly id: string;
  readonly x: number;
  readonly y: number;
  readonly off: number;
  readonly sd: number;
}

/** Weighted least squares: unknowns, their covariance and the residuals read − explained, each over its own standard deviation. */
function leastSquares(rows: readonly (readonly number[])[], off: readonly number[], sd: readonly number[]) {
  const size = rows[0]!.length;
  const normal = Matrix.zeros(size, size);
  const right = Matrix.zeros(size, 1);
  rows.forEach((row, i) => {
    for (let r = 0; r < size; r++) {
      right.set(r, 0, right.get(r, 0) + (row[r]! * off[i]!) / sd[i]! ** 2);
      for (let c = 0; c < size; c++) normal.set(r, c, normal.get(r, c) + (row[r]! * row[c]!) / sd[i]! ** 2);
    }
  });
  const covariance = inverse(normal);
  const unknowns = covariance.mmul(right).to1DArray();
  const variance = (row: readonly number[]) => {
    const vector = Matrix.rowVector([...row]);
    return vector.mmul(covariance).mmul(vector.transpose()).get(0, 0);
  };
  const residuals = rows.map((row, i) => off[i]! - row.reduce((sum, value, k) => sum + value * unknowns[k]!, 0));
  const strange = residuals.map((residual, i) => {
    const own = sd[i]! ** 2 - variance(rows[i]!);
    return own > 1e-6 * sd[i]! ** 2 ? Math.abs(residual) / Math.sqrt(own) : 0;
  });
  return { unknowns, covariance, variance, residuals, strange };
}

/** Metres, so that the unknowns are of one size. */
const M = 1000;

function fitHeights(heights: readonly HeightRead[], supports: readonly LevelSupport[], x0: number) {
  const rowOf = (x: number, y: number, twisted: boolean) => [
    1,
    (x - x0) / M,
    y / M,
    ...(twisted ? [((x - x0) * y) / M ** 2] : []),
  ];
  const solveWith = (twisted: boolean) =>
    leastSquares(
      heights.map(({ x, y }) => rowOf(x, y, twisted)),
      heights.map(({ off }) => off),
      heights.map(({ sd }) => sd),
    );
  const canTwist = heights.length > 4 && supports.length > 3 && tellsTwist(heights, x0);
  const twistedFit = canTwist ? solveWith(true) : undefined;
  const twistSd = twistedFit ? Math.sqrt(twistedFit.covariance.get(3, 3)) : 0;
  const sure = twistedFit !== undefined && Math.abs(twistedFit.unknowns[3]!) > 2 * twistSd;
  const fit = sure ? twistedFit : solveWith(false);
  const [at, pitch, roll, twist = 0] = fit.unknowns as [number, number, number, number?];
  const lie: Lie = { at, pitch: pitch / M, roll: roll / M, twist: twist / M ** 2, x0 };
  const spread = (k: number) => 2 * Math.sqrt(fit.covariance.get(k, k));
  return {
    lie,
    sdAt: (x: number, y: number) => Math.sqrt(fit.variance(rowOf(x, y, sure))),
    lies: {
      height: { value: at, uncertainty: spread(0) },
      pitch: { value: pitch, uncertainty: spread(1) },
      roll: { value: roll, uncertainty: spread(2) },
    },
    ...(twistedFit
      ? { twist: { value: twistedFit.unknowns[3]! / M ** 2, uncertainty: (2 * twistSd) / M ** 2, sure } }
      : {}),
    strange: fit.strange
      .map((size, i) => ({ id: heights[i]!.id, by: fit.residuals[i]!, size }))
      .filter(({ size }) => size > STRANGE)
      .sort((a, b) => b.size - a.size)
      .map(({ id, by }) => ({ id, by })),
  };
}

/** Whether heights stand on both sides at both ends, so that a twist shows. */
function tellsTwist(heights: readonly HeightRead[], x0: number): boolean {
  const quarters = new Set(heights.filter(({ y }) => Math.abs(y) > 1).map(({ x, y }) => `${x > x0} ${y > 0}`));
  return quarters.size === 4;
}

function fitPlan(points: readonly LevelPoint[], x0: number) {
  const rows: number[][] = [];
  const off: number[] = [];
  const sd: number[] = [];
  for (const { wanted, read } of points) {
    const [x, y] = wanted;
    const add = (row: readonly number[], at: number, axis: { readonly value: number; readonly sd: number }) => {
      rows.push([...row]);
      off.push(axis.value - at);
      sd.push(axis.sd);
    };
    if (read.x) add([1, 0, -y / M], x, read.x);
    if (read.y) add([0, 1, (x - x0) / M], y, read.y);
  }
  const across = points.filter(({ read }) => read.y);
  const stations = across.map(({ wanted }) => wanted[0]);
  const known =
    points.some(({ read }) => read.x) && across.length >= 2 && Math.max(...stations) - Math.min(...stations) > 100;
  if (!known) {
    const shift = across.length > 0 ? mean(across.map(({ wanted, read }) => read.y!.value - wanted[1])) : undefined;
    const spread =
      shift === undefined ? 0 : 2 * Math.sqrt(mean(across.map(({ read }) => read.y!.sd ** 2)) / across.length);
    return { lies: {}, moveAt: () => ({ across: shift === undefined ? 0 : worthwhile(-shift, spread), along: 0 }) };
  }
  const { unknowns, covariance, variance } = leastSquares(rows, off, sd);
  const [along, sideways, yaw] = unknowns as [number, number, number];
  const spread = (k: number) => 2 * Math.sqrt(covariance.get(k, k));
  return {
    lies: {
      along: { value: along, uncertainty: spread(0) },
      across: { value: sideways, uncertainty: spread(1) },
      yaw: { value: yaw, uncertainty: spread(2) },
    },
    moveAt: (x: number, y: number) => ({
      across: worthwhile(-(sideways + (yaw * (x - x0)) / M), 2 * Math.sqrt(variance([0, 1, (x - x0) / M]))),
      along: worthwhile(-(along - (yaw * y) / M), 2 * Math.sqrt(variance([1, 0, -y / M]))),
    }),
  };
}

const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;
const worthwhile = (move: number, uncertainty: number): number => (isWorth(move, uncertainty) ? move : 0);
