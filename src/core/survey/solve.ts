import { Room } from '../maths/linear/room';
import { Symmetric, SymmetricFactor } from '../maths/linear/symmetric';
import { rigidFreedoms } from './datum';
import { NetState, weightedSquares } from './net-state';
import { equationsOf, type Equations } from './observations';
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
  /** So many readings came or went since it was solved as a whole. */
  readonly updates?: number;
  /** Where its points stood then: the covariance has the directions of that, mm. */
  readonly madeAt?: Float64Array;
}

/** What stands in the way of a solution. `looseCovariance` is that of all unknowns, mm², loose directions kept finite. */
export type SolveFailure =
  | { readonly ok: false; readonly why: 'loose'; readonly equations: Equations; readonly looseCovariance: Float64Array }
  | { readonly ok: false; readonly why: 'diverges' };

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
const PLAIN_ITERATIONS = 14;
/** The solution stands when no coordinate moves more than this, mm. */
const CONVERGED = 1e-8;
/**
 * A factor serves on while each step with it is at most this share of the one before: factorising costs
 * as much as some fifty steps.
 */
const SERVES_ON = 0.15;
/** Normal matrices and their factors, of which no solution keeps any. */
const NORMALS = new Room();
/** A factor from coordinates this near gives the covariance too, mm. */
const SAME_PLACE = 1e-6;

export interface SolveOptions {
  /** Better starting coordinates than the points' own, three each; the datum still hangs on the latter. */
  readonly from?: Float64Array;
  readonly fromBiases?: Float64Array;
  /** Share of its weight each observation keeps. */
  readonly kept?: Float64Array;
  /** Give up at once, as one that diverges, where some direction is all but free at the start. */
  readonly firm?: boolean;
  /** What counts as not determined, where it is not the usual: one standard deviation, mm. */
  readonly looseSd?: number;
}

/**
 * Weighted least squares of a net of distances, heights and coordinates: Gauss–Newton steps, damped
 * after Levenberg and Marquardt where a plain one does not help; weights 1/σ². Where the net may float
 * as a whole, of all solutions the one nearest to the starting coordinates of the free points
 * (inner constraints, Meissl 1969; Teunissen, Adjustment Theory, ch. 5).
 */
export function solveNet(survey: Survey, options: SolveOptions = {}): SolveResult {
  const first = solveFrom(survey, options);
  if (first.ok || options.from || options.firm) return first;
  // A net whose starting points lie in a plane says nothing across that plane: try just off it.
  const tries = [1, -1].map((side) => solveFrom(survey, { ...options, from: offThePlane(survey, side) }));
  const solved = tries.flatMap((each) => (each.ok ? [each.solution] : []));
  const best = solved.sort((a, b) => sumOfSquares(a) - sumOfSquares(b))[0];
  return best ? { ok: true, solution: best } : first;
}

function solveFrom(
  survey: Survey,
  { from, fromBiases, kept, firm = false, looseSd = LOOSE_SD }: SolveOptions,
): SolveResult {
  const equations = equationsOf(survey);
  const start = startOf(survey);
  const state = new NetState(equations, start, kept);
  if (from) state.x.set(from);
  if (fromBiases) state.biases.set(fromBiases);
  const outcome = iterate(state, firm, NORMALS.of(equations.unknowns ** 2));
  if (firm && !outcome.converged) return { ok: false, why: 'diverges' };
  const held = outcome.held ?? (outcome.converged ? holdFreedoms(state, 0) : undefined);
  const covariance = held && pseudoInverse(held);
  if (!covariance || isLoose(covariance, equations, looseSd)) {
    const loose = holdFreedoms(state, LOOSE_WEIGHT);
    const looseCovariance = loose && pseudoInverse(loose);
    return looseCovariance && isLoose(looseCovariance, equations, looseSd)
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
      freedoms: held.freedoms.length,
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
      x[3 * i + axis]! += side * 15 * (0.6 + 0.4 * Math.sin(2.4 * i + 1.7 * axis)) * (axis === 2 ? 1 : 0.3);
  });
  return x;
}

/** The same coordinates with the covariance that all observations at their full weight would give. */
export function atFullWeight(solution: NetSolution): NetSolution {
  if (solution.kept.every((share) => share === 1)) return solution;
  const { equations, x, biases } = solution;
  const state = new NetState(equations, x);
  state.biases.set(biases);
  const covariance = pseudoInverse(holdFreedoms(state, 0)!);
  return { ...solution, covariance, kept: state.kept };
}

/** Some coordinate is not determined. */
export const isLoose = (
  covariance: Float64Array,
  { coordinates, unknowns }: Equations,
  looseSd = LOOSE_SD,
): boolean => {
  for (let i = 0; i < coordinates; i++) if (!(covariance[i * unknowns + i]! <= looseSd ** 2)) return true;
  return false;
};

/** A factor of the normal matrix with its freedoms held. */
interface HeldFactor {
  readonly factor: SymmetricFactor;
  readonly freedoms: readonly Float64Array[];
  readonly stiffness: number;
}

interface Iteration {
  readonly converged: boolean;
  readonly iterations: number;
  /** The factor at the solution, where the last step's still serves. */
  readonly held?: HeldFactor;
}

/** @param room for the normal matrix and its factor, which serves on as long as nothing else is written there */
function iterate(state: NetState, firm: boolean, room: Float64Array): Iteration {
  const { unknowns } = state.equations;
  let damping = 0;
  // How much the last step shrank against the one before it.
  let lastStep = Infinity;
  let shrunk = 0;
  let cost = state.cost();
  let factor: SymmetricFactor | undefined;
  let freedoms: Float64Array[] = [];
  let stiffness = 1;
  // How far the net has moved since it was factorised, mm.
  let since = 0;
  for (let iterations = 1; iterations <= MOST_ITERATIONS; iterations++) {
    if (!factor || shrunk > SERVES_ON || damping > 0 || iterations > PLAIN_ITERATIONS) {
      const normal = state.normal(iterations > PLAIN_ITERATIONS, room);
      const strongest = largestDiagonal(normal, unknowns);
      freedoms = rigidFreedoms(state.equations, state.x, state.biases);
      stiffness = addFreedoms(normal, freedoms, unknowns);
      for (let i = 0; i < unknowns; i++) normal[i * unknowns + i]! += damping * strongest;
      factor = SymmetricFactor.of(normal, unknowns);
      since = 0;
      if (firm && iterations === 1 && !isFirm(factor)) return { converged: false, iterations };
    }
    if (!factor) {
      damping = damping === 0 ? 1e-6 : damping * 10;
      if (damping > 1e3) return { converged: false, iterations };
      continue;
    }
    const right = state.downhill();
    // The factor may be an earlier step's, but the datum hangs on the freedoms as they are here.
    if (since > 0 && freedoms.length > 0) freedoms = rigidFreedoms(state.equations, state.x, state.biases);
    pullBack(right, state.drift(), freedoms, stiffness);
    const step = factor.solve(right);
    const next = state.after(step);
    const size = largest(step);
    // Near the solution rounding decides whether the sum of squares falls: small steps are taken anyway.
    if (next.cost <= cost * (1 + 1e-9) + 1e-9 || (damping === 0 && size < 1e-3)) {
      state.take(next);
      cost = next.cost;
      shrunk = since === 0 ? 0 : size / lastStep;
      lastStep = size;
      since += size;
      if (size < CONVERGED && damping < 1e-9)
        return {
          converged: true,
          iterations,
          ...(since < SAME_PLACE && damping === 0 && iterations <= PLAIN_ITERATIONS
            ? { held: { factor, freedoms, stiffness } }
            : {}),
        };
      damping = damping < 1e-9 ? 0 : damping / 10;
    } else {
      damping = damping === 0 ? 1e-6 : damping * 10;
      factor = undefined;
      if (damping > 1e6) return { converged: false, iterations };
    }
  }
  return { converged: false, iterations: MOST_ITERATIONS };
}

/** The largest size of a step's elements. */
export function largest(step: Float64Array): number {
  let most = 0;
  for (const each of step) most = Math.max(most, Math.abs(each));
  return most;
}

/** No unknown is left all but free once those before it are eliminated: its pivot is the weight of what holds it then. */
const isFirm = (factor: SymmetricFactor | undefined): boolean =>
  factor !== undefined && factor.smallestPivot() >= 1 / LOOSE_SD;

function largestDiagonal(normal: Float64Array, size: number): number {
  let most = 1e-12;
  for (let i = 0; i < size; i++) most = Math.max(most, normal[i * size + i]!);
  return most;
}

/** Adds s·GGᵀ to the lower triangle, so that the freedoms are held at the start; returns s. */
function addFreedoms(normal: Float64Array, freedoms: readonly Float64Array[], size: number): number {
  const stiffness = largestDiagonal(normal, size);
  for (let i = 0; i < size; i++)
    for (const g of freedoms) {
      const share = stiffness * g[i]!;
      if (share === 0) continue;
      for (let j = 0; j <= i; j++) normal[i * size + j]! += share * g[j]!;
    }
  return stiffness;
}

/** The right-hand side that draws the net back to its start along its freedoms. */
function pullBack(
  right: Float64Array,
  drift: Float64Array,
  freedoms: readonly Float64Array[],
  stiffness: number,
): void {
  for (const g of freedoms) {
    let along = 0;
    for (let i = 0; i < g.length; i++) along += g[i]! * drift[i]!;
    for (let i = 0; i < g.length; i++) right[i]! -= stiffness * along * g[i]!;
  }
}

/** The factor of N + s·GGᵀ + weight·I at the state's coordinates. */
function holdFreedoms(state: NetState, weight: number): HeldFactor | undefined {
  const { unknowns } = state.equations;
  const freedoms = rigidFreedoms(state.equations, state.x, state.biases);
  const normal = state.normal(false, NORMALS.of(unknowns ** 2));
  const stiffness = addFreedoms(normal, freedoms, unknowns);
  for (let i = 0; i < unknowns; i++) normal[i * unknowns + i]! += weight;
  const factor = SymmetricFactor.of(normal, unknowns);
  return factor && { factor, freedoms, stiffness };
}

/** (N + s GGᵀ)⁻¹ − GGᵀ/s: the pseudo-inverse of N, since N G = 0. */
function pseudoInverse({ factor, freedoms, stiffness }: HeldFactor): Float64Array {
  const terms = freedoms.map((u) => ({ u, share: 1 / stiffness }));
  return factor.inverse().lessen(terms).values;
}

/** The joint covariance of a solution's unknowns as a matrix. */
export const covarianceOf = ({ equations: { unknowns }, covariance }: Pick<NetSolution, 'equations' | 'covariance'>) =>
  new Symmetric(unknowns, covariance);

/** vᵀPv at the solution, held positions included. */
export const sumOfSquares = ({ equations, x, biases, kept }: NetSolution): number =>
  weightedSquares(equations, x, biases, kept);
