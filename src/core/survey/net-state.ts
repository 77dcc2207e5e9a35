import { linearise, newRow, type Equations, type Observation, type Row } from './observations';

/** The net at some coordinates: what is computed from them and how they are moved. */
export class NetState {
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
    return weightedSquares(this.equations, x, biases, this.kept);
  }

  /** AᵀP(l − f): downhill of the sum of squares. */
  downhill(): Float64Array {
    const { row, equations, kept } = this;
    const right = new Float64Array(equations.unknowns);
    equations.observations.forEach((observation, i) => {
      linearise(equations, observation, this.x, this.biases, row);
      const weighted = (kept[i]! * (observation.observed - row.value)) / observation.sigma ** 2;
      for (let p = 0; p < row.count; p++) right[row.columns[p]!]! += weighted * row.coefficients[p]!;
    });
    equations.biasSigmas.forEach((sigma, i) => (right[equations.coordinates + i]! -= this.biases[i]! / sigma ** 2));
    return right;
  }

  /**
   * AᵀPA, lower triangle. With `curved`, the second derivatives of the lengths are in it too: Newton's
   * matrix, which a net with a gross error needs, since there the residuals are too large for Gauss's.
   */
  normal(curved = false): Float64Array {
    const { row, equations, kept } = this;
    const { unknowns, coordinates, biasSigmas } = equations;
    const normal = new Float64Array(unknowns * unknowns);
    equations.observations.forEach((observation, i) => {
      linearise(equations, observation, this.x, this.biases, row);
      const weight = kept[i]! / observation.sigma ** 2;
      for (let p = 0; p < row.count; p++) {
        const c = row.columns[p]!;
        const scaled = weight * row.coefficients[p]!;
        const start = c * unknowns;
        for (let q = 0; q < row.count; q++)
          if (row.columns[q]! <= c) normal[start + row.columns[q]!]! += scaled * row.coefficients[q]!;
      }
      if (!curved || (observation.kind !== 'distance' && observation.kind !== 'plan')) return;
      const misfit = row.value - observation.observed;
      this.addCurvature(normal, observation, (weight * misfit) / Math.max(row.value, 1));
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
  moved(step: Float64Array): { x: Float64Array; biases: Float64Array } {
    const { column, coordinates } = this.equations;
    const x = this.x.slice();
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

/** vᵀPv at some coordinates, held positions and shared biases included. */
export function weightedSquares(
  equations: Equations,
  x: Float64Array,
  biases: Float64Array,
  kept: Float64Array,
): number {
  const row = newRow();
  let sum = 0;
  equations.observations.forEach((observation, i) => {
    linearise(equations, observation, x, biases, row);
    sum += kept[i]! * ((row.value - observation.observed) / observation.sigma) ** 2;
  });
  equations.biasSigmas.forEach((sigma, i) => (sum += (biases[i]! / sigma) ** 2));
  return sum;
}
