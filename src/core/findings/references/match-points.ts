import { fitSelected } from '../../maths/rigid/fit';
import { distance, place, type Motion, type Position } from '../../maths/geometry/vector';

/** A proposal which point of another shell is which of this one. */
export interface PointMatch {
  readonly theirs: string;
  readonly ours: string;
  /** How far apart the two are once the shells lie on each other, mm. */
  readonly off: number;
}

/** Two shells of one kind differ by no more than this at one point, mm. */
const NEAR = 25;
const BASES = 12;

/**
 * Finds which points of two shells are the same by their position alone, whatever they are called and
 * whichever axes either was measured in: a large triangle of one is looked for among the points of the
 * other by its three sides, the motion it gives is counted by the points it brings together, and the best
 * is refined.
 *
 * @param theirs positions of the other shell, its own axes, mm
 * @param ours   positions of this shell, its own axes, mm
 */
export function matchByPosition(
  theirs: ReadonlyMap<string, Position<'theirs'>>,
  ours: ReadonlyMap<string, Position<'chart'>>,
): PointMatch[] {
  const [a, b] = [[...theirs], [...ours]];
  if (a.length < 3 || b.length < 3) return [];
  let best: { motion: Motion<'theirs', 'chart'>; score: number } | undefined;
  for (const base of largeTriangles(a)) {
    for (const found of trianglesLike(
      base.map((i) => a[i]![1]),
      b,
    )) {
      const motion = motionOf(base.map((i, k) => [a[i]![1], b[found[k]!]![1]] as const));
      if (!motion) continue;
      const score = pairsUnder(motion, a, b).reduce((sum, { off }) => sum + 1 - (off / NEAR) ** 2, 0);
      if (!best || score > best.score) best = { motion, score };
    }
    if (best && best.score > 0.8 * Math.min(a.length, b.length)) break;
  }
  if (!best || best.score < 3) return [];
  const first = pairsUnder(best.motion, a, b);
  const refined = motionOf(first.map(({ theirs: from, ours: to }) => [theirs.get(from)!, ours.get(to)!] as const));
  return refined ? pairsUnder(refined, a, b) : first;
}

type Named<F extends 'theirs' | 'chart'> = readonly (readonly [string, Position<F>])[];

const motionOf = (
  pairs: readonly (readonly [Position<'theirs'>, Position<'chart'>])[],
): Motion<'theirs', 'chart'> | undefined => {
  const fit = fitSelected(
    pairs.map(([measured, reference], i) => ({
      id: String(i),
      measured,
      reference,
      sigma: 1,
    })),
  );
  return fit.ok ? fit.motion : undefined;
};

/** Triangles that reach far: three points each as far as can be from those before, from different starts. */
function largeTriangles(points: Named<'theirs'>): number[][] {
  const starts = Array.from({ length: Math.min(BASES, points.length) }, (_, k) =>
    Math.floor((k * points.length) / Math.min(BASES, points.length)),
  );
  return starts.map((first) => {
    const second = farthest(points, [first]);
    return [first, second, farthest(points, [first, second])];
  });
}

const farthest = (points: Named<'theirs'>, from: readonly number[]): number =>
  points.reduce((best, _, i) => (reach(points, from, i) > reach(points, from, best) ? i : best), 0);

const reach = (points: Named<'theirs'>, from: readonly number[], i: number): number =>
  Math.min(...from.map((each) => distance(points[each]![1], points[i]![1])));

/** Triples of points whose three sides are those of a triangle, as nearly as two shells of one kind allow. */
function* trianglesLike(corners: readonly Position<'theirs'>[], points: Named<'chart'>): Generator<number[]> {
  const [p, q, r] = corners as [Position<'theirs'>, Position<'theirs'>, Position<'theirs'>];
  const like = (i: number, k: number, length: number) =>
    Math.abs(distance(points[i]![1], points[k]![1]) - length) < NEAR;
  for (let i = 0; i < points.length; i++)
    for (let k = 0; k < points.length; k++) {
      if (i === k || !like(i, k, distance(p, q))) continue;
      for (let m = 0; m < points.length; m++)
        if (m !== i && m !== k && like(i, m, distance(p, r)) && like(k, m, distance(q, r))) yield [i, k, m];
    }
}

/** The pairs a motion brings together, each point once, the nearest first. */
function pairsUnder(motion: Motion<'theirs', 'chart'>, theirs: Named<'theirs'>, ours: Named<'chart'>): PointMatch[] {
  const all = theirs.flatMap(([from, measured]) => {
    const at = place(motion, measured);
    return ours.map(([to, position]): PointMatch => ({
      theirs: from,
      ours: to,
      off: distance(at, position),
    }));
  });
  const taken = new Set<string>();
  return all
    .filter(({ off }) => off < NEAR)
    .sort((a, b) => a.off - b.off)
    .filter(({ theirs: from, ours: to }) => {
      if (taken.has(`t ${from}`) || taken.has(`o ${to}`)) return false;
      taken.add(`t ${from}`).add(`o ${to}`);
      return true;
    });
}

/** Root mean square of what is left between matched points, mm. */
export function matchRms(matches: readonly PointMatch[]): number {
  return Math.sqrt(matches.reduce((sum, { off }) => sum + off ** 2, 0) / Math.max(1, matches.length));
}
