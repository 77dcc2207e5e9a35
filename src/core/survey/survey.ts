import type { Axis, Vector } from '../maths/geometry/vector';

/** A point of a net; frame: the round's own axes, mm. */
export interface SurveyPoint {
  readonly id: string;
  /** Where the point is taken to be before anything is computed. */
  readonly start: Vector;
  /** Not an unknown, or known to a standard deviation on each axis, mm; free where absent. */
  readonly hold?: 'fixed' | number;
}

/** A bias that repeats of one quantity with one instrument have in common. */
export interface SharedBias {
  /** Readings with the same group share one unknown bias. */
  readonly group: string;
  /** One standard deviation of that bias, mm; the reading's own sigma holds the rest. */
  readonly sigma: number;
}

interface Common {
  readonly id: string;
  readonly bias?: SharedBias;
}

/** Between two points: tip to tip, projected on the datum plane, or z(to) − z(from). */
export interface PairReading extends Common {
  readonly kind: 'distance' | 'plan' | 'rise';
  readonly from: string;
  readonly to: string;
  readonly value: number;
  /** One standard deviation, mm; with pointers, of the tip distance. */
  readonly sigma: number;
  /** Pointer lengths of a tram gauge at `from` and `to`, at right angles to its bar, mm. */
  readonly pointers?: readonly [number, number];
}

/** One coordinate of a point: z, y or x. */
export interface CoordinateReading extends Common {
  readonly kind: 'height' | 'offset' | 'station';
  readonly point: string;
  readonly value: number;
  readonly sigma: number;
}

export interface PositionReading extends Common {
  readonly kind: 'position';
  readonly point: string;
  readonly value: Vector;
  readonly sigma: Vector;
  /** The rigid body it was read at, where nobody knows how that stands: `value` is in the axes of the body at its start. */
  readonly body?: OnBody;
}

/** A rigid body that brings six unknowns of its own, three shifts and three turns: a bench, a part bolted up. */
export interface OnBody {
  /** Readings at the same body share its six unknowns. */
  readonly id: string;
  /** What it turns about, as it stands at its start, mm. */
  readonly middle: Vector;
}

export type SurveyReading = PairReading | CoordinateReading | PositionReading;

export interface Survey {
  readonly points: readonly SurveyPoint[];
  readonly readings: readonly SurveyReading[];
}

export const isPair = (reading: SurveyReading): reading is PairReading =>
  reading.kind === 'distance' || reading.kind === 'plan' || reading.kind === 'rise';

export const COORDINATE_AXIS: Readonly<Record<CoordinateReading['kind'], Axis>> = {
  station: 'x',
  offset: 'y',
  height: 'z',
};

/** The points a reading speaks of. */
export const pointsOf = (reading: SurveyReading): readonly string[] =>
  isPair(reading) ? [reading.from, reading.to] : [reading.point];

/**
 * The tip distance of a tram reading: its bar and the difference of its pointers are the two short
 * sides of a right-angled triangle.
 */
export const tipDistance = (value: number, pointers?: readonly [number, number]): number =>
  pointers ? Math.hypot(value, pointers[0] - pointers[1]) : value;

/** Where each point stands among the points of a net; looked up by every prediction, so kept with the survey. */
export function pointIndex(survey: Survey): ReadonlyMap<string, number> {
  const known = INDICES.get(survey.points) ?? new Map(survey.points.map(({ id }, i) => [id, i]));
  INDICES.set(survey.points, known);
  return known;
}

const INDICES = new WeakMap<Survey['points'], ReadonlyMap<string, number>>();
