import type { Vector } from '../maths/geometry/vector';
import { extentOf, sectionAt, type Section } from '../shell/sections';
import { linearise, equationsOf, newRow } from '../survey/observations';
import { pruneWalk, secondReadings } from './prune-walk';
import type { WalkPoint, WalkStep } from './walk-step';
import { pointsOf, type Survey, type SurveyReading } from '../survey/survey';

/** How well the instruments at hand read, one standard deviation, mm. */
export interface WalkInstruments {
  readonly distance: (length: number) => number;
  readonly height: number;
  /** Lengths that cannot be read in one go are not proposed, mm. */
  readonly longest: number;
}

/** Floor points lie at most this far above the lowest, mm. */
const FLOOR = 260;

/**
 * A list of readings that determines every point of a chart with every point checked, in the order
 * one walks: the floor of the centre section first (both diagonals, widths, lengths, four heights),
 * then point pair by point pair outwards, each tied to a pair already measured by its two lengths, its
 * two diagonals, its width and its heights: seven readings for six unknowns, so that each checks the
 * others. What is still practically unchecked at the end is read a second time.
 */
export function planWalk(points: readonly WalkPoint[], instruments: WalkInstruments): WalkStep[] {
  if (points.length === 0) return [];
  const groups = pairUp(points);
  const base = baseOf(groups);
  const ordered = outwards(groups, base);
  const steps: WalkStep[] = baseSteps(base, points);
  const located: Group[] = [...base];
  let startLeft = true;
  for (const group of ordered) {
    const anchor = bestAnchor(group, located, instruments);
    const section = sectionOf(group, points);
    if (anchor) steps.push(...tie(group, anchor, section, startLeft));
    // A point without a partner has no width to check it: one more length does.
    const second =
      group.length === 1
        ? bestAnchor(
            group,
            located.filter((each) => each !== anchor),
            instruments,
          )
        : undefined;
    if (second) steps.push({ section, why: 'diagonal', reading: between(second[0]!, group[0]!) });
    located.push(group);
    startLeft = !startLeft;
  }
  const seen = new Set<string>();
  const unique = steps.filter(({ reading }) => {
    const key = keyOf(reading);
    return !seen.has(key) && seen.add(key);
  });
  const sized = unique.map((step) => ({ ...step, reading: withSigma(step.reading, points, instruments) }));
  const short = pruneWalk(sized, points, base.length === 2 ? 10 : 0);
  return [...short, ...secondReadings(short, points)];
}

/** A point or a pair of points, the left one first. */
type Group = readonly WalkPoint[];

function pairUp(points: readonly WalkPoint[]): Group[] {
  const byId = new Map(points.map((point) => [point.id, point]));
  return points.flatMap((point): Group[] => {
    const other = point.opposite === undefined ? undefined : byId.get(point.opposite);
    if (!other) return [[point]];
    return point.side === 'left' ? [[point, other]] : [];
  });
}

const middle = (group: Group): Vector =>
  [0, 1, 2].map((axis) => group.reduce((sum, p) => sum + p.position[axis]! / group.length, 0)) as unknown as Vector;

/** Two pairs of floor points of the centre section, far apart: the four corners all else hangs on. */
function baseOf(groups: readonly Group[]): Group[] {
  const pairs = groups.filter((group) => group.length === 2);
  const all = pairs.length >= 2 ? pairs : groups;
  const lowest = Math.min(...all.map((group) => middle(group)[2]));
  const points = groups.flat();
  const inCentre = (group: Group) => sectionOf(group, points) === 'centre' && middle(group)[2] <= lowest + FLOOR;
  const floor = all.filter(inCentre);
  const chosen = (floor.length >= 2 ? floor : [...all]).slice().sort((a, b) => middle(a)[0] - middle(b)[0]);
  const first = chosen[0];
  const last = chosen.at(-1);
  return first && last && first !== last ? [first, last] : chosen;
}

const sectionOf = (group: Group, points: readonly WalkPoint[]): Section =>
  sectionAt(middle(group)[0], extentOf(points.map(({ position }) => position[0])));

/** The centre section, then the front going forward, then the rear going back; low before high. */
function outwards(groups: readonly Group[], base: readonly Group[]): Group[] {
  const points = groups.flat();
  const order: Record<Section, number> = { centre: 0, front: 1, rear: 2 };
  const key = (group: Group) => {
    const section = sectionOf(group, points);
    const along = section === 'front' ? -middle(group)[0] : middle(group)[0];
    return [order[section], along + middle(group)[2] / 4] as const;
  };
  return groups.filter((group) => !base.includes(group)).sort((a, b) => key(a)[0] - key(b)[0] || key(a)[1] - key(b)[1]);
}

const height = (point: WalkPoint): SurveyReading => ({
  id: `h ${point.id}`,
  kind: 'height',
  point: point.id,
  value: point.position[2],
  sigma: 1,
});
const between = (a: WalkPoint, b: WalkPoint): SurveyReading => ({
  id: `d ${a.id} ${b.id}`,
  kind: 'distance',
  from: a.id,
  to: b.id,
  value: 1,
  sigma: 1,
});

function baseSteps(base: readonly Group[], points: readonly WalkPoint[]): WalkStep[] {
  const step = (why: WalkStep['why'], reading: SurveyReading): WalkStep => ({
    section: sectionOf(base[0] ?? [], points) ?? 'centre',
    why,
    reading,
  });
  const corners = base.flat();
  const [a, b] = base;
  if (!a || !b || a.length < 2 || b.length < 2)
    return [
      ...corners.flatMap((p, i) => corners.slice(i + 1).map((q) => step('length', between(p, q)))),
      ...corners.map((p) => step('height', height(p))),
    ];
  return [
    step('diagonal', between(a[0]!, b[1]!)),
    step('diagonal', between(a[1]!, b[0]!)),
    step('width', between(a[0]!, a[1]!)),
    step('length', between(a[1]!, b[1]!)),
    step('width', between(b[1]!, b[0]!)),
    step('length', between(b[0]!, a[0]!)),
    ...[a[0]!, a[1]!, b[1]!, b[0]!].map((point) => step('height', height(point))),
  ];
}

/**
 * The measured pair that locates a group best: the smallest trace of the group's own covariance with
 * the pair taken as it stands, long tapes counting against it.
 */
function bestAnchor(group: Group, located: readonly Group[], instruments: WalkInstruments): Group | undefined {
  const pairs = located.filter((each) => each.length === 2);
  let best: { anchor: Group; cost: number } | undefined;
  for (const anchor of pairs) {
    const lengths = group.flatMap((point) => anchor.map((other) => apart(point, other)));
    if (Math.max(...lengths) > instruments.longest || Math.min(...lengths) < 80) continue;
    const cost = traceOf(group, anchor, instruments) * (1 + Math.max(...lengths) / 3000);
    if (!best || cost < best.cost) best = { anchor, cost };
  }
  return best?.anchor ?? pairs[0] ?? located[0];
}

const apart = (a: WalkPoint, b: WalkPoint): number =>
  Math.hypot(...a.position.map((value, i) => value - b.position[i]!));

/** Trace of the covariance of a group tied to fixed anchors, mm²; large where it stays loose. */
function traceOf(group: Group, anchor: Group, instruments: WalkInstruments): number {
  const survey: Survey = {
    points: [
      ...anchor.map((point) => ({ id: point.id, start: point.position, hold: 'fixed' as const })),
      ...group.map((point) => ({ id: point.id, start: point.position })),
    ],
    readings: tie(group, anchor, 'centre', true).map(({ reading }) =>
      withSigma(reading, [...anchor, ...group], instruments),
    ),
  };
  const equations = equationsOf(survey);
  let weight = 0;
  const diagonal = new Float64Array(equations.unknowns).fill(1e-5);
  const x = Float64Array.from(survey.points.flatMap((point) => [...point.start]));
  const row = newRow();
  // The harmonic bound on the trace: Σ 1/N_ii. Good enough to rank anchors, and a hundred times cheaper.
  for (const observation of equations.observations) {
    linearise(equations, observation, x, new Float64Array(0), row);
    for (let p = 0; p < row.count; p++) diagonal[row.columns[p]!]! += (row.coefficients[p]! / observation.sigma) ** 2;
  }
  diagonal.forEach((value) => (weight += 1 / value));
  return weight;
}

/** The readings that tie a group to a measured pair, going round and not to and fro. */
function tie(group: Group, anchor: Group, section: Section, startLeft: boolean): WalkStep[] {
  const step = (why: WalkStep['why'], reading: SurveyReading): WalkStep => ({
    section,
    why,
    reading,
  });
  const [near, far] = startLeft ? [0, group.length - 1] : [group.length - 1, 0];
  const [a, b] = [group[near]!, group[far]!];
  const [c, d] = [anchor[Math.min(near, anchor.length - 1)]!, anchor[Math.min(far, anchor.length - 1)]!];
  if (group.length === 1)
    return [step('height', height(a)), ...[...new Set(anchor)].map((each) => step('diagonal', between(each, a)))];
  return [
    step('height', height(a)),
    step('length', between(c, a)),
    ...(c === d ? [] : [step('diagonal', between(d, a))]),
    step('width', between(a, b)),
    ...(c === d ? [] : [step('diagonal', between(c, b))]),
    step('length', between(d, b)),
    step('height', height(b)),
  ];
}

const keyOf = (reading: SurveyReading): string => `${reading.kind} ${[...pointsOf(reading)].sort().join(' ')}`;

function withSigma(reading: SurveyReading, points: readonly WalkPoint[], instruments: WalkInstruments): SurveyReading {
  if (reading.kind !== 'distance') return { ...reading, sigma: instruments.height } as SurveyReading;
  const at = (id: string) => points.find((point) => point.id === id)!;
  const value = apart(at(reading.from), at(reading.to));
  return { ...reading, value, sigma: instruments.distance(value) };
}
