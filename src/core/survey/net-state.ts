import { Design, weightsOf } from './design';
import type { Equations, Observation } from './observations';

/** Coordinates and biases that a step leads to, and the sum of squares there. */
export interface NetMove {
  readonly x: Float64Array;
  readonly biases: Float64Array;
  readonly cost: number;
}

/** The net at some coordinates: what is computed from them and how they are moved. */
export class NetState {
  readonly x: Float64Array;
  readonly biases: Float64Array;
  readonly kept: Float64Array;
  private readonly weights: Float64Array;
  /** The design at these coordinates, where it has been computed, and one for those that are tried. */
  private here: Design | undefined;
  private there: Design;

  constructor(
    readonly equations: Equations,
    readonly start: Float64Array,
    kept?: Float64Array,
  ) {
    this.x = Float64Array.from(start);
    this.biases = new Float64Array(equations.biasSigmas.length);
    this.kept = kept ?? new Float64Array(equations.observations.length).fill(1);
    this.weights = weightsOf(equations, this.kept);
    this.there = new Design(equations);
  }

  /** Its design; the coordinates are moved by `take` alone once it has been asked for. */
  private get design(): Design {
    return (this.here ??= new Design(this.equations).at(this.x, this.biases));
  }

  /** vᵀPv of the observations and of the biases. */
  cost(): number {
    return this.design.cost(this.weights) + biasCost(this.equations, this.biases);
  }

  /** Where a step leads, and the cost there. */
  after(step: Float64Array): NetMove {
    const moved = this.moved(step);
    const cost = this.there.at(moved.x, moved.biases).cost(this.weights);
    return { ...moved, cost: cost + biasCost(this.equations, moved.biases) };
  }

  /** Goes where the last step that was tried leads. */
  take({ x, biases }: NetMove): void {
    this.x.set(x);
    this.biases.set(biases);
    [this.here, this.there] = [this.there, this.design];
  }

  /** AᵀP(l − f): downhill of the sum of squares. */
  downhill(): Float64Array {
    const { equations, biases } = this;
    const right = this.design.downhill(this.weights);
    equations.biasSigmas.forEach((sigma, i) => (right[equations.coordinates + i]! -= biases[i]! / sigma ** 2));
    return right;
  }

  /**
   * AᵀPA, lower triangle. With `curved`, the second derivatives of the lengths are in it too: Newton's
   * matrix, which a net with a gross error needs, since there the residuals are too large for Gauss's.
   *
   * @param room where it is written, if given; its upper triangle is then meaningless
   */
  normal(curved = false, room?: Float64Array): Float64Array {
    const { equations, design } = this;
    const { unknowns, coordinates, biasSigmas, observations } = equations;
    const normal = room?.fill(0) ?? new Float64Array(unknowns * unknowns);
    design.addNormal(this.weights, normal);
    if (curved)
      observations.forEach((observation, i) => {
        if (observation.kind !== 'distance' && observation.kind !== 'plan') return;
        const misfit = design.values[i]! - observation.observed;
        this.addCurvature(normal, observation, (this.weights[i]! * misfit) / Math.max(design.values[i]!, 1));
      });
    biasSigmas.forEach((sigma, i) => (normal[(coordinates + i) * (unknowns + 1)]! += 1 / sigma ** 2));
    return normal;
  }

  /** Adds c · (I − u uᵀ) on the difference of an observation's two points; u is the line's direction. */
  private addCurvature(normal: Float64Array, { kind, a, b }: Observation, c: number): void {
    const { column, unknowns } = this.equations;
    const axes = kind === 'plan' ? 2 : 3;
    const line = [0, 1, 2].map((i) => (i < axes ? this.x[3 * b + i]! - this.x[3 * a + i]! : 0));
    const length = Math.max(Math.hypot(...line), 1e-9);
    for (const [p, q, sign] of [
      [a, a, 1],
      [b, b, 1],
      [a, b, -1],
      [b, a, -1],
    ] as const) {
      const [first, second] = [column[p]!, column[q]!];
      if (first < 0 || second < 0) continue;
      for (let i = 0; i < axes; i++)
        for (let j = 0; j < axes; j++)
          if (first + i >= second + j)
            normal[(first + i) * unknowns + second + j]! +=
              sign * c * ((i === j ? 1 : 0) - (line[i]! * line[j]!) / length ** 2);
    }
  }

  /** The coordinates after a step in the unknowns. */
  private moved(step: Float64Array): Omit<NetMove, 'cost'> {
    const { column, coordinates } = this.equations;
    const x = this.x.slice();
    for (let point = 0; point < column.length; point++) {
      const first = column[point]!;
      if (first >= 0) for (let axis = 0; axis < 3; axis++) x[3 * point + axis]! += step[first + axis]!;
    }
    return { x, biases: this.biases.map((value, i) => value + step[coordinates + i]!) };
  }

  /** How far the free unknowns are from their start, in the space of the unknowns. */
  drift(): Float64Array {
    const { column, coordinates, unknowns, bodies } = this.equations;
    const drift = new Float64Array(unknowns);
    column.forEach((first, point) => {
      if (first < 0) return;
      for (let axis = 0; axis < 3; axis++)
        drift[first + axis] = this.x[3 * point + axis]! - this.start[3 * point + axis]!;
    });
    for (const { first } of bodies) drift.set(this.biases.subarray(first, first + 6), coordinates + first);
    return drift;
  }
}

const biasCost = ({ biasSigmas }: Equations, biases: Float64Array): number =>
  biasSigmas.reduce((sum, sigma, i) => sum + (biases[i]! / sigma) ** 2, 0);

/** vᵀPv at some coordinates, held positions and shared biases included. */
export const weightedSquares = (
  equations: Equations,
  x: Float64Array,
  biases: Float64Array,
  kept: Float64Array,
): number => new Design(equations).at(x, biases).cost(weightsOf(equations, kept)) + biasCost(equations, biases);
