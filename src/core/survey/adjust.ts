import { AXES, type Axis } from '../maths/geometry/vector';
import type { ReadingFacts } from './causes';
import { loosePoints, looseSentence, type LoosePoint } from './loose';
import { checkObservations, degreesOfFreedom, varianceFactor, type ObservationCheck } from './reliability';
import { solveRobustly } from './robust';
import { atFullWeight, solveNet, type NetSolution } from './solve';
import { accuse } from './suspects';
import type { Survey, SurveyReading } from './survey';

/** One value for a scalar reading, three for a position. */
export type PerComponent<T> = T | readonly [T, T, T];

export interface AdjustedReading {
  readonly id: string;
  readonly residual: PerComponent<number>;
  readonly redundancy: PerComponent<number>;
  readonly w: PerComponent<number | null>;
  readonly smallestDetectable: PerComponent<number | null>;
  readonly suspect: PerComponent<boolean>;
}

export interface Suspect {
  readonly id: string;
  readonly w: number;
  readonly axis?: Axis;
  readonly likely?: string;
}

/** A net adjusted: what the document `vinkel.adjustment/1` holds. Millimetres, axes of the round. */
export interface Adjustment {
  readonly datum: 'inner' | 'held';
  readonly converged: boolean;
  readonly iterations: number;
  readonly degreesOfFreedom: number;
  readonly varianceFactor: number | null;
  readonly points: readonly {
    readonly id: string;
    readonly x: number;
    readonly y: number;
    readonly z: number;
    readonly sx: number;
    readonly sy: number;
    readonly sz: number;
  }[];
  readonly readings: readonly AdjustedReading[];
  readonly held: readonly {
    readonly id: string;
    readonly residual: readonly [number, number, number];
    readonly w: readonly [number | null, number | null, number | null];
  }[];
  readonly suspects: readonly Suspect[];
  readonly downWeighted?: readonly string[];
}

export type AdjustResult =
  | { readonly ok: true; readonly adjustment: Adjustment; readonly solution: NetSolution }
  | { readonly ok: false; readonly reason: string; readonly loose: readonly LoosePoint[] };

export interface AdjustOptions {
  readonly robust?: boolean;
  readonly factsOf?: (reading: SurveyReading) => ReadingFacts;
}

/**
 * Adjusts a survey of mixed readings to coordinates, all of it or none.
 *
 * @returns the adjustment, or the sentence that says what is missing and what to add
 */
export function adjust(survey: Survey, options: AdjustOptions = {}): AdjustResult {
  if (survey.points.length === 0)
    return { ok: false, reason: 'the survey has no points: add points and readings', loose: [] };
  const result = options.robust ? solveRobustly(survey) : solveNet(survey);
  if (!result.ok) {
    if (result.why === 'diverges')
      return {
        ok: false,
        reason: 'the net does not converge: look for exchanged points, or give better starting coordinates',
        loose: [],
      };
    const loose = loosePoints(survey, result.equations, result.looseCovariance);
    return { ok: false, reason: looseSentence(loose), loose };
  }
  const { solution } = result;
  const checks = checkObservations(atFullWeight(solution), solution.kept);
  const { readings, held } = gather(survey, checks);
  return {
    ok: true,
    solution,
    adjustment: {
      datum: solution.freedoms > 0 ? 'inner' : 'held',
      converged: true,
      iterations: solution.iterations,
      degreesOfFreedom: degreesOfFreedom(solution),
      varianceFactor: varianceFactor(solution),
      points: survey.points.map((point, i) => {
        const [x, y, z] = [0, 1, 2].map((axis) => solution.x[3 * i + axis]!) as [number, number, number];
        const [sx, sy, sz] = [0, 1, 2].map((axis) => coordinateSd(solution, i, axis)) as [number, number, number];
        return { id: point.id, x, y, z, sx, sy, sz };
      }),
      readings,
      held,
      suspects: suspectsOf(solution, checks, options),
      ...(options.robust
        ? {
            downWeighted: survey.readings
              .filter((_, r) => checks.some((check, i) => check.observation.reading === r && solution.kept[i]! < 1))
              .map(({ id }) => id),
          }
        : {}),
    },
  };
}

/** One standard deviation of a coordinate from the a-priori sigmas, mm; zero for a fixed point. */
export function coordinateSd({ covariance, equations }: NetSolution, point: number, axis: number): number {
  const first = equations.column[point]!;
  const at = first + axis;
  return first < 0 ? 0 : Math.sqrt(Math.max(0, covariance[at * equations.unknowns + at]!));
}

/** The scalar checks as their readings and held points have them. */
function gather(survey: Survey, checks: readonly ObservationCheck[]): Pick<Adjustment, 'readings' | 'held'> {
  const readings: AdjustedReading[] = [];
  const held: Adjustment['held'][number][] = [];
  for (let i = 0; i < checks.length;) {
    const { observation } = checks[i]!;
    const reading = survey.readings[observation.reading];
    const count = !reading || reading.kind === 'position' ? 3 : 1;
    const own = checks.slice(i, i + count);
    const each = <T>(pick: (check: ObservationCheck) => T): PerComponent<T> =>
      count === 1 ? pick(own[0]!) : (own.map(pick) as unknown as [T, T, T]);
    const residual = each((check) => check.residual);
    const w = each((check) => check.w);
    if (reading)
      readings.push({
        id: reading.id,
        residual,
        w,
        redundancy: each((check) => check.redundancy),
        smallestDetectable: each((check) => check.smallestDetectable),
        suspect: each((check) => check.suspect),
      });
    else
      held.push({
        id: survey.points[observation.a]!.id,
        residual: residual as [number, number, number],
        w: w as [number | null, number | null, number | null],
      });
    i += count;
  }
  return { readings, held };
}

/** Every suspect once, by its worst component, the worst first; those truly accused with their cause. */
function suspectsOf(solution: NetSolution, checks: readonly ObservationCheck[], { factsOf }: AdjustOptions): Suspect[] {
  const { survey } = solution;
  const worst = new Map<string, Suspect>();
  for (const { observation, w, suspect } of checks) {
    if (!suspect || w === null) continue;
    const reading = survey.readings[observation.reading];
    const id = reading?.id ?? survey.points[observation.a]!.id;
    const key = `${reading ? 'reading' : 'held'} ${id}`;
    const known = worst.get(key);
    if (known && Math.abs(known.w) >= Math.abs(w)) continue;
    const component = !reading || reading.kind === 'position';
    worst.set(key, { id, w, ...(component ? { axis: AXES[observation.axis]! } : {}) });
  }
  if (worst.size === 0) return [];
  for (const { reading, cause } of accuse(solution, factsOf).accusations) {
    const key = reading && `reading ${reading.id}`;
    const suspect = key && worst.get(key);
    if (suspect && cause) worst.set(key, { ...suspect, likely: cause.text });
  }
  return [...worst.values()].sort((a, b) => Math.abs(b.w) - Math.abs(a.w));
}
