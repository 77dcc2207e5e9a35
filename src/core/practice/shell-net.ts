import { distance, position, type Position, type Vector } from '../maths/geometry/vector';
import type { Random } from '../maths/random/seeded';
import type { Survey, SurveyPoint, SurveyReading } from '../survey/survey';

/** A made-up shell with its readings: for tests and benchmarks, which need to know the truth. */
export interface ShellNet {
  readonly survey: Survey;
  readonly truth: ReadonlyMap<string, Position<'round'>>;
}

export interface ShellNetOptions {
  readonly points: number;
  readonly distances: number;
  /** How far the starting coordinates are off, mm, on each axis. */
  readonly startOff?: number;
  readonly sigma?: number;
  readonly heightSigma?: number;
  readonly hold?: (id: string) => SurveyPoint['hold'];
}

/** Left and right points along a body of about four metres, at four heights; ids `P3L`, `P3R`. */
export function shellPoints(count: number, random: Random): Map<string, Position<'round'>> {
  const points = new Map<string, Position<'round'>>();
  const pairs = Math.ceil(count / 2);
  for (let i = 0; i < pairs; i++) {
    const x = (i / Math.max(1, pairs - 1)) * 3800 + random.next() * 60;
    const y = 420 + 260 * Math.sin(1.7 * i) ** 2;
    const z = [160, 320, 700, 1250][i % 4]! + random.next() * 50;
    points.set(`P${i}L`, position([x, -y, z]));
    if (points.size < count) points.set(`P${i}R`, position([x + random.next() * 4, y, z]));
  }
  return points;
}

/** Tape distances between points near and far, and a height on every point, with normal errors. */
export function shellNet(options: ShellNetOptions, random: Random): ShellNet {
  const { sigma = 0.8, heightSigma = 0.7, startOff = 5 } = options;
  const truth = shellPoints(options.points, random);
  const ids = [...truth.keys()];
  const pairs = ids.flatMap((from, i) => ids.slice(i + 1).map((to) => [from, to] as const));
  const chosen = pairs
    .map((pair, i) => ({ pair, at: (i * 0.6180339887) % 1 }))
    .sort((a, b) => a.at - b.at)
    .slice(0, options.distances)
    .map(({ pair }) => pair);
  const readings: SurveyReading[] = [
    ...ids.map((point): SurveyReading => ({
      id: `h-${point}`,
      kind: 'height',
      point,
      sigma: heightSigma,
      value: truth.get(point)![2] + heightSigma * random.normal(),
    })),
    ...chosen.map(([from, to], i): SurveyReading => ({
      id: `d${i}`,
      kind: 'distance',
      from,
      to,
      sigma,
      value: distance(truth.get(from)!, truth.get(to)!) + sigma * random.normal(),
    })),
  ];
  const points = ids.map((id): SurveyPoint => {
    const hold = options.hold?.(id);
    const start = truth
      .get(id)!
      .map((value) => (hold === undefined ? value + startOff * (2 * random.next() - 1) : value)) as unknown as Vector;
    return { id, start, ...(hold === undefined ? {} : { hold }) };
  });
  return { survey: { points, readings }, truth };
}
