import { along, spreadBy } from '../maths/linear/gradient';
import { Symmetric } from '../maths/linear/symmetric';
import { allLoose, LOOSE_WEIGHT } from './at-start';
import { loosePoints, type LoosePoint } from './loose';
import { equationsOf, linearise, newRow, type Equations } from './observations';
import { covarianceOf, solveNet, type NetSolution, type SolveFailure } from './solve';
import { idsOf, isMuchThe, placesOf, restrict, sizeOf, spokenOf, startFrom, type StartsAt } from './subset';
import { pointIndex, pointsOf, type Survey, type SurveyPoint, type SurveyReading } from './survey';

/** What was found loose beside a part that is carried on, and from what. */
interface FoundBeside {
  readonly from: Survey;
  readonly looseSd: number;
  /** Of the points of the part it hangs on, a coordinate each, mm². */
  readonly variances: readonly number[];
  readonly loose: readonly LoosePoint[];
}

const FOUND = new WeakMap<NetSolution, FoundBeside>();
/** What is loose stays so while the points it hangs on stand within this of where they did, mm, … */
const NEAR = 0.3;
/** … and their variances are within this share of what they were. */
const AS_SURE = 0.02;

/** The part a net is judged by. */
export interface MainPart {
  readonly piece: NetSolution;
  /** Every other point that readings speak of. */
  readonly loose: readonly LoosePoint[];
}

/**
 * A part with the points that hang on it firmly enough once they are located. The search judges at the starting coordinates and
 * by the length to every other point, which a point held by lengths that run much the same way can just miss.
 *
 * @param survey  the part's own points and readings and others
 * @param from    where other points have been before
 * @param looseSd what counts as not determined, one standard deviation, mm
 * @param last    the part as it was before, whose loose points are the same ones while the readings of them are
 */
export function withAllHeld(
  survey: Survey,
  piece: NetSolution,
  from: StartsAt | undefined,
  looseSd: number,
  last?: NetSolution,
): MainPart {
  if (sizeOf(piece) === survey.points.length) return { piece, loose: [] };
  const rest = beside(survey, piece);
  const spoken = spokenOf(rest);
  const variances = variancesOf(spoken, piece);
  const known = last && FOUND.get(last);
  if (
    known?.looseSd === looseSd &&
    isMuchThe(known.from, spoken, NEAR) &&
    variances.every((now, i) => Math.abs(now - known.variances[i]!) <= AS_SURE * now)
  ) {
    FOUND.set(piece, known);
    return { piece, loose: known.loose };
  }
  let found = heldBy(rest, piece, allLoose(rest, looseSd), looseSd);
  while (found.held) {
    const { held, loose } = found;
    const part = restrict(survey, idsOf(held));
    const starts = new Map([...(from ?? []), ...placesOf(held)]);
    const result = solveNet(part, { looseSd, from: startFrom(part, starts) });
    if (result.ok) return withAllHeld(survey, result.solution, from, looseSd);
    const own = idsOf(piece);
    const more = looseIn(part, result, looseSd).filter(({ id }) => !own.has(id));
    if (more.length === 0) return { piece, loose: [...loose, ...allLoose(restrict(rest, idsOf(held)), looseSd / 2)] };
    found = heldBy(rest, piece, [...loose, ...more], looseSd);
  }
  FOUND.set(piece, { from: spoken, looseSd, variances, loose: found.loose });
  return { piece, loose: found.loose };
}

const looseIn = (part: Survey, failure: SolveFailure, looseSd: number): LoosePoint[] =>
  failure.why === 'diverges' ? [] : loosePoints(part, failure.equations, failure.looseCovariance, looseSd);

/** Variances of a part's own coordinates, of those of its points that a survey speaks of. */
function variancesOf({ points }: Survey, piece: NetSolution): number[] {
  const [index, covariance] = [pointIndex(piece.survey), covarianceOf(piece)];
  return points.flatMap(({ id }) => {
    const first = index.has(id) ? piece.equations.column[index.get(id)!]! : -1;
    return first < 0 ? [] : [0, 1, 2].map((axis) => covariance.get(first + axis, first + axis));
  });
}

/** What of a survey goes beyond a part of it, with that part taken as it stands. */
function beside(survey: Survey, piece: NetSolution): Survey {
  const at = placesOf(piece);
  return {
    readings: survey.readings.filter((reading) => !pointsOf(reading).every((id) => at.has(id))),
    points: survey.points.map((point) => {
      const known = at.get(point.id);
      return known ? { id: point.id, start: known, hold: 'fixed' as const } : point;
    }),
  };
}

/** The datum of a part is not quite that of one with more points: what is nearly held is tried. */
const NEARLY = 1.08;

interface Beside {
  readonly held?: NetSolution;
  readonly loose: readonly LoosePoint[];
}

/** The points beside a part that its readings hold where they come to lie, and what the others are short of. */
function heldBy(rest: Survey, piece: NetSolution, loose: readonly LoosePoint[], looseSd: number): Beside {
  const isFree = new Set(loose.map(({ id }) => id));
  const part = restrict(rest, new Set(rest.points.flatMap(({ id }) => (isFree.has(id) ? [] : [id]))));
  if (part.points.every(({ hold }) => hold === 'fixed')) return { loose };
  const result = solveNet(part, { looseSd });
  const more = result.ok ? looseOn(piece, result.solution, NEARLY * looseSd) : looseIn(part, result, looseSd);
  if (more.length > 0) return heldBy(rest, piece, [...loose, ...more], looseSd);
  return result.ok ? { loose, held: result.solution } : { loose: [...loose, ...allLoose(part, looseSd / 2)] };
}

/**
 * Of the points located beside a part that was taken as it stands, those that are loose with what that part may itself be
 * off. They are put in one reading after the other, as in `addReading`, from a covariance that knows nothing of them.
 */
function looseOn(piece: NetSolution, located: NetSolution, looseSd: number): LoosePoint[] {
  const index = pointIndex(piece.survey);
  const columnIn = (id: string) => piece.equations.column[index.get(id)!]!;
  const points = located.survey.points.map(({ id, start }): SurveyPoint =>
    index.has(id) && columnIn(id) < 0 ? { id, start, hold: 'fixed' } : { id, start },
  );
  // What two repeats have in common tells little here: each has it by itself.
  const readings = located.survey.readings.map(({ bias, ...reading }): SurveyReading =>
    bias && reading.kind !== 'position' ? { ...reading, sigma: Math.hypot(reading.sigma, bias.sigma) } : reading,
  );
  const equations = equationsOf({ points, readings });
  const covariance = knowing(piece, equations, (i) => (index.has(points[i]!.id) ? columnIn(points[i]!.id) : -1));
  const [row, biases] = [newRow(), new Float64Array(equations.biasSigmas.length)];
  for (const observation of equations.observations) {
    linearise(equations, observation, located.x, biases, row);
    const spread = spreadBy(covariance, row);
    covariance.lessen([{ u: spread, share: 1 / (observation.sigma ** 2 + along(spread, row)) }]);
  }
  return loosePoints({ points, readings }, equations, covariance.values, looseSd).filter(({ id }) => !index.has(id));
}

/**
 * The covariance of more points, of which only those of a part are known.
 *
 * @param columnIn the first column of a point in the part, −1 for one that is not in it
 */
function knowing(piece: NetSolution, equations: Equations, columnIn: (point: number) => number): Symmetric {
  const { column, coordinates, biasSigmas, unknowns } = equations;
  const covariance = Symmetric.zeros(unknowns);
  biasSigmas.forEach((sigma, i) => covariance.set(coordinates + i, coordinates + i, sigma ** 2));
  const own = covarianceOf(piece);
  const columns = [...column].flatMap((to, i) => (to < 0 ? [] : [[to, columnIn(i)] as const]));
  for (const [to, from] of columns) {
    if (from < 0) for (let k = to; k < to + 3; k++) covariance.set(k, k, 1 / LOOSE_WEIGHT);
    else
      for (const [at, then] of columns)
        for (let k = 0; then >= 0 && k < 9; k++) {
          const [r, c] = [Math.floor(k / 3), k % 3];
          covariance.set(to + r, at + c, own.get(from + r, then + c));
        }
  }
  return covariance;
}
