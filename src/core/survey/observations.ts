import { AXES } from '../geometry/vector';
import { COORDINATE_AXIS, isPair, tipDistance, type Survey } from './survey';

/** One scalar equation of the net: a component of a reading, or a component of a held position. */
export interface Observation {
  readonly kind: 'distance' | 'plan' | 'rise' | 'coordinate';
  /** Indices into the points; `b` is −1 for a coordinate. */
  readonly a: number;
  readonly b: number;
  /** 0, 1, 2 for x, y, z; −1 between two points. */
  readonly axis: number;
  readonly observed: number;
  readonly sigma: number;
  /** Index of the reading, or −1 for a held position. */
  readonly reading: number;
  /** Column of a shared bias among the biases, or −1. */
  readonly bias: number;
}

/** The equations of a net and where their unknowns stand. */
export interface Equations {
  readonly observations: readonly Observation[];
  /** First column of each point's three unknowns, −1 for a fixed one. */
  readonly column: Int32Array;
  /** Columns of the points' unknowns; those of the biases follow. */
  readonly coordinates: number;
  readonly unknowns: number;
  /** Standard deviations of the shared biases, mm. */
  readonly biasSigmas: readonly number[];
}

/** Numbers the unknowns of a net and takes its readings apart into scalar observations. */
export function equationsOf(survey: Survey): Equations {
  const index = new Map(survey.points.map((point, i) => [point.id, i]));
  const column = new Int32Array(survey.points.length).fill(-1);
  let coordinates = 0;
  survey.points.forEach((point, i) => {
    if (point.hold === 'fixed') return;
    column[i] = coordinates;
    coordinates += 3;
  });
  const biases = new Map<string, number>();
  const biasSigmas: number[] = [];
  const observations: Observation[] = [];
  survey.readings.forEach((reading, r) => {
    const bias = reading.bias ? biasColumn(reading.bias.group, reading.bias.sigma) : -1;
    const common = { reading: r, bias };
    if (isPair(reading))
      observations.push({
        ...common,
        kind: reading.kind,
        a: index.get(reading.from)!,
        b: index.get(reading.to)!,
        axis: -1,
        observed: tipDistance(reading.value, reading.pointers),
        sigma: reading.sigma,
      });
    else if (reading.kind === 'position')
      reading.value.forEach((observed, axis) =>
        observations.push({
          ...common, kind: 'coordinate', a: index.get(reading.point)!, b: -1, axis, observed, sigma: reading.sigma[axis]!,
        }),
      ); // prettier-ignore
    else
      observations.push({
        ...common,
        kind: 'coordinate',
        a: index.get(reading.point)!,
        b: -1,
        axis: AXES.indexOf(COORDINATE_AXIS[reading.kind]),
        observed: reading.value,
        sigma: reading.sigma,
      });
  });
  survey.points.forEach((point, a) => {
    if (typeof point.hold !== 'number') return;
    const sigma = point.hold;
    point.start.forEach((observed, axis) =>
      observations.push({ kind: 'coordinate', a, b: -1, axis, observed, sigma, reading: -1, bias: -1 }),
    ); // prettier-ignore
  });
  return {
    observations,
    column,
    coordinates,
    unknowns: coordinates + biasSigmas.length,
    biasSigmas,
  };

  function biasColumn(group: string, sigma: number): number {
    const known = biases.get(group);
    if (known !== undefined) return known;
    biases.set(group, biasSigmas.length);
    return biasSigmas.push(sigma) - 1;
  }
}

/** The gradient of one observation: up to seven columns and their coefficients. */
export interface Row {
  count: number;
  readonly columns: Int32Array;
  readonly coefficients: Float64Array;
  /** Computed value at the given coordinates, mm. */
  value: number;
}

export const newRow = (): Row => ({
  count: 0,
  columns: new Int32Array(7),
  coefficients: new Float64Array(7),
  value: 0,
});

/**
 * Computes an observation and its gradient at the given unknowns, into `row`.
 *
 * @param x coordinates of all points, three each, fixed ones included
 * @param biases the shared biases
 */
export function linearise(
  equations: Equations,
  observation: Observation,
  x: Float64Array,
  biases: Float64Array,
  row: Row,
): void {
  row.count = 0;
  const { a, b, axis, kind, bias } = observation;
  if (kind === 'coordinate') {
    row.value = x[3 * a + axis]!;
    addTo(row, equations.column[a]!, axis, 1);
  } else if (kind === 'rise') {
    row.value = x[3 * b + 2]! - x[3 * a + 2]!;
    addTo(row, equations.column[a]!, 2, -1);
    addTo(row, equations.column[b]!, 2, 1);
  } else {
    const axes = kind === 'plan' ? 2 : 3;
    const dx = x[3 * b]! - x[3 * a]!;
    const dy = x[3 * b + 1]! - x[3 * a + 1]!;
    const dz = axes === 3 ? x[3 * b + 2]! - x[3 * a + 2]! : 0;
    const length = Math.sqrt(dx * dx + dy * dy + dz * dz);
    row.value = length;
    // Two points on one spot have no direction; any will do to part them.
    const scale = length > 1e-9 ? 1 / length : 0;
    const unit = scale === 0 ? [1, 0, 0] : [dx * scale, dy * scale, dz * scale];
    for (let i = 0; i < axes; i++) {
      addTo(row, equations.column[a]!, i, -unit[i]!);
      addTo(row, equations.column[b]!, i, unit[i]!);
    }
  }
  if (bias >= 0) {
    row.value += biases[bias]!;
    addTo(row, equations.coordinates, bias, 1);
  }
}

function addTo(row: Row, first: number, offset: number, coefficient: number): void {
  if (first < 0 || coefficient === 0) return;
  row.columns[row.count] = first + offset;
  row.coefficients[row.count] = coefficient;
  row.count++;
}
