import { dot, norm, scale, type Vector } from '../../maths/geometry/vector';
import type { Job } from '../../shell/job/job';
import { chooseAmong, type ChosenPulls } from './choose';
import type { KeptPoint, PullModel, WantedPoint } from './pull-model';
import { tryPull, type PullAt, type TriedPull } from './try-pull';

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

/** So many pulls are proposed at once: more cannot be watched. */
const TOGETHER = 3;
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
  return all.flatMap((place, i): Candidate[] => {
    ask(i / all.length);
    const tried = tryPull(model, place, place.gain);
    return tried ? [{ ...place, tried }] : [];
  });
}

/** A pull that comes home by more than this of its way moves everything but its place, mm. */
const mostHome = (gain: number): number => 2 * gain + 8;
/** Pulls that bend nothing sound are enough where they do so much of what all together could. */
const ENOUGH = 0.6;

/** The best few pulls: of those that bend nothing sound, unless these alone bring too little. */
export function chosenOf({ wanted }: PullModel, candidates: readonly Candidate[], kept: readonly KeptPoint[]): Chosen {
  const moves = wanted.map(({ node, move, weighedLimit }) => ({ node, move, limit: weighedLimit }));
  const choose = (from: readonly Candidate[]) => {
    const stays = from.map(({ tried }) => tried.stays);
    const loaded = from.map(({ tried }) => tried.loaded);
    const chosen = chooseAmong(
      moves,
      kept,
      from.map(() => ({ most: 1 })),
      { loaded, stays },
      TOGETHER,
    );
    return { candidates: from, chosen, brought: chosen.before - chosen.error };
  };
  const firm = candidates.filter(({ gain, tried }) => tried.springBack <= mostHome(gain));
  const all = choose(firm.length > 0 ? firm : candidates);
  const gentle = choose(all.candidates.filter(({ tried }) => tried.soundYields.length === 0));
  return gentle.brought >= ENOUGH * all.brought ? gentle : all;
}
