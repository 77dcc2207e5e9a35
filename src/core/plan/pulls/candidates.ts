import { add, dot, norm, scale, subtract, type Vector } from '../../maths/geometry/vector';
import { Symmetric } from '../../maths/linear/symmetric';
import type { Job } from '../../shell/job/job';
import type { NodeVector } from '../../structure/shell-frame';
import { displaced } from '../../structure/stiffness';
import { chooseAmong, type ChosenPulls } from './choose';
import type { KeptPoint, PullModel, WantedPoint } from './pull-model';
import { loadOf, tryPull, type PullAt, type TriedPull } from './try-pull';

/** A pull that could be made, tried as far as its own point is out. */
export interface Candidate extends PullAt {
  readonly wanted: WantedPoint;
  readonly againstPointId?: string;
  /** How far its place is to have moved along it, mm. */
  readonly gain: number;
  readonly tried: TriedPull;
}

/** Some candidates, how much of each is made, and how much of the error that brings. */
export interface Chosen {
  readonly candidates: readonly Candidate[];
  readonly chosen: ChosenPulls;
  readonly brought: number;
}

/** So many pulls are proposed at once: after them the shell is measured again. */
const AT_ONCE = 3;
/** A move has a part of its own along an axis where that is so much of its limit. */
const OF_ITS_OWN = 0.5;

/** What a proposed pull is called when it is declined: its point, what it goes against, and which way it goes most. */
export function pullKey(
  job: Job,
  {
    pointId,
    againstPointId,
    direction,
  }: Pick<Candidate, 'direction' | 'againstPointId'> & { readonly pointId: string },
): string {
  const k = mainAxis(direction);
  const way = `${direction[k]! < 0 ? '-' : '+'}${'xyz'[k]}`;
  return [job.code(pointId), ...(againstPointId ? [job.code(againstPointId)] : []), way].join(' ');
}

/** The axis a direction goes along most: 0 length, 1 sideways, 2 height. */
export const mainAxis = (direction: Vector): number =>
  [0, 1, 2].reduce((best, k) => (Math.abs(direction[k]!) > Math.abs(direction[best]!) ? k : best), 0);

export const largest = (by: Vector): number =>
  by.reduce((most, each) => (Math.abs(each) > Math.abs(most) ? each : most), 0);

/** Every point that is out pulled along where it should go, and along each axis that has a part of its own in that. */
export function candidatesOf(job: Job, model: PullModel, ask: (share: number) => void): Candidate[] {
  const out = model.wanted.filter(({ isOut }) => isOut);
  const held = new Set(model.holds.filter(({ fix }) => fix.length > 1).map(({ node }) => node));
  const places = out.flatMap((wanted): (PullAt & { wanted: WantedPoint; againstPointId?: string; gain: number })[] => {
    const { node, move, limit } = wanted;
    if (held.has(node)) return [];
    const size = norm(move);
    const axes = [0, 1, 2].flatMap((k) => {
      const part = move[k]!;
      if (Math.abs(part) < OF_ITS_OWN * limit || Math.abs(part) > 0.97 * size) return [];
      const direction = [0, 1, 2].map((i) => (i === k ? Math.sign(part) : 0)) as unknown as Vector;
      return [{ node, direction, wanted, gain: Math.abs(part) }];
    });
    return [{ node, direction: scale(move, 1 / size), wanted, gain: size }, ...axes];
  });
  const across = model.cut.lengths.flatMap(({ from, to }) => {
    const [wanted, other] = [from, to].map((node) => out.find((each) => each.node === node));
    if (!wanted || other) return [];
    const { nodes } = model.frame;
    const line = [0, 1, 2].map((k) => nodes[to]!.at[k]! - nodes[from]!.at[k]!) as unknown as Vector;
    const opens = -dot(wanted.move, line) / norm(line);
    if (Math.abs(opens) < OF_ITS_OWN * wanted.limit) return [];
    const direction = scale(line, -Math.sign(opens) / norm(line));
    const againstPointId = model.cut.structure.model.nodes[to]!.pointId;
    return againstPointId
      ? [{ node: from, against: to, direction, wanted, gain: Math.abs(opens), againstPointId }]
      : [];
  });
  const all = [...places, ...across];
  const tries = all.length + out.length;
  const straight = all.flatMap((place, i): Candidate[] => {
    ask(i / tries);
    const tried = tryPull(model, place, place.gain);
    return tried ? [{ ...place, tried }] : [];
  });
  const turned = out.flatMap((wanted, i): Candidate[] => {
    ask((all.length + i) / tries);
    const candidate = held.has(wanted.node) ? undefined : homeward(model, wanted);
    return candidate ? [candidate] : [];
  });
  return [...straight, ...turned];
}

/** So often a direction is bettered by what its pull leaves. */
const TURNS = 3;

/**
 * The pull that brings a point straight home: metal seldom goes the way it is pulled, so that the force has to lean against what
 * it does besides. At first by the inverse of how the place gives elastically, then by what was left over of the way.
 */
function homeward(model: PullModel, wanted: WantedPoint): Candidate | undefined {
  const { node, move } = wanted;
  const gives = AXES.map((direction): Vector =>
    movedAt(displaced(model.stiffness, loadOf(model, { node, direction })), node),
  );
  const compliance = new Symmetric(3, Float64Array.from(gives.flat())).factor();
  if (!compliance) return undefined;
  let towards: Vector = move;
  let best: { readonly candidate: Candidate; readonly beside: number } | undefined;
  for (let i = 0; i < TURNS; i++) {
    const force = [...compliance.solve(new Float64Array(towards))] as unknown as Vector;
    const direction = scale(force, 1 / norm(force));
    const gain = dot(move, direction);
    if (gain < LEAST_GAIN) break;
    const tried = tryPull(model, { node, direction }, gain);
    if (!tried) break;
    const left = subtract(move, movedAt(tried.stays, node));
    const beside = norm(left);
    if (best && beside >= best.beside) break;
    best = { candidate: { node, direction, wanted, gain, tried }, beside };
    towards = add(towards, left);
  }
  return best?.candidate;
}

/** A pull that is to leave less than this along itself is none, mm. */
const LEAST_GAIN = 0.5;
const AXES: readonly Vector[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];
/** The movement of a node, mm. */
export const movedAt = (moves: ArrayLike<number>, node: number): Vector => [
  moves[6 * node]!,
  moves[6 * node + 1]!,
  moves[6 * node + 2]!,
];

/** A pull that comes home by more than this of its way moves everything but its place, mm. */
const mostHome = (gain: number): number => 2 * gain + 8;
/** Pulls that bend nothing sound are enough where they do so much of what all together could. */
const ENOUGH = 0.6;

/** The best few pulls: of those that bend nothing sound, unless these alone bring too little. */
export function chosenOf({ wanted }: PullModel, candidates: readonly Candidate[], kept: readonly KeptPoint[]): Chosen {
  const moves = wanted.map(({ node, move, weighedLimit }) => ({ node, move, limit: weighedLimit }));
  const choose = (of: readonly Candidate[]) => {
    const from = of.map((candidate) => asFarAs(candidate, kept));
    const stays = from.map(({ tried }) => tried.stays);
    // One is let go before the next is put on: of the others only what stays is there while it is loaded.
    const pulls = from.map(() => ({ most: 1 }));
    const chosen = chooseAmong(moves, kept, pulls, { loaded: stays, stays }, AT_ONCE);
    return { candidates: from, chosen, brought: chosen.before - chosen.error };
  };
  const firm = candidates.filter(({ gain, tried }) => tried.springBack <= mostHome(gain));
  const all = choose(firm.length > 0 ? firm : candidates);
  const gentle = choose(candidates.filter((each) => firm.includes(each) && each.tried.soundYields.length === 0));
  return gentle.brought >= ENOUGH * all.brought ? gentle : all;
}

/** A shell may be softer than its model: of what a point may move so much is used. */
const SURE = 0.75;

/** As much of a pull as no point that stands right passes its limit under. */
function asFarAs(candidate: Candidate, kept: readonly KeptPoint[]): Candidate {
  const { tried, gain } = candidate;
  const share = kept.reduce((least, { node, limit }) => {
    const by = Math.abs(largest(movedAt(tried.loaded, node)));
    return by > 0 ? Math.min(least, (SURE * limit) / by) : least;
  }, 1);
  if (share === 1) return candidate;
  const less = (moves: NodeVector): NodeVector => moves.map((value) => share * value);
  const { loaded, stays, springBack, force } = tried;
  return {
    ...{ ...candidate, gain: share * gain },
    // What comes home is a length of its own once it yields, and stays as long.
    tried: { ...tried, loaded: less(loaded), stays: less(stays), springBack, force: Math.max(share, HALF) * force },
  };
}

/** Less than half of a pull takes about half of its force at least: metal gives only past its yield. */
const HALF = 0.5;
