import { directionOf, linearise, MOST_COLUMNS, newRow, type Equations, type Observation } from './observations';

const MOST = MOST_COLUMNS;

/** How a row is brought up to date: a length in two axes or in three, what has the same gradient everywhere, any other. */
const [FLAT, STRAIGHT, LINEAR, BENT] = [0, 1, 2, 3];

/**
 * The design matrix of a net in rows of one width: the value and the gradient of every observation at the coordinates
 * they were last computed for. All sums over a net are taken from it, so that its lengths are worked out once a step.
 */
export class Design {
  /** Computed values, mm. */
  readonly values: Float64Array;
  readonly observed: Float64Array;
  private readonly kinds: Uint8Array;
  /** The two points of a length, and its shared bias or −1. */
  private readonly from: Int32Array;
  private readonly to: Int32Array;
  private readonly bias: Int32Array;
  private readonly counts: Uint8Array;
  private readonly columns: Int32Array;
  private readonly coefficients: Float64Array;
  private readonly row = newRow();

  constructor(readonly equations: Equations) {
    const { observations } = equations;
    const count = observations.length;
    this.values = new Float64Array(count);
    this.observed = new Float64Array(count);
    this.kinds = new Uint8Array(count);
    this.from = new Int32Array(count);
    this.to = new Int32Array(count);
    this.bias = new Int32Array(count);
    this.counts = new Uint8Array(count);
    this.columns = new Int32Array(MOST * count);
    this.coefficients = new Float64Array(MOST * count);
    for (let i = 0; i < count; i++) this.layOut(observations[i]!, i);
  }

  /** Computes all rows at some coordinates, three a point, and shared biases. */
  at(x: Float64Array, biases: Float64Array): this {
    const { kinds } = this;
    for (let i = 0; i < kinds.length; i++) {
      const kind = kinds[i]!;
      if (kind === STRAIGHT || kind === FLAT) this.direct(i, x, biases);
      else if (kind === LINEAR) this.values[i] = this.valueOf(i, x, biases);
      else this.linearised(i, x, biases);
    }
    return this;
  }

  /** Says where the entries of a row stand, and what they are where that is the same everywhere. */
  private layOut(observation: Observation, i: number): void {
    const { kind, a, b, axis, bias } = observation;
    this.observed[i] = observation.observed;
    this.from[i] = a;
    this.to[i] = b;
    this.bias[i] = bias;
    this.kinds[i] = observation.on ? BENT : kind === 'distance' ? STRAIGHT : kind === 'plan' ? FLAT : LINEAR;
    if (observation.on) return;
    const axes = kind === 'distance' ? [0, 1, 2] : kind === 'plan' ? [0, 1] : kind === 'rise' ? [2] : [axis];
    for (const end of kind === 'coordinate' ? [a] : [a, b]) {
      const first = this.equations.column[end]!;
      if (first < 0) continue;
      for (const each of axes) this.enter(i, first + each, end === a && kind === 'rise' ? -1 : 1);
    }
    if (bias >= 0) this.enter(i, this.equations.coordinates + bias, 1);
  }

  private enter(i: number, column: number, coefficient: number): void {
    const at = MOST * i + this.counts[i]!++;
    this.columns[at] = column;
    this.coefficients[at] = coefficient;
  }

  /** A length: its direction, against it at its first point. */
  private direct(i: number, x: Float64Array, biases: Float64Array): void {
    const { coefficients, kinds } = this;
    const { column } = this.equations;
    const a = this.from[i]!;
    const b = this.to[i]!;
    const axes = kinds[i] === STRAIGHT ? 3 : 2;
    const bias = this.bias[i]!;
    const length = directionOf(x, a, b, axes, direction);
    this.values[i] = bias < 0 ? length : length + biases[bias]!;
    let at = MOST * i;
    if (column[a]! >= 0) for (let k = 0; k < axes; k++) coefficients[at++] = -direction[k]!;
    if (column[b]! >= 0) for (let k = 0; k < axes; k++) coefficients[at++] = direction[k]!;
  }

  /** A coordinate, or the difference of two heights. */
  private valueOf(i: number, x: Float64Array, biases: Float64Array): number {
    const { kind, a, b, axis, bias } = this.equations.observations[i]!;
    const value = kind === 'rise' ? x[3 * b + 2]! - x[3 * a + 2]! : x[3 * a + axis]!;
    return bias < 0 ? value : value + biases[bias]!;
  }

  private linearised(i: number, x: Float64Array, biases: Float64Array): void {
    const { row, equations, columns, coefficients } = this;
    linearise(equations, equations.observations[i]!, x, biases, row);
    this.values[i] = row.value;
    this.counts[i] = row.count;
    for (let p = 0; p < row.count; p++) {
      columns[MOST * i + p] = row.columns[p]!;
      coefficients[MOST * i + p] = row.coefficients[p]!;
    }
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
      const first = MOST * i;
      const end = first + counts[i]!;
      for (let p = first; p < end; p++) {
        const column = columns[p]!;
        const scaled = weights[i]! * coefficients[p]!;
        for (let q = first; q < end; q++)
          if (columns[q]! <= column) normal[column * unknowns + columns[q]!]! += scaled * coefficients[q]!;
      }
    }
  }
}

const direction = new Float64Array(3);

/** The weights of a net's observations, 1/mm², each with the share of its own that it kept. */
export function weightsOf({ observations }: Equations, kept: Float64Array): Float64Array {
  const weights = new Float64Array(kept.length);
  for (let i = 0; i < kept.length; i++) weights[i] = kept[i]! / observations[i]!.sigma ** 2;
  return weights;
}
