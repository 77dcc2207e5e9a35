import { learnSpringBack, nextMark, BEYOND, NEAR_AIM, type ReadStroke } from '@/core/findings/strokes';
import { add, norm, scale, subtract, type Vector } from '@/core/maths/geometry/vector';
import { seeded } from '@/core/maths/random/seeded';
import { mainAxis, movedAt } from '@/core/plan/pulls/moves';
import { advisePulls } from '@/core/plan/pulls/plan-pulls';
import { pullModel, type KeptPoint, type PullModel, type WantedPoint } from '@/core/plan/pulls/pull-model';
import { roomOf, standsNow } from '@/core/plan/pulls/room';
import { along, expectedSpringBack, tryPull, type PullAt } from '@/core/plan/pulls/try-pull';
import { watchOf } from '@/core/plan/pulls/worked-pull';
import { atRest, clampedBesides, strokeTo, yieldingShell, type Turned } from '@/core/practice/yielding-shell';
import type { Hold } from '@/core/shell/job/entities';
import type { Job } from '@/core/shell/job/job';
import type { NodeVector } from '@/core/structure/shell-frame';

/** Noise of a reading, one standard deviation, mm. */
const NOISE = 0.5;
/** A limit of the shell that is hit, mm; a point that moved by less than this in the hit stands right. */
const LIMIT = 2;
const STANDS = 1;
const MOST_STROKES = 200;
const MOST_OF_A_PULL = 14;
/** So many of the places that last stopped a pull are held in those that come after. */
const HELD = 4;
/** Pulled on by so much from one look at the watch list to the next, mm, with a pointer set before the pull. */
const STEP = 1;
const POINTER = 0.2;

/** How a hidden shell that was hit came home. */
export interface LoopResult {
  readonly strokes: number;
  /** Points still outside, in the hidden truth. */
  readonly outside: readonly string[];
  /** The furthest that a point which stood right went, in its limits: under load, and at rest in the end. */
  readonly disturbed: number;
  readonly disturbedAtRest: number;
}

/** The estate's structure, held also at its front. */
export function loopModel(job: Job): PullModel {
  const held = ['C1L', 'C1R', 'F1L', 'F1R'].map((code): Hold => ({
    ...{ id: '', itemId: '', pointId: job.pointCalled(code)!.id, kind: 'clamp', rating: null },
  }));
  const result = pullModel(job, held);
  if (!result.ok) throw new Error(result.why);
  return result.model;
}

const worstAxis = (by: Vector): number => Math.max(...by.map(Math.abs));

/** A hidden shell of a seed, hit at its left rear corner: where every point stands from where it belongs, and how it yields. */
function hitShell(of: PullModel, seed: number) {
  const { model } = of.cut.structure;
  const bent = new Set(of.wanted.flatMap(({ node, isOut }) => (isOut ? [node] : [])));
  const supports = of.frame.supports.filter(({ node }) => node < model.nodes.length);
  const shell = yieldingShell(model, supports, bent, seeded(7 * seed + 1));
  if (!shell) throw new Error('nothing holds the hidden shell');
  const corner = model.nodes.findIndex(({ code }) => code === 'R4L');
  const hit: Vector = [-0.85, 0.35, 0.2];
  const { rested, turned } = strokeTo(shell, undefined, { node: corner, direction: scale(hit, 1 / norm(hit)) }, 30);
  const known = new Map([...of.wanted, ...of.kept].map((each) => [each.node, each]));
  const points = [...known.values()].map(({ pointId, node }): WantedPoint => {
    const move = scale(movedAt(rested, node), -1);
    return { pointId, node, move, limit: LIMIT, weighedLimit: LIMIT, isOut: worstAxis(move) > LIMIT };
  });
  const kept = points.flatMap(({ pointId, node, move, isOut }) =>
    isOut || norm(move) >= STANDS
      ? []
      : [{ pointId, node, off: scale(move, -1), sd: [NOISE, NOISE, NOISE] as const, limit: LIMIT }],
  );
  return { shell, turned, hit: rested, points, kept };
}

/** One pull to be made: where, how far, and what is expected to come home; what is clamped for it, and what is watched. */
interface Making {
  readonly at: PullAt;
  readonly gain: number;
  readonly expected: { readonly by: number; readonly sd: number };
  readonly clamps: readonly number[];
  readonly watched: readonly Stop[];
}

/** A place that must not go further than so far along an axis, the way of its sign, from where it stood before the pull, mm. */
interface Stop {
  readonly node: number;
  readonly axis: number;
  readonly stop: number;
}

/**
 * Pulls a hidden shell until every point that was out is inside: as the program plans it, or by the recipe, one point at a time,
 * worst first, each to its mark plus its own last spring-back. Both go no further beyond the last held reading than is allowed,
 * stop where a reading that is watched comes to its stop, and hold that place in the next.
 */
export function pullHome(job: Job, of: PullModel, seed: number, by: 'plan' | 'recipe'): LoopResult {
  const { shell, hit, points, kept, ...first } = hitShell(of, seed);
  const random = seeded(seed);
  const noisy = (value: number) => value + NOISE * random.normal();
  let turned: Turned = first.turned;
  let now: NodeVector = hit;
  let [strokes, disturbed] = [0, 0];
  let stopped: readonly number[] = [];
  const known: KeptPoint[] = [];
  const fromHit = (moves: NodeVector, node: number) => subtract(movedAt(moves, node), movedAt(hit, node));
  const truth = () => points.map((each) => ({ ...each, move: subtract(each.move, fromHit(now, each.node)) }));
  const isOutside = ({ isOut, move, limit }: WantedPoint) => isOut && worstAxis(move) > limit;
  const stands = (moves: NodeVector, { node, off }: KeptPoint) => add(off, fromHit(moves, node));
  const wentTo = (moves: NodeVector) => Math.max(0, ...kept.map((each) => worstAxis(stands(moves, each)) / each.limit));
  while (strokes < MOST_STROKES && truth().some(isOutside)) {
    const read = truth().map((each) => ({ ...each, move: each.move.map(noisy) as unknown as Vector }));
    const wanted = read.map((each) => ({ ...each, isOut: isOutside(each) }));
    const right = kept.map(
      (each, i) =>
        (known[i] = standsNow(known[i], { ...each, off: stands(now, each).map(noisy) as unknown as Vector })),
    );
    const made = by === 'plan' ? planned(job, { ...of, wanted, kept: right }, stopped) : worst(wanted, right);
    const held = made && clampedBesides(shell, turned, made.clamps.length > 0 ? made.clamps : stopped);
    // All read inside: measured again.
    if (!made || !held) {
      strokes++;
      continue;
    }
    const { at, gain } = made;
    const start = along(now, at);
    const before = now;
    const own: ReadStroke[] = [];
    let rested = 0;
    let stop: Stop | undefined;
    while (strokes < MOST_STROKES && own.length < MOST_OF_A_PULL && !stop) {
      const target = by === 'plan' ? markOf(made, own, rested) : recipeMark(gain, own, rested);
      if (target === undefined) break;
      const looks = Math.max(1, Math.ceil((target - rested) / STEP));
      let stroke = strokeTo(held, turned, at, start + target);
      for (let look = 1; look <= looks && !stop; look++) {
        const part = strokeTo(held, turned, at, start + rested + (look / looks) * (target - rested));
        stop = made.watched.find(
          ({ node, axis, stop: most }) =>
            Math.sign(most) * (part.loaded[6 * node + axis]! - before[6 * node + axis]!) + POINTER * random.normal() >
            Math.abs(most),
        );
        if (stop) stroke = part;
      }
      strokes++;
      ({ turned, rested: now } = stroke);
      disturbed = Math.max(disturbed, wentTo(stroke.loaded));
      const [on, off] = [stroke.loaded, stroke.rested].map((moves) => noisy(along(moves, at) - start)) as [
        number,
        number,
      ];
      own.push({ at: '', loaded: on, rested: off, springBack: on - off, gained: off - rested });
      rested = off;
    }
    if (stop) stopped = [...stopped.filter((node) => node !== stop.node), stop.node].slice(-HELD);
    if (own.length === 0) strokes++;
    ({ turned, rested: now } = atRest(shell, turned));
  }
  const outside = truth().flatMap((each) => (isOutside(each) ? [job.code(each.pointId)] : []));
  return { strokes, outside, disturbed, disturbedAtRest: wentTo(now) };
}

const nodeOf = ({ cut }: PullModel, id: string) => cut.structure.model.nodes.findIndex(({ pointId }) => pointId === id);

/** The model held also at some places. */
function heldBesides(job: Job, model: PullModel, nodes: readonly number[]): PullModel | undefined {
  const own = model.holds.flatMap(({ hold }) => hold ?? []);
  const more = nodes.map((node): Hold => ({
    ...{ id: '', itemId: '', kind: 'clamp', rating: null },
    pointId: model.cut.structure.model.nodes[node]!.pointId!,
  }));
  const held = pullModel(job, [...own, ...more]);
  // What holds it from the beginning stays on to the end.
  return held.ok
    ? { ...held.model, ...{ wanted: model.wanted, kept: model.kept, resting: model.yielding } }
    : undefined;
}

function planned(job: Job, of: PullModel, stopped: readonly number[]): Making | undefined {
  if (!of.wanted.some(({ isOut }) => isOut)) return undefined;
  const model = heldBesides(job, of, stopped) ?? of;
  const advice = advisePulls(job, model);
  const what = advice.proposals[0]?.what;
  if (!what) return undefined;
  const clamps = [...stopped, ...advice.holds.map(({ pointId }) => nodeOf(of, pointId))];
  const held = heldBesides(job, of, clamps) ?? model;
  const at: PullAt = {
    ...{ node: nodeOf(of, what.pointId), direction: what.direction },
    ...(what.againstPointId ? { against: nodeOf(of, what.againstPointId) } : {}),
  };
  const tried = tryPull(held, at, what.gain);
  const watched = tried ? watchOf(held, what.pointId, mainAxis(at.direction), tried) : [];
  return {
    ...{ at, clamps, gain: what.gain, expected: expectedSpringBack(tried) },
    watched: watched.flatMap(({ pointId, axis, wanted, stop }) =>
      wanted ? [] : [{ node: nodeOf(of, pointId), axis, stop }],
    ),
  };
}

const markOf = ({ gain, expected }: Making, strokes: readonly ReadStroke[], rested: number): number | undefined =>
  nextMark(gain, { strokes, rested }, learnSpringBack(expected, strokes, NOISE))?.target;

/** The recipe watches everything that must stay, as far as a restorer would let it go. */
const WATCHES = 0.7;

function worst(wanted: readonly WantedPoint[], kept: readonly KeptPoint[]): Making | undefined {
  const [most] = wanted.filter(({ isOut }) => isOut).toSorted((a, b) => norm(b.move) - norm(a.move));
  if (!most) return undefined;
  const gain = norm(most.move);
  return {
    ...{ at: { node: most.node, direction: scale(most.move, 1 / gain) }, gain, expected: { by: 0, sd: 1 }, clamps: [] },
    watched: kept.flatMap((each) => {
      const { up, down } = roomOf(each);
      return [0, 1, 2].flatMap((axis) =>
        [up[axis]!, -down[axis]!].map((room) => ({ node: each.node, axis, stop: WATCHES * room })),
      );
    }),
  };
}

function recipeMark(gain: number, strokes: readonly ReadStroke[], rested: number): number | undefined {
  if (gain - rested < NEAR_AIM) return undefined;
  const most = strokes.length === 0 ? Math.max(1, gain / 2) : Math.max(...strokes.map(({ loaded }) => loaded)) + BEYOND;
  return Math.min(gain + (strokes.at(-1)?.springBack ?? 0), most);
}

/** From which stroke on the stated resting place is held against the truth. */
const LEARNED = 3;
const LAST = 7;

/** Of the strokes after the third on a hidden shell of a seed, how many came to rest within what was stated. */
export function restingPlaces(of: PullModel, seed: number): { readonly covered: number; readonly strokes: number } {
  const { shell, hit, points, ...first } = hitShell(of, seed);
  const random = seeded(seed);
  const corner = points.find(({ node }) => of.cut.structure.model.nodes[node]!.code === 'R4L')!;
  const gain = norm(corner.move);
  const at: PullAt = { node: corner.node, direction: scale(corner.move, 1 / gain) };
  const expected = expectedSpringBack(tryPull({ ...of, wanted: points }, at, gain));
  const start = along(hit, at);
  const own: ReadStroke[] = [];
  let turned: Turned = first.turned;
  let rested = 0;
  let [covered, strokes] = [0, 0];
  while (own.length < LAST) {
    const next = nextMark(gain, { strokes: own, rested }, learnSpringBack(expected, own, NOISE));
    if (!next) break;
    const stroke = strokeTo(shell, turned, at, start + next.target);
    turned = stroke.turned;
    const [on, off] = [stroke.loaded, stroke.rested].map((moves) => along(moves, at) - start) as [number, number];
    if (own.length >= LEARNED) {
      strokes++;
      if (Math.abs(off - next.rest) <= next.plusMinus) covered++;
    }
    const [loaded, left] = [on, off].map((value) => value + NOISE * random.normal()) as [number, number];
    own.push({ at: '', loaded, rested: left, springBack: loaded - left, gained: left - rested });
    rested = left;
  }
  return { covered, strokes };
}
