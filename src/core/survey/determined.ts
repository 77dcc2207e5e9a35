import { norm, subtract } from '../maths/geometry/vector';
import { allLoose, looseCovarianceAtStart, type LooseNet } from './at-start';
import { withAllHeld, type MainPart } from './beside';
import { grownBy } from './extend';
import { loosePoints, type LoosePoint } from './loose';
import { isLoose, LOOSE_SD, solveNet, type NetSolution } from './solve';
import { idsOf, placesOf, restrict, sizeOf, startFrom, type StartsAt } from './subset';
import { pointsOf, type Survey } from './survey';

/** What of a growing net can be solved, and what cannot yet. */
export interface DeterminedNet {
  /** The parts that hang together, the largest first; each in its own datum. */
  readonly pieces: readonly NetSolution[];
  /** Points that readings speak of but that are not in the first piece, with what each is short of. */
  readonly loose: readonly LoosePoint[];
  /** Points no reading speaks of. */
  readonly unread: readonly string[];
}

const SMALLEST_PIECE = 3;

/**
 * Solves every part of a net that is determined. Which parts those are is judged at the starting
 * coordinates: two points hang together when the distance between them is determined, and a part is
 * a set of points each two of which do.
 *
 * @param last    an earlier solution of much the same net: to start from, or only to be brought up to date
 * @param looseSd what counts as not determined, one standard deviation, mm
 */
export function solveDetermined(survey: Survey, last?: NetSolution, looseSd = LOOSE_SD): DeterminedNet {
  const from = last && startsAt(last, survey);
  const spoken = new Set(survey.readings.flatMap(pointsOf));
  const points = survey.points.filter((point) => spoken.has(point.id) || point.hold !== undefined);
  const unread = survey.points.filter((point) => !points.includes(point)).map(({ id }) => id);
  const whole = restrict(survey, new Set(points.map(({ id }) => id)));
  const known = last && from && grown(last, whole, from, looseSd);
  if (known) {
    const others = piecesOf(outside(whole, known.piece), from, looseSd);
    // It was the largest part; where another has outgrown it, that one is what the round is judged by.
    if (others.every((piece) => sizeOf(piece) <= sizeOf(known.piece)))
      return { pieces: [known.piece, ...others], loose: known.loose, unread };
  }
  const pieces = piecesOf(whole, from, looseSd);
  if (!pieces[0]) return { pieces, loose: allLoose(restrict(survey, spoken), looseSd), unread };
  const { piece, loose } = withAllHeld(whole, pieces[0], from, looseSd);
  const others = piece === pieces[0] ? pieces.slice(1) : piecesOf(outside(whole, piece), from, looseSd);
  return { pieces: [piece, ...others], loose, unread };
}

/** The parts of a survey that can be solved, the largest first. */
function piecesOf(survey: Survey, from: StartsAt | undefined, looseSd: number): NetSolution[] {
  const piece = largestPiece(survey, from, looseSd);
  return piece ? [piece, ...piecesOf(outside(survey, piece), from, looseSd)] : [];
}

/** What of a survey does not belong to a part of it. */
function outside(survey: Survey, piece: NetSolution): Survey {
  const taken = idsOf(piece);
  return restrict(survey, new Set(survey.points.flatMap(({ id }) => (taken.has(id) ? [] : [id]))));
}

/** In a part of fewer points a reading more can change which of them belong to it; there the search costs little. */
const FULL_GROWN = 12;

/**
 * The last part as the readings are now: with one more at little cost, and solved anew otherwise; with the points that a
 * reading has tied in. Only where it is still whole.
 */
function grown(last: NetSolution, survey: Survey, from: StartsAt, looseSd: number): MainPart | undefined {
  if (sizeOf(last) < FULL_GROWN) return undefined;
  const own = idsOf(last);
  const inside = restrict(survey, own);
  const result = grownBy(last, inside) ?? solveNet(inside, { firm: true, from: startFrom(inside, from) });
  if (!result?.ok || (!keepsAll(last, inside) && !isWhole(result.solution))) return undefined;
  return withAllHeld(survey, result.solution, from, looseSd, last);
}

/** Nothing of the last part's readings is gone, so that what was determined still is. */
function keepsAll({ survey: { readings } }: NetSolution, now: Survey): boolean {
  const ids = new Set(now.readings.map(({ id }) => id));
  return readings.every(({ id }) => ids.has(id));
}

/** Points that start farther than this from where they did are in other axes than the last solution, mm. */
const SAME_AXES = 100;

/** Where a last solution has its points; undefined where the survey is laid out in other axes since. */
function startsAt(last: NetSolution, now: Survey): StartsAt | undefined {
  const starts = new Map(now.points.map(({ id, start }) => [id, start]));
  const moved = last.survey.points.some(({ id, start }) => {
    const then = starts.get(id);
    return then && norm(subtract(then, start)) > SAME_AXES;
  });
  return moved ? undefined : placesOf(last);
}

function largestPiece(survey: Survey, from: StartsAt | undefined, looseSd: number): NetSolution | undefined {
  const whole = wholeAtOnce(survey, from, looseSd);
  if (whole) return whole;
  let ids = tightSet(
    survey,
    survey.points.map(({ id }) => id),
  );
  while (ids.length >= SMALLEST_PIECE || (ids.length > 0 && survey.points.some((point) => point.hold))) {
    const part = restrict(survey, new Set(ids));
    if (part.readings.length === 0) return undefined;
    const result = solveNet(part, { looseSd, ...(from ? { from: startFrom(part, from) } : {}) });
    if (result.ok) return result.solution;
    if (result.why === 'diverges') return from && largestPiece(survey, undefined, looseSd);
    const loose = new Set(loosePoints(part, result.equations, result.looseCovariance, looseSd).map(({ id }) => id));
    ids = loose.size === 0 || loose.size === ids.length ? [] : ids.filter((id) => !loose.has(id));
  }
  return undefined;
}

/**
 * The whole net as one piece, which it is when no coordinate's standard deviation reaches half of what counts as
 * loose: no distance's then reaches the whole. Saves the usual, full-grown net the search for its pieces.
 */
function wholeAtOnce(survey: Survey, from: StartsAt | undefined, looseSd: number): NetSolution | undefined {
  if (survey.points.length < SMALLEST_PIECE || survey.readings.length === 0 || fallsShort(survey)) return undefined;
  const result = solveNet(survey, { firm: true, looseSd, ...(from ? { from: startFrom(survey, from) } : {}) });
  return result.ok && isWhole(result.solution, looseSd) ? result.solution : undefined;
}

/** In a net of so many points each needs three figures of its own. */
const FEW_POINTS = 5;

/** Some point has fewer figures than coordinates, so that the net is not whole and need not be tried. */
function fallsShort({ points, readings }: Survey): boolean {
  if (points.length < FEW_POINTS) return false;
  const figures = new Map<string, number>();
  for (const reading of readings)
    for (const id of pointsOf(reading)) figures.set(id, (figures.get(id) ?? 0) + (reading.kind === 'position' ? 3 : 1));
  return points.some(({ id, hold }) => hold === undefined && (figures.get(id) ?? 0) < 3);
}

const isWhole = ({ covariance, equations }: NetSolution, looseSd = LOOSE_SD): boolean =>
  !isLoose(covariance, equations, looseSd / 2);

/** The largest set of points, found greedily, in which every distance is determined. */
function tightSet(survey: Survey, ids: readonly string[]): string[] {
  if (ids.length === 0) return [];
  const net = looseCovarianceAtStart(survey);
  const count = ids.length;
  const tight = Array.from({ length: count }, () => new Uint8Array(count));
  for (let i = 0; i < count; i++)
    for (let j = 0; j < i; j++) tight[i]![j] = tight[j]![i] = distanceSd(net, i, j) < LOOSE_SD ? 1 : 0;
  const partners = (i: number, among: readonly number[]) =>
    among.reduce((sum, j) => sum + (j === i ? 0 : tight[i]![j]!), 0);
  const all = ids.map((_, i) => i);
  const seed = all.reduce((best, i) => (partners(i, all) > partners(best, all) ? i : best), 0);
  let set = all.filter((i) => i === seed || tight[seed]![i] === 1);
  while (set.some((i) => partners(i, set) < set.length - 1)) {
    const worst = set.reduce((best, i) => (partners(i, set) < partners(best, set) ? i : best));
    set = set.filter((i) => i !== worst);
  }
  return set.map((i) => ids[i]!);
}

/** Standard deviation of the distance between two points, mm; asked of every pair, so nothing is allocated. */
function distanceSd({ equations: { column, unknowns }, covariance, x }: LooseNet, i: number, j: number): number {
  const length = Math.max(
    Math.hypot(x[3 * j]! - x[3 * i]!, x[3 * j + 1]! - x[3 * i + 1]!, x[3 * j + 2]! - x[3 * i + 2]!),
    1e-9,
  );
  const [p, q] = [column[i]!, column[j]!];
  let variance = 0;
  for (let r = 0; r < 3; r++)
    for (let s = 0; s < 3; s++) {
      const share = ((x[3 * j + r]! - x[3 * i + r]!) * (x[3 * j + s]! - x[3 * i + s]!)) / length ** 2;
      if (p >= 0) variance += share * covariance[(p + r) * unknowns + p + s]!;
      if (q >= 0) variance += share * covariance[(q + r) * unknowns + q + s]!;
      if (p >= 0 && q >= 0) variance -= 2 * share * covariance[(p + r) * unknowns + q + s]!;
    }
  return Math.sqrt(Math.max(0, variance));
}
