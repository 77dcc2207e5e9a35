import { factorise, invert, solve as backSolve, type Factor } from './cholesky';
import { rigidFreedoms } from './datum';
import {
  equationsOf,
  linearise,
  newRow,
  type Equations,
  type Observation,
  type Row,
} from './observations';
import type { Survey } from './survey';

/** A net at its least-squares solution. */
export interface NetSolution {
  readonly survey: Survey;
  readonly equations: Equations;
  /** Coordinates of all points in the order of the survey, three each, mm. */
  readonly x: Float64Array;
  readonly biases: Float64Array;
  /** Joint covariance of the unknowns (pseudo-inverse of the normal matrix), mm², row major. */
  readonly covariance: Float64Array;
  /** Freedoms of the datum that nothing holds: 0 … 6. */
  readonly freedoms: number;
  readonly iterations: number;
  /** Share of its weight that each observation kept; 1 unless the solution is robust. */
  readonly kept: Float64Array;
}

/** What stands in the way of a solution. `looseVariance` is the variance of all coordinates, mm², capped. */
export type SolveFailure =
  | { readonly ok: false; readonly why: 'loose'; readonly equations: Equations; readonly looseCovariance: Float64Array }
  | { readonly ok: false; readonly why: 'diverges' }; // prettier-ignore

export type SolveResult = { readonly ok: true; readonly solution: NetSolution } | SolveFailure;

/** A coordinate whose standard deviation exceeds this counts as not determined, mm. */
export const LOOSE_SD = 25;
/**
 * Added to every diagonal element when looseness is judged: a direction that nothing holds gets a
 * standard deviation of 316 mm instead of an infinite one, and all others stay as they are.
 */
const LOOSE_WEIGHT = 1e-5;
const MOST_ITERATIONS = 120;
/** After so many steps the residuals are too large for Gauss–Newton. */
const PLAIN_ITERATIONS = 8;
/** The solution stands when no coordinate moves more than this, mm. */
const CONVERGED = 1e-8;
/** Below this step the factor of the last iteration is good enough for the next, mm. */
const REUSE = 0.02;

export interface SolveOptions {
  /** Better starting coordinates than the points' own, three each; the datum still hangs on the latter. */
  readonly from?: Float64Array;
  readonly fromBiases?: Float64Array;
  /** Share of its weight each observation keeps. */
  readonly kept?: Float64Array;
}

/**
 * Weighted least squares of a net of distances, heights and coordinates: Gauss–Newton steps, damped
 * after Levenberg and Marquardt where a plain one does not help; weights 1/σ². Where the net may float
 * as a whole, of all solutions the one nearest to the starting coordinates of the free points
 * (inner constraints, Meissl 1969; Teunissen, Adjustment Theory, ch. 5).
 */
export function solveNet(survey: Survey, options: SolveOptions = {}): SolveResult {
  const first = solveFrom(survey, options);
  if (first.ok || options.from) return first;
  // A net whose starting points lie in a plane says nothing across that plane: try just off it.
  const tries = [1, -1].map((side) => solveFrom(survey, { ...options, from: offThePlane(survey, side) }));
  const solved = tries.flatMap((each) => (each.ok ? [each.solution] : []));
  const best = solved.sort((a, b) => sumOfSquares(a) - sumOfSquares(b))[0];
  return best ? { ok: true, solution: best } : first;
} // prettier-ignore

function solveFrom(survey: Survey, { from, fromBiases, kept }: SolveOptions): SolveResult {
  const equations = equationsOf(survey);
  const start = startOf(survey);
  const state = new NetState(equations, start, kept);
  if (from) state.x.set(from);
  if (fromBiases) state.biases.set(fromBiases);
  const outcome = iterate(state);
  const freedoms = rigidFreedoms(equations, state.x);
  const normal = state.normal();
  const stiffness = addFreedoms(normal, freedoms, equations.unknowns);
  const judged = Float64Array.from(normal);
  for (let i = 0; i < equations.unknowns; i++) judged[i * equations.unknowns + i]! += LOOSE_WEIGHT;
  const factor = outcome.converged ? factorise(normal, equations.unknowns) : undefined;
  const covariance = factor && withoutFreedoms(invert(factor), freedoms, stiffness);
  if (!covariance || isLoose(covariance, equations)) {
    const looseFactor = factorise(judged, equations.unknowns);
    if (!looseFactor) return { ok: false, why: 'diverges' };
    const looseCovariance = withoutFreedoms(invert(looseFactor), freedoms, stiffness);
    return isLoose(looseCovariance, equations)
      ? { ok: false, why: 'loose', equations, looseCovariance }
      : { ok: false, why: 'diverges' };
  }
  return {
    ok: true,
    solution: {
      survey,
      equations,
      x: state.x,
      biases: state.biases,
      covariance,
      freedoms: freedoms.length,
      iterations: outcome.iterations,
      kept: state.kept,
    },
  };
}

export const startOf = (survey: Survey): Float64Array =>
  Float64Array.from(survey.points.flatMap((point) => [...point.start]));

/** Starting coordinates nudged some millimetres, each point its own way, so that no plane is left. */
function offThePlane(survey: Survey, side: number): Float64Array {
  const x = startOf(survey);
  survey.points.forEach((point, i) => {
    if (point.hold === 'fixed') return;
    for (let axis = 0; axis < 3; axis++)
      x[3 * i + axis]! += side * 15 * (0.6 + 0.4 * Math.sin(2.4 * i + 1.7 * axis)) * (axis === 2 ? 1 : 0.3); // prettier-ignore
  });
  return x;
}

/** The same coordinates with the covariance that all observations at their full weight would give. */
export function atFullWeight(solution: NetSolution): NetSolution {
  if (solution.kept.every((share) => share === 1)) return solution;
  const { equations, x, biases } = solution;
  const state = new NetState(equations, x);
  state.biases.set(biases);
  const normal = state.normal();
  const freedoms = rigidFreedoms(equations, x);
  const stiffness = addFreedoms(normal, freedoms, equations.unknowns);
  const covariance = withoutFreedoms(
    invert(factorise(normal, equations.unknowns)!),
    freedoms,
    stiffness,
  );
  return { ...solution, covariance, kept: state.kept };
}

const isLoose = (covariance: Float64Array, { coordinates, unknowns }: Equations): boolean => {
  for (let i = 0; i < coordinates; i++)
    if (!(covariance[i * unknowns + i]! <= LOOSE_SD ** 2)) return true;
  return false;
};

/** The net at some coordinates: what is computed from them and how they are moved. */
class NetState {
  readonly x: Float64Array;
  readonly biases: Float64Array;
  readonly kept: Float64Array;
  private readonly row: Row = newRow();

  constructor(
    readonly equations: Equations,
    readonly start: Float64Array,
    kept?: Float64Array,
  ) {
    this.x = Float64Array.from(start);
    this.biases = new Float64Array(equations.biasSigmas.length);
    this.kept = kept ?? new Float64Array(equations.observations.length).fill(1);
  }

  /** vᵀPv of the observations and of the biases. */
  cost(x = this.x, biases = this.biases): number {
    const { row, equations, kept } = this;
    let sum = 0;
    equations.observations.forEach((observation, i) => {
      linearise(equations, observation, x, biases, row);
      sum += kept[i]! * ((row.value - observation.observed) / observation.sigma) ** 2;
    });
    equations.biasSigmas.forEach((sigma, i) => (sum += (biases[i]! / sigma) ** 2));
    return sum;
  }

  /**
   * AᵀPA, lower triangle, and AᵀP(l − f) into `right` where it is given. With `curved`, the second
   * derivatives of the lengths are in it too: Newton's matrix, which a net with a gross error needs,
   * since there the residuals are too large for Gauss's.
   */
  normal(right?: Float64Array, curved = false): Float64Array {
    const { row, equations, kept } = this;
    const { unknowns, coordinates, biasSigmas } = equations;
    const normal = new Float64Array(unknowns * unknowns);
    equations.observations.forEach((observation, i) => {
      linearise(equations, observation, this.x, this.biases, row);
      const weight = kept[i]! / observation.sigma ** 2;
      const misfit = observation.observed - row.value;
      for (let p = 0; p < row.count; p++) {
        const c = row.columns[p]!;
        const scaled = weight * row.coefficients[p]!;
        if (right) right[c]! += scaled * misfit;
        for (let q = 0; q < row.count; q++)
          if (row.columns[q]! <= c)
            normal[c * unknowns + row.columns[q]!]! += scaled * row.coefficients[q]!;
      }
      if (curved && (observation.kind === 'distance' || observation.kind === 'plan'))
        this.addCurvature(normal, observation, (-weight * misfit) / Math.max(row.value, 1));
    });
    biasSigmas.forEach((sigma, i) => {
      const c = coordinates + i;
      normal[c * unknowns + c]! += 1 / sigma ** 2;
      if (right) right[c]! -= this.biases[i]! / sigma ** 2;
    });
    return normal;
  }

  /** Adds c · (I − u uᵀ) on the difference of an observation's two points; u is the line's direction. */
  private addCurvature(normal: Float64Array, { kind, a, b }: Observation, c: number): void {
    const { column, unknowns } = this.equations;
    const axes = kind === 'plan' ? 2 : 3;
    const line = [0, 1, 2].map((i) => (i < axes ? this.x[3 * b + i]! - this.x[3 * a + i]! : 0));
    const length = Math.max(Math.hypot(...line), 1e-9);
    for (const [p, q, sign] of [[a, a, 1], [b, b, 1], [a, b, -1], [b, a, -1]] as const) {
      const [first, second] = [column[p]!, column[q]!];
      if (first < 0 || second < 0) continue;
      for (let i = 0; i < axes; i++)
        for (let j = 0; j < axes; j++)
          if (first + i >= second + j)
            normal[(first + i) * unknowns + second + j]! += sign * c * ((i === j ? 1 : 0) - (line[i]! * line[j]!) / length ** 2);
    } // prettier-ignore
  }

  /** The coordinates after a step in the unknowns. */
  moved(step: Float64Array): { x: Float64Array; biases: Float64Array } {
    const { column, coordinates } = this.equations;
    const x = Float64Array.from(this.x);
    column.forEach((first, point) => {
      if (first < 0) return;
      for (let axis = 0; axis < 3; axis++) x[3 * point + axis]! += step[first + axis]!;
    });
    return { x, biases: this.biases.map((value, i) => value + step[coordinates + i]!) };
  }

  /** How far the free unknowns are from their start, in the space of the unknowns. */
  drift(): Float64Array {
    const drift = new Float64Array(this.equations.unknowns);
    this.equations.column.forEach((first, point) => {
      if (first < 0) return;
      for (let axis = 0; axis < 3; axis++)
        drift[first + axis] = this.x[3 * point + axis]! - this.start[3 * point + axis]!;
    });
    return drift;
  }
}

function iterate(state: NetState): { converged: boolean; iterations: number } {
  const { unknowns } = state.equations;
  let damping = 0;
  let lastStep = Infinity;
  let cost = state.cost();
  let factor: Factor | undefined;
  let freedoms: Float64Array[] = [];
  let stiffness = 1;
  for (let iterations = 1; iterations <= MOST_ITERATIONS; iterations++) {
    const right = new Float64Array(unknowns);
    if (!factor || lastStep > REUSE || damping > 0 || iterations > PLAIN_ITERATIONS) {
      const normal = state.normal(right, iterations > PLAIN_ITERATIONS);
      const strongest = largestDiagonal(normal, unknowns);
      freedoms = rigidFreedoms(state.equations, state.x);
      stiffness = addFreedoms(normal, freedoms, unknowns);
      for (let i = 0; i < unknowns; i++) normal[i * unknowns + i]! += damping * strongest;
      factor = factorise(normal, unknowns);
    } else state.normal(right);
    if (!factor) {
      damping = damping === 0 ? 1e-6 : damping * 10;
      if (damping > 1e3) return { converged: false, iterations };
      continue;
    }
    pullBack(right, state.drift(), freedoms, stiffness);
    const step = backSolve(factor, right);
    const next = state.moved(step);
    const nextCost = state.cost(next.x, next.biases);
    const size = step.reduce((most, each) => Math.max(most, Math.abs(each)), 0);
    // Near the solution rounding decides whether the sum of squares falls: small steps are taken anyway.
    if (nextCost <= cost * (1 + 1e-9) + 1e-9 || (damping === 0 && size < 1e-3)) {
      state.x.set(next.x);
      state.biases.set(next.biases);
      cost = nextCost;
      lastStep = size;
      if (size < CONVERGED && damping < 1e-9) return { converged: true, iterations };
      damping = damping < 1e-9 ? 0 : damping / 10;
    } else {
      damping = damping === 0 ? 1e-6 : damping * 10;
      factor = undefined;
      if (damping > 1e6) return { converged: false, iterations };
    }
  }
  return { converged: false, iterations: MOST_ITERATIONS };
}

function largestDiagonal(normal: Float64Array, size: number): number {
  let most = 1e-12;
  for (let i = 0; i < size; i++) most = Math.max(most, normal[i * size + i]!);
  return most;
}

/** Adds s·GGᵀ to the lower triangle, so that the freedoms are held at the start; returns s. */
function addFreedoms(normal: Float64Array, freedoms: readonly Float64Array[], size: number): number {
  const stiffness = largestDiagonal(normal, size);
  for (const g of freedoms)
    for (let i = 0; i < size; i++) {
      const share = stiffness * g[i]!;
      if (share === 0) continue;
      for (let j = 0; j <= i; j++) normal[i * size + j]! += share * g[j]!;
    }
  return stiffness;
} // prettier-ignore

/** The right-hand side that draws the net back to its start along its freedoms. */
function pullBack(right: Float64Array, drift: Float64Array, freedoms: readonly Float64Array[], stiffness: number): void {
  for (const g of freedoms) {
    const along = g.reduce((sum, share, i) => sum + share * drift[i]!, 0);
    g.forEach((share, i) => (right[i]! -= stiffness * along * share));
  }
} // prettier-ignore

/** (N + s GGᵀ)⁻¹ − GGᵀ/s: the pseudo-inverse of N, since N G = 0. */
function withoutFreedoms(inverse: Float64Array, freedoms: readonly Float64Array[], stiffness: number): Float64Array {
  for (const g of freedoms) {
    const size = g.length;
    for (let i = 0; i < size; i++)
      for (let j = 0; j < size; j++) inverse[i * size + j]! -= (g[i]! * g[j]!) / stiffness;
  }
  return inverse;
} // prettier-ignore

/** vᵀPv at the solution, held positions included. */
export function sumOfSquares(solution: NetSolution): number {
  const { equations, x, biases, kept } = solution;
  const row = newRow();
  let sum = 0;
  equations.observations.forEach((observation, i) => {
    linearise(equations, observation, x, biases, row);
    sum += kept[i]! * ((row.value - observation.observed) / observation.sigma) ** 2;
  });
  equations.biasSigmas.forEach((sigma, i) => (sum += (biases[i]! / sigma) ** 2));
  return sum;
}
