import type { Gradient } from '../maths/linear/gradient';
import { AXES, mapAxes, norm, scale, subtract, type Vector } from '../maths/geometry/vector';
import { turned, turnGradient } from '../maths/rigid/turn';
import {
  COORDINATE_AXIS,
  isPair,
  pointIndex,
  tipDistance,
  type OnBody,
  type Survey,
  type SurveyReading,
} from './survey';

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
  /** Where on a body that may stand otherwise it was read. */
  readonly on?: Body;
}

/** The equations of a net and where their unknowns stand. */
export interface Equations {
  readonly observations: readonly Observation[];
  /** First column of each point's three unknowns, −1 for a fixed one. */
  readonly column: Int32Array;
  /** Columns of the points' unknowns; those of the biases follow. */
  readonly coordinates: number;
  readonly unknowns: number;
  /** Standard deviations of the shared biases, mm; six all but free ones a body are among them. */
  readonly biasSigmas: readonly number[];
  /** The bodies that have their six unknowns among the biases. */
  readonly bodies: readonly Body[];
}

/** A body: the first of its unknowns among the biases, and where its middle stands at its start, mm. */
export interface Body {
  readonly id: string;
  readonly first: number;
  readonly middle: Vector;
  /** A turn is carried in millimetres at this distance from the middle, so that it is of one size with the shifts. */
  readonly arm: number;
}

/** Turns are carried at no less than this distance, mm. */
const LEAST_ARM = 1000;
/** How far a body may stand from its start: so wide that it says nothing, and keeps what is not read from being endless, mm. */
const BODY_SD = 1000;

/** Numbers the unknowns of a net and takes its readings apart into scalar observations. */
export function equationsOf(survey: Survey): Equations {
  const index = pointIndex(survey);
  const column = new Int32Array(survey.points.length).fill(-1);
  let coordinates = 0;
  survey.points.forEach((point, i) => {
    if (point.hold === 'fixed') return;
    column[i] = coordinates;
    coordinates += 3;
  });
  const biases = new Map<string, number>();
  const bodies = new Map<string, Body>();
  const biasSigmas: number[] = [];
  const observations: Observation[] = [];
  survey.readings.forEach((reading, r) => {
    const bias = reading.bias ? biasColumn(reading.bias.group, reading.bias.sigma) : -1;
    const body = reading.kind === 'position' && reading.body;
    observations.push(...observationsOf(reading, index, r, bias, body ? bodyOf(body) : undefined));
  });
  survey.points.forEach((point, a) => {
    const { hold } = point;
    if (typeof hold !== 'number') return;
    point.start.forEach((observed, axis) =>
      observations.push({ kind: 'coordinate', a, b: -1, axis, observed, sigma: hold, reading: -1, bias: -1 }),
    );
  });
  return {
    observations,
    column,
    coordinates,
    unknowns: coordinates + biasSigmas.length,
    biasSigmas,
    bodies: [...bodies.values()],
  };

  function bodyOf({ id, middle }: OnBody): Body {
    const known = bodies.get(id);
    if (known) return known;
    const body = { id, first: biasSigmas.length, middle, arm: armOf(survey, id, middle) };
    bodies.set(id, body);
    biasSigmas.push(...Array.from({ length: 6 }, () => BODY_SD));
    return body;
  }

  function biasColumn(group: string, sigma: number): number {
    const known = biases.get(group);
    if (known !== undefined) return known;
    biases.set(group, biasSigmas.length);
    return biasSigmas.push(sigma) - 1;
  }
}

/** The equations with one more observation, which has no bias or body of its own; held positions stay behind the readings. */
export function withObservation(equations: Equations, observation: Observation): Equations {
  const { observations } = equations;
  const held = observations.findIndex(({ reading }) => reading < 0);
  const place = held < 0 ? observations.length : held;
  return { ...equations, observations: observations.toSpliced(place, 0, observation) };
}

/**
 * Takes one reading apart: a position into three scalar observations, any other into one.
 *
 * @param index of every point by its id
 * @param r     the reading's own index, −1 for one outside the net
 * @param bias  its shared bias among the biases, or −1
 * @param body  the body it was read at; absent: that stands at its start
 */
export function observationsOf(
  reading: SurveyReading,
  index: ReadonlyMap<string, number>,
  r = -1,
  bias = -1,
  body?: Body,
): Observation[] {
  if (isPair(reading)) {
    const observed = tipDistance(reading.value, reading.pointers);
    const [a, b] = [index.get(reading.from)!, index.get(reading.to)!];
    return [{ kind: reading.kind, a, b, axis: -1, observed, sigma: reading.sigma, reading: r, bias }];
  }
  const coordinate = (axis: number, observed: number, sigma: number): Observation => ({
    kind: 'coordinate',
    a: index.get(reading.point)!,
    b: -1,
    axis,
    observed,
    sigma,
    reading: r,
    bias,
    ...(body ? { on: body } : {}),
  });
  return reading.kind === 'position'
    ? reading.value.map((observed, axis) => coordinate(axis, observed, reading.sigma[axis]!))
    : [coordinate(AXES.indexOf(COORDINATE_AXIS[reading.kind]), reading.value, reading.sigma)];
}

/** The gradient of one observation: up to ten columns and their coefficients. */
export interface Row extends Gradient {
  /** Computed value at the given coordinates, mm. */
  value: number;
}

/** Most coefficients an observation has: a point, its body and a shared bias. */
export const MOST_COLUMNS = 10;

export const newRow = (): Row => ({
  count: 0,
  columns: new Int32Array(MOST_COLUMNS),
  coefficients: new Float64Array(MOST_COLUMNS),
  value: 0,
});

const direction = new Float64Array(3);

/**
 * The direction from one point to another into `into`, on the first two axes alone or on all three, and the length along it, mm.
 */
export function directionOf(x: Float64Array, a: number, b: number, axes: 2 | 3, into: Float64Array): number {
  const dx = x[3 * b]! - x[3 * a]!;
  const dy = x[3 * b + 1]! - x[3 * a + 1]!;
  const dz = axes === 3 ? x[3 * b + 2]! - x[3 * a + 2]! : 0;
  const length = Math.sqrt(dx * dx + dy * dy + dz * dz);
  // Two points on one spot have no direction; any will do to part them.
  const scale = length > 1e-9 ? 1 / length : 0;
  into[0] = scale === 0 ? 1 : dx * scale;
  into[1] = dy * scale;
  into[2] = dz * scale;
  return length;
}

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
  const { a, b, kind, bias } = observation;
  const from = equations.column[a]!;
  if (kind === 'coordinate') {
    if (observation.on) readOnBody(row, equations, observation, x, biases);
    else {
      row.value = x[3 * a + observation.axis]!;
      addTo(row, from, observation.axis, 1);
    }
  } else if (kind === 'rise') {
    row.value = x[3 * b + 2]! - x[3 * a + 2]!;
    addTo(row, from, 2, -1);
    addTo(row, equations.column[b]!, 2, 1);
  } else {
    row.value = directionOf(x, a, b, kind === 'distance' ? 3 : 2, direction);
    for (let axis = 0; axis < 3; axis++) {
      addTo(row, from, axis, -direction[axis]!);
      addTo(row, equations.column[b]!, axis, direction[axis]!);
    }
  }
  if (bias >= 0) {
    row.value += biases[bias]!;
    addTo(row, equations.coordinates, bias, 1);
  }
}

/** The turn of a body from its start, radians. */
export const turnOf = (biases: Float64Array, { first, arm }: Body): Vector =>
  mapAxes((k) => biases[first + 3 + k]! / arm);

/** How far from its middle a body is read at. */
const armOf = ({ readings }: Survey, id: string, middle: Vector): number =>
  readings.reduce(
    (most, reading) =>
      reading.kind === 'position' && reading.body?.id === id
        ? Math.max(most, norm(subtract(reading.value, middle)))
        : most,
    LEAST_ARM,
  );

/**
 * One coordinate of a point as it stands on a body, in the axes of the body at its start: k of m + R(w)ᵀ(p − m − t). So a
 * motion of the whole, body and point, changes nothing.
 */
function readOnBody(
  row: Row,
  equations: Equations,
  { a, axis, on }: Observation,
  x: Float64Array,
  biases: Float64Array,
) {
  const { first, middle, arm: far } = on!;
  const back = scale(turnOf(biases, on!), -1);
  const arm = mapAxes((k) => x[3 * a + k]! - middle[k] - biases[first + k]!);
  row.value = middle[axis as 0 | 1 | 2] + turned(arm, back)[axis]!;
  const body = equations.coordinates + first;
  for (let k = 0; k < 3; k++) {
    const share = turned(
      mapAxes((i) => Number(i === k)),
      back,
    )[axis]!;
    addTo(row, equations.column[a]!, k, share);
    addTo(row, body, k, -share);
  }
  turnGradient(arm, back, axis).forEach((slope, k) => addTo(row, body, 3 + k, -slope / far));
}

function addTo(row: Row, first: number, offset: number, coefficient: number): void {
  if (first < 0 || coefficient === 0) return;
  row.columns[row.count] = first + offset;
  row.coefficients[row.count] = coefficient;
  row.count++;
}
