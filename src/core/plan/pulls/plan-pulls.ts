import { dot, norm, scale, subtract, type Vector } from '../../maths/geometry/vector';
import type { Hold, Pull } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { extentOf, sectionAt, type Section } from '../../shell/sections';
import type { Proposal } from '../proposal';
import { candidatesOf, chosenOf, pullKey, type Candidate } from './candidates';
import type { ChosenPulls } from './choose';
import { tooFarGone, type TooFarGone } from './too-far-gone';
import { mainAxis, movedAt } from './moves';
import { pullModel, type PullModel } from './pull-model';
import { roomOf, takenOf } from './room';
import { expectedSpringBack } from './try-pull';

/** A pull that is proposed. */
export interface ProposedPull {
  readonly pointId: string;
  readonly againstPointId?: string;
  /** Of a bar, the further plates it goes through, with their shares of the force. */
  readonly plates?: readonly { readonly pointId: string; readonly share: number }[];
  /** Direction of the force, of unit length, chart axes. */
  readonly direction: Vector;
  /** How far its place is to have moved along it when all is let go, mm. */
  readonly gain: number;
  readonly attach: NonNullable<Pull['attach']>;
  readonly section: Section;
}

export type PullReason =
  /** What is left of a point's deviation once all pulls are made, mm. */
  | { readonly kind: 'brings'; readonly pointId: string; readonly before: number; readonly after: number }
  /** How far its place is expected to come home, before any pull here has been tried, mm. */
  | { readonly kind: 'springsBack'; readonly by: number }
  /** Metal that was sound yields before the place has come so far. */
  | { readonly kind: 'soundYields'; readonly members: readonly string[] }
  /** Of points in a row it stands in furthest: until a bar goes straight through plates at all of them it is pulled by itself. */
  | { readonly kind: 'deepestFirst'; readonly pointIds: readonly string[]; readonly bow: number }
  /** A bar goes through plates at all of them. */
  | { readonly kind: 'bar'; readonly pointIds: readonly string[] }
  /** The point leaves with a panel that is to be replaced. */
  | { readonly kind: 'leaves'; readonly panel: string }
  | ({ readonly kind: 'tooFarGone' } & TooFarGone);

export type PullProposal = Proposal<ProposedPull, PullReason>;

/** A point that is out: how far it is from where it belongs, and how far it would be after the proposed pulls. Chart axes, mm. */
export interface ForeseenPoint {
  readonly pointId: string;
  readonly node: number;
  readonly before: Vector;
  readonly after: Vector;
  readonly limit: number;
}

/** A point that must stay: the most it moves along an axis while one of the pulls is on, mm. */
export interface WatchedPoint {
  readonly pointId: string;
  readonly moves: number;
  readonly limit: number;
}

/** A point that stands right and would not stay: how far it would move under the pulls one would make, and may, mm. */
export interface FurtherHold {
  readonly pointId: string;
  readonly without: number;
  readonly limit: number;
}

export interface PullAdvice {
  /** In the order they are made. */
  readonly proposals: readonly PullProposal[];
  readonly points: readonly ForeseenPoint[];
  readonly watched: readonly WatchedPoint[];
  /** Holds besides those there are, without which points that stand right would move too far. */
  readonly holds: readonly FurtherHold[];
  /** Movement of every node once all is let go, six freedoms each. */
  readonly stays: readonly number[];
}

const NONE: ReadonlySet<string> = new Set();

/** About how long one stroke takes with its readings, minutes, and how far one goes at most, mm. */
const MINUTES_A_STROKE = 8;
const STROKE = 4;

/**
 * The few pulls that, once let go, leave the points that are out nearest to where they belong, while no point that stands right
 * moves past its limit with them on. Places and directions are tried on the shell as it stands and is held, each as far as its
 * own point is out; sets of them are chosen by what stays of each.
 *
 * @param declined keys of pulls that somebody does not want
 * @param ask      how much was tried, 0 … 1
 */
export function advisePulls(
  job: Job,
  model: PullModel,
  { declined = NONE, ask = () => undefined }: { declined?: ReadonlySet<string>; ask?: (share: number) => void } = {},
): PullAdvice {
  const plan = planOn(job, model, declined, (share) => ask(share / 2));
  const more = furtherHolds(plan);
  if (more.length === 0) return adviceOf(job, plan, []);
  const known = model.holds.flatMap(({ hold }) => hold ?? []);
  const held = pullModel(job, [...known, ...more.map(({ pointId }) => holdAt(pointId))]);
  if (!held.ok) return adviceOf(job, plan, []);
  const firmer = { ...held.model, wanted: model.wanted, kept: model.kept, resting: model.resting };
  const better = planOn(job, firmer, declined, (share) => ask((1 + share) / 2));
  return better.brought > WORTH_HOLDING * plan.brought ? adviceOf(job, better, more) : adviceOf(job, plan, []);
}

/** Further holds are asked for where pulls bring so much more with them. */
const WORTH_HOLDING = 1.3;

const holdAt = (pointId: string): Hold => ({ id: '', itemId: '', pointId, kind: 'clamp', rating: null });

interface Plan {
  readonly model: PullModel;
  /** All pulls that could be made. */
  readonly all: readonly Candidate[];
  readonly candidates: readonly Candidate[];
  readonly chosen: ChosenPulls;
  readonly brought: number;
}

function planOn(job: Job, model: PullModel, declined: ReadonlySet<string>, ask: (share: number) => void): Plan {
  const all = candidatesOf(model, ask).filter(
    (each) => !declined.has(pullKey(job, { ...each, pointId: each.wanted.pointId })),
  );
  return { model, all, ...chosenOf(model, all, model.kept) };
}

/** So many further holds at most are asked for. */
const FURTHER = 2;

/** The points that stand right and move furthest past their limits under one of the pulls one would make, were there none. */
function furtherHolds({ model, all }: Plan): FurtherHold[] {
  const free = chosenOf(model, all, []);
  const held = new Set(model.holds.map(({ node }) => node));
  const made = free.candidates.flatMap(({ tried }, c) => {
    const share = free.chosen.forces[c]!;
    return share > 0 ? [{ loaded: tried.loaded, share }] : [];
  });
  return model.kept
    .flatMap((point) => {
      const room = roomOf(point);
      const under = made.map(({ loaded, share }) => takenOf(room, scale(movedAt(loaded, point.node), share)));
      const most = under.toSorted((a, b) => b.share - a.share)[0];
      return most && most.share > 1 && !held.has(point.node) ? [{ pointId: point.pointId, most }] : [];
    })
    .toSorted((a, b) => b.most.share - a.most.share)
    .slice(0, FURTHER)
    .map(({ pointId, most }) => ({ pointId, without: Math.abs(most.by), limit: most.of }));
}

/** A pull that leaves less than this is lost in the readings, mm. */
const WORTH = 1.2;

/** Pulls that are no more than noise are left out, unless there is no other. */
function worthMaking(all: readonly Made[]): readonly Made[] {
  const made = all.filter(({ share }) => share > 0);
  const worth = made.filter(({ candidate, share }) => share * candidate.gain >= WORTH);
  return worth.length > 0 ? worth : made.slice(0, 1);
}

function adviceOf(job: Job, { model, candidates, chosen }: Plan, holds: readonly FurtherHold[]): PullAdvice {
  const { wanted, kept } = model;
  const shares = chosen.forces;
  const made = worthMaking(candidates.map((candidate, c) => ({ candidate, share: shares[c]! })));
  const rests = new Array<number>(6 * model.frame.nodes.length).fill(0);
  for (const { candidate, share } of made) candidate.tried.stays.forEach((value, i) => (rests[i]! += share * value));
  const points = wanted.map(({ pointId, node, move, limit }): ForeseenPoint => ({
    ...{ pointId, node, limit, before: scale(move, -1) },
    after: subtract(movedAt(rests, node), move),
  }));
  const watched = kept.flatMap((point): WatchedPoint[] => {
    const room = roomOf(point);
    const under = made.flatMap(({ candidate: { tried }, share }) =>
      [tried.loaded, tried.stays].map((moves) => takenOf(room, scale(movedAt(moves, point.node), share))),
    );
    const most = under.toSorted((a, b) => b.share - a.share)[0];
    return most ? [{ pointId: point.pointId, moves: most.by, limit: most.of }] : [];
  });
  return { proposals: inOrder(job, model, made, points), ...{ points, watched, holds, stays: rests } };
}

interface Made {
  readonly candidate: Candidate;
  readonly share: number;
}

/** So many points are told that a pull brings nearer, of those that it brings so much of their way itself, mm. */
const TOLD = 3;
const BROUGHT = 0.3;

function brings({ candidate, share }: Made, points: readonly ForeseenPoint[]): PullReason[] {
  return points
    .flatMap(({ pointId, node, before, after }) => {
      const size = norm(before);
      const own = dot([0, 1, 2].map((k) => share * candidate.tried.stays[6 * node + k]!) as unknown as Vector, before);
      const by = size > 0 ? -own / size : 0;
      return by > BROUGHT && norm(after) < size ? [{ pointId, by, before: size, after: norm(after) }] : [];
    })
    .toSorted((a, b) => b.by - a.by)
    .slice(0, TOLD)
    .map(({ by: _, ...each }) => ({ kind: 'brings', ...each }));
}

const ORDER: Readonly<Record<Section, number>> = { centre: 0, rear: 1, front: 1 };

/** The centre section first; then the end that is out most; at each end length, sideways, height. */
function inOrder(job: Job, model: PullModel, made: readonly Made[], points: readonly ForeseenPoint[]): PullProposal[] {
  const { nodes } = model.frame;
  const extent = extentOf(nodes.map(({ at }) => at[0]));
  const sectionOf = ({ candidate }: Made): Section => sectionAt(nodes[candidate.node]!.at[0], extent);
  const axisOf = ({ candidate: { direction } }: Made): number => mainAxis(direction);
  const worstIn = (section: Section) =>
    Math.max(0, ...made.filter((each) => sectionOf(each) === section).map(({ candidate }) => candidate.gain));
  const sorted = made.toSorted(
    (a, b) =>
      ORDER[sectionOf(a)] - ORDER[sectionOf(b)] ||
      worstIn(sectionOf(b)) - worstIn(sectionOf(a)) ||
      axisOf(a) - axisOf(b),
  );
  return sorted.map((each) => {
    const { candidate, share } = each;
    const { wanted, tried, direction, againstPointId } = candidate;
    const gain = share * candidate.gain;
    const section = sectionOf(each);
    const own = points.find(({ pointId }) => pointId === wanted.pointId)!;
    const gone = tooFarGone(job, model.cut, wanted);
    const panel = wanted.leavesWith?.part;
    return {
      what: {
        ...{ pointId: wanted.pointId, direction, gain, section },
        ...(againstPointId ? { againstPointId } : {}),
        ...platesOf(model, candidate),
        attach: againstPointId ? 'jack' : 'plate',
      },
      cost: { minutes: MINUTES_A_STROKE * Math.max(2, Math.ceil(gain / STROKE)) },
      gain: { before: norm(own.before), after: norm(own.after) },
      why: [
        ...brings(each, points),
        ...rowReason(candidate),
        { kind: 'springsBack', by: expectedSpringBack(tried).by },
        ...(tried.soundYields.length > 0 ? [{ kind: 'soundYields' as const, members: tried.soundYields }] : []),
        ...(panel ? [{ kind: 'leaves' as const, panel }] : []),
        ...(gone ? [{ kind: 'tooFarGone' as const, ...gone }] : []),
      ],
    };
  });
}

function platesOf({ cut }: PullModel, { plates = [] }: Candidate): Pick<ProposedPull, 'plates'> {
  const { nodes } = cut.structure.model;
  const named = plates.flatMap(({ node, share }) => {
    const { pointId } = nodes[node]!;
    return pointId ? [{ pointId, share }] : [];
  });
  return named.length > 0 ? { plates: named } : {};
}

function rowReason({ row, plates }: Candidate): PullReason[] {
  if (!row) return [];
  const pointIds = row.places.map(({ pointId }) => pointId);
  return [plates ? { kind: 'bar', pointIds } : { kind: 'deepestFirst', pointIds, bow: row.bow }];
}
