import { linearise, MOST_COLUMNS, newRow, type Equations } from './observations';

const MOST = MOST_COLUMNS;

/**
 * The design matrix of a net in rows of one width: the value and the gradient of every observation at the coordinates
 * they were last computed for. All sums over a net are taken from it, so that its lengths are worked out once a step.
 */
export class Design {
  /** Computed values, mm. */
  readonly values: Float64Array;
  readonly observed: Float64Array;
  private readonly counts: Uint8Array;
  private readonly columns: Int32Array;
  private readonly coefficients: Float64Array;
  private readonly row = newRow();

  constructor(readonly equations: Equations) {
    const count = equations.observations.length;
    this.values = new Float64Array(count);
    this.observed = new Float64Array(count);
    for (let i = 0; i < count; i++) this.observed[i] = equations.observations[i]!.observed;
    this.counts = new Uint8Array(count);
    this.columns = new Int32Array(MOST * count);
    this.coefficients = new Float64Array(MOST * count);
  }

  /** Computes all rows at some coordinates, three a point, and shared biases. */
  at(x: Float64Array, biases: Float64Array): this {
    const { row, equations, values, counts, columns, coefficients } = this;
    const { observations } = equations;
    for (let i = 0; i < observations.length; i++) {
      linearise(equations, observations[i]!, x, biases, row);
      values[i] = row.value;
      counts[i] = row.count;
      for (let p = 0; p < row.count; p++) {
        columns[MOST * i + p] = row.columns[p]!;
        coefficients[MOST * i + p] = row.coefficients[p]!;
      }
    }
    return this;
  }

  /** vᵀPv of the observations, with their weights 1/mm². */
  cost(weights: Float64Array): number {
    const { values, observed } = this;
    let sum = 0;
    for (let i = 0; i < values.length; i++) {
      const residual = values[i]! - observed[i]!;
      sum += weights[i]! * residual * residual;
    }
    return sum;
  }

  /** AᵀP(l − f) of the observations, in the space of the unknowns. */
  downhill(weights: Float64Array): Float64Array {
    const { values, observed, counts, columns, coefficients } = this;
    const right = new Float64Array(this.equations.unknowns);
    for (let i = 0; i < values.length; i++) {
      const weighted = weights[i]! * (observed[i]! - values[i]!);
      for (let p = MOST * i, end = p + counts[i]!; p < end; p++) right[columns[p]!]! += weighted * coefficients[p]!;
    }
    return right;
  }

  /** Adds AᵀPA of the observations to the lower triangle of `normal`, row major. */
  addNormal(weights: Float64Array, normal: Float64Array): void {
    const { counts, columns, coefficients } = this;
    const { unknowns } = this.equations;
    for (let i = 0; i < counts.length; i++) {
      const [first, end] = [MOST * i, MOST * i + counts[i]!];
      for (let p = first; p < end; p++) {
        const column = columns[p]!;
        const scaled = weights[i]! * coefficients[p]!;
        for (let q = first; q < end; q++)
          if (columns[q]! <= column) normal[column * unknowns + columns[q]!]! += scaled * coefficients[q]!;
      }
    }
  }
}

/** The weights of a net's observations, 1/mm², each with the share of its own that it kept. */
export function weightsOf({ observations }: Equations, kept: Float64Array): Float64Array {
  const weights = new Float64Array(kept.length);
  for (let i = 0; i < kept.length; i++) weights[i] = kept[i]! / observations[i]!.sigma ** 2;
  return weights;
}
