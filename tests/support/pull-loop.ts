import { learnSpringBack, nextMark, BEYOND, NEAR_AIM, type ReadStroke } from '@/core/findings/strokes';
import { norm, scale, subtract, type Vector } from '@/core/maths/geometry/vector';
import { seeded } from '@/core/maths/random/seeded';
import { movedAt } from '@/core/plan/pulls/candidates';
import { advisePulls } from '@/core/plan/pulls/plan-pulls';
import { pullModel, type PullModel, type WantedPoint } from '@/core/plan/pulls/pull-model';
import { along, expectedSpringBack, tryPull, type PullAt } from '@/core/plan/pulls/try-pull';
import { strokeTo, yieldingShell, type Turned } from '@/core/practice/yielding-shell';
import type { Hold } from '@/core/shell/job/entities';
import type { Job } from '@/core/shell/job/job';

/** Noise of a reading, one standard deviation, mm. */
const NOISE = 0.5;
/** A limit of the shell that is hit, mm; a point that moved by less than this in the hit stands right. */
const LIMIT = 2;
const STANDS = 1;
const MOST_STROKES = 120;
const MOST_OF_A_PULL = 14;
/** A pull is stopped where what must stay has gone so much of its way. */
const STOP = 0.8;

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
  const points = [...of.wanted, ...of.kept].map(({ pointId, node }): WantedPoint => {
    const move = scale(movedAt(rested, node), -1);
    return { pointId, node, move, limit: LIMIT, weighedLimit: LIMIT, isOut: worstAxis(move) > LIMIT };
  });
  const kept = points.flatMap(({ pointId, node, move, isOut }) =>
    isOut || norm(move) >= STANDS ? [] : [{ pointId, node, limit: LIMIT - worstAxis(move) }],
  );
  return { shell, turned, hit: rested, points, kept };
}

/** One pull to be made: where, how far, and what is expected to come home. */
interface Making {
  readonly at: PullAt;
  readonly gain: number;
  readonly expected: { readonly by: number; readonly sd: number };
}

/**
 * Pulls a hidden shell until every point that was out is inside: as the program plans it, or by the recipe, one point at a time,
 * worst first, each to its mark plus its own last spring-back. Both go no further beyond the last held reading than is allowed,
 * and stop where what must stay has gone most of its way.
 */
export function pullHome(job: Job, of: PullModel, seed: number, by: 'plan' | 'recipe'): LoopResult {
  const { shell, hit, points, kept, ...first } = hitShell(of, seed);
  const random = seeded(seed);
  const noisy = (value: number) => value + NOISE * random.normal();
  let turned: Turned = first.turned;
  let now: Float64Array = hit;
  let [strokes, disturbed] = [0, 0];
  const fromHit = (moves: Float64Array, node: number) => subtract(movedAt(moves, node), movedAt(hit, node));
  const truth = () => points.map((each) => ({ ...each, move: subtract(each.move, fromHit(now, each.node)) }));
  const isOutside = ({ isOut, move, limit }: WantedPoint) => isOut && worstAxis(move) > limit;
  const wentTo = (moves: Float64Array) =>
    Math.max(0, ...kept.map(({ node, limit }) => worstAxis(fromHit(moves, node)) / limit));
  while (strokes < MOST_STROKES && truth().some(isOutside)) {
    const read = truth().map((each) => ({ ...each, move: each.move.map(noisy) as unknown as Vector }));
    const wanted = read.map((each) => ({ ...each, isOut: isOutside(each) }));
    const made = by === 'plan' ? planned(job, { ...of, wanted, kept }) : worst(wanted);
    // All read inside: measured again.
    if (!made) {
      strokes++;
      continue;
    }
    const { at, gain } = made;
    const start = along(now, at);
    const own: ReadStroke[] = [];
    let rested = 0;
    while (strokes < MOST_STROKES && own.length < MOST_OF_A_PULL) {
      const target = by === 'plan' ? markOf(made, own, rested) : recipeMark(gain, own, rested);
      if (target === undefined) break;
      const stroke = strokeTo(shell, turned, at, start + target);
      strokes++;
      ({ turned, rested: now } = stroke);
      const went = wentTo(stroke.loaded);
      disturbed = Math.max(disturbed, went);
      const [on, off] = [stroke.loaded, stroke.rested].map((moves) => noisy(along(moves, at) - start)) as [
        number,
        number,
      ];
      own.push({ at: '', loaded: on, rested: off, springBack: on - off, gained: off - rested });
      rested = off;
      if (went > STOP) break;
    }
    if (own.length === 0) strokes++;
  }
  const outside = truth().flatMap((each) => (isOutside(each) ? [job.code(each.pointId)] : []));
  return { strokes, outside, disturbed, disturbedAtRest: wentTo(now) };
}

function planned(job: Job, model: PullModel): Making | undefined {
  if (!model.wanted.some(({ isOut }) => isOut)) return undefined;
  const what = advisePulls(job, model).proposals[0]?.what;
  if (!what) return undefined;
  const { nodes } = model.cut.structure.model;
  const nodeOf = (id: string) => nodes.findIndex(({ pointId }) => pointId === id);
  const at: PullAt = {
    ...{ node: nodeOf(what.pointId), direction: what.direction },
    ...(what.againstPointId ? { against: nodeOf(what.againstPointId) } : {}),
  };
  return { at, gain: what.gain, expected: expectedSpringBack(tryPull(model, at, what.gain)) };
}

const markOf = ({ gain, expected }: Making, strokes: readonly ReadStroke[], rested: number): number | undefined =>
  nextMark(gain, { strokes, rested }, learnSpringBack(expected, strokes, NOISE))?.target;

function worst(wanted: readonly WantedPoint[]): Making | undefined {
  const [most] = wanted.filter(({ isOut }) => isOut).toSorted((a, b) => norm(b.move) - norm(a.move));
  if (!most) return undefined;
  const gain = norm(most.move);
  return { at: { node: most.node, direction: scale(most.move, 1 / gain) }, gain, expected: { by: 0, sd: 1 } };
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
