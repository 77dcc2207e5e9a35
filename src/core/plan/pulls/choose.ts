import type { Vector } from '../../maths/geometry/vector';
import { minimise, type Bound } from '../../maths/search/small-quadratic';
import type { NodeVector, ShellFrame } from '../../structure/shell-frame';
import { displaced, factorise, type Stiffness } from '../../structure/stiffness';
import type { Room } from './room';

/** How a node should move, and the limit of each axis, mm. */
export interface WantedMove {
  readonly node: number;
  readonly move: Vector;
  readonly limit: number;
}

/** A node that must not move further than its room along any axis. */
export interface KeptNode extends Room {
  readonly node: number;
}

/** A pull that could be made: where, along which unit direction, with what force at most, N; and what takes the opposite force. */
export interface PullCandidate {
  readonly node: number;
  readonly direction: Vector;
  readonly most: number;
  readonly against?: number;
}

export interface ChosenPulls {
  /** Forces, N, of the pulls by their places; those that are not made are 0. */
  readonly forces: readonly number[];
  /** Sum over wanted nodes and axes of ((moved − move)/limit)², with these pulls and with none. */
  readonly error: number;
  readonly before: number;
  readonly moved: readonly Vector[];
  readonly kept: readonly Vector[];
  readonly proven: boolean;
}

export type PullResult =
  { readonly ok: true; readonly value: ChosenPulls } | { readonly ok: false; readonly loose: readonly string[] };

/** All sets of pulls are tried where there are no more than this. */
const ALL_SETS = 40_000;
/** Of more, so many are followed at once. */
const BEAM = 24;
/** The best few of the last are bettered by exchanging pulls. */
const EXCHANGED = 2;
/** So many sets of a size at most are worked out, those with the best bounds. */
const WORKED_OUT = 700;
/** What all pulls at once would come to is worked out, as a bound, where they are no more than these. */
const ALL_AT_ONCE = 60;
/** Two errors are one where they differ by less than this share of the error with no pull. */
const SAME = 1e-6;

/** The least squares of pulls with forces as shares of what each may: H = AᵀA, g = Aᵀb. */
interface Problem {
  readonly H: readonly (readonly number[])[];
  readonly g: readonly number[];
  /** What the pulls at their most move: wanted axes by their limits; kept axes, either way, by the room that way. */
  readonly wanted: readonly (readonly number[])[];
  readonly kept: readonly (readonly number[])[];
  readonly target: readonly number[];
}

/** Some pulls, with their forces as shares of what they may, and what is left. */
interface PullSet {
  readonly members: readonly number[];
  readonly shares: readonly number[];
  readonly error: number;
}

/**
 * The pulls, at most so many at once, and their forces that bring the wanted movements nearest while no kept node passes its
 * limit. Influence is elastic: displacements under a unit force. Every set is one quadratic programme of a few unknowns; all sets
 * are tried where they are few, else sets are grown from the best of each size and then exchanged one by one.
 *
 * @param together how many at once
 */
export function choosePulls(
  frame: ShellFrame,
  wanted: readonly WantedMove[],
  keep: readonly KeptNode[],
  pulls: readonly PullCandidate[],
  together: number,
): PullResult {
  const result = factorise(frame);
  if (!result.ok) return { ok: false, loose: result.loose };
  const moves = movesOf(frame, result.stiffness, [...wanted, ...keep], pulls);
  return { ok: true, value: chooseAmong(wanted, keep, pulls, { loaded: moves, stays: moves }, together) };
}

/** What each pull at its most moves, by six freedoms a node: while it is on, and what of it stays. */
export interface PullMoves {
  readonly loaded: readonly NodeVector[];
  readonly stays: readonly NodeVector[];
}

/**
 * The same from movements that are known: wanted is what stays, kept is what must not move while the pulls are on. Less force
 * is taken to move proportionally less.
 */
export function chooseAmong(
  wanted: readonly WantedMove[],
  keep: readonly KeptNode[],
  pulls: readonly Pick<PullCandidate, 'most'>[],
  moves: PullMoves,
  together: number,
): ChosenPulls {
  const problem = problemOf(wanted, keep, moves);
  const before = errorOf(problem, [], []);
  const count = Math.min(together, pulls.length);
  const isFew = sets(pulls.length, count) <= ALL_SETS;
  const best = isFew ? ofAll(problem, pulls.length, count, before) : ofMany(problem, pulls.length, count, before);
  const everything =
    isFew || pulls.length > ALL_AT_ONCE
      ? 0
      : solved(
          problem,
          pulls.map((_, i) => i),
        ).error;
  const shares = pulls.map((_, i) => best.shares[best.members.indexOf(i)] ?? 0);
  const at = (of: readonly NodeVector[], node: number): Vector =>
    [0, 1, 2].map((k) =>
      shares.reduce((sum, share, i) => sum + (share === 0 ? 0 : share * of[i]![6 * node + k]!), 0),
    ) as unknown as Vector;
  return {
    forces: shares.map((share, i) => share * pulls[i]!.most),
    ...{ error: best.error, before },
    moved: wanted.map(({ node }) => at(moves.stays, node)),
    kept: keep.map(({ node }) => at(moves.loaded, node)),
    // With every pull at once it cannot be better than with few.
    proven: isFew || best.error - everything <= SAME * before,
  };
}

/**
 * What each pull at its most moves, at the nodes looked at. Of many pulls by Maxwell's reciprocity: what a force here moves there,
 * the same force there moves here, so that one solution for each freedom looked at does for all of them.
 */
function movesOf(
  frame: ShellFrame,
  stiffness: Stiffness,
  looked: readonly { readonly node: number }[],
  pulls: readonly PullCandidate[],
): NodeVector[] {
  const freedoms = [...new Set(looked.map(({ node }) => node))].flatMap((node) => [
    6 * node,
    6 * node + 1,
    6 * node + 2,
  ]);
  if (pulls.length <= freedoms.length)
    return pulls.map((pull) => displaced(stiffness, unitLoad(frame, pull)).map((mm) => mm * pull.most));
  const size = 6 * frame.nodes.length;
  const under = freedoms.map((freedom) => {
    const load = new Float64Array(size);
    load[freedom] = 1;
    return displaced(stiffness, load);
  });
  return pulls.map(({ node, direction, against, most: newtons }) => {
    const moves = new Float64Array(size);
    freedoms.forEach((freedom, i) => {
      const by = (at: number) => direction.reduce((sum, part, k) => sum + part * under[i]![6 * at + k]!, 0);
      moves[freedom] = newtons * (by(node) - (against === undefined ? 0 : by(against)));
    });
    return moves;
  });
}

function unitLoad({ nodes }: ShellFrame, { node, direction, against }: PullCandidate): NodeVector {
  const load = new Float64Array(6 * nodes.length);
  for (let k = 0; k < 3; k++) {
    load[6 * node + k]! += direction[k]!;
    if (against !== undefined) load[6 * against + k]! -= direction[k]!;
  }
  return load;
}

function problemOf(wanted: readonly WantedMove[], keep: readonly KeptNode[], { loaded, stays }: PullMoves): Problem {
  const a = wanted.flatMap(({ node, limit }) =>
    [0, 1, 2].map((k) => stays.map((moves) => moves[6 * node + k]! / limit)),
  );
  const kept = keep.flatMap(({ node, up, down }) =>
    [0, 1, 2].flatMap((k) => [up[k]!, -down[k]!].map((room) => loaded.map((moves) => moves[6 * node + k]! / room))),
  );
  const target = wanted.flatMap(({ move, limit }) => move.map((value) => value / limit));
  const column = (i: number) => a.map((row) => row[i]!);
  const columns = stays.map((_, i) => column(i));
  const product = (p: readonly number[], q: readonly number[]) => p.reduce((sum, value, r) => sum + value * q[r]!, 0);
  return {
    H: columns.map((p) => columns.map((q) => product(p, q))),
    g: columns.map((p) => product(p, target)),
    ...{ wanted: a, kept, target },
  };
}

function errorOf({ wanted, target }: Problem, members: readonly number[], shares: readonly number[]): number {
  return target.reduce((sum, want, r) => {
    const moved = members.reduce((total, i, k) => total + wanted[r]![i]! * shares[k]!, 0);
    return sum + (moved - want) ** 2;
  }, 0);
}

/** A force below this share of what a pull may is none. */
const NO_FORCE = 1e-6;

/** The best forces of one set. */
function solved(problem: Problem, members: readonly number[]): PullSet {
  const pick = (row: readonly number[]) => members.map((i) => row[i]!);
  const bounds: Bound[] = [
    ...members.flatMap((_, k): Bound[] => {
      const unit = members.map((__, i) => (i === k ? 1 : 0));
      return [
        { a: unit, b: 1 },
        { a: unit.map((value) => -value), b: 0 },
      ];
    }),
    ...problem.kept.flatMap((row): Bound[] => {
      const a = pick(row);
      // Even with all of them at their most it does not come to its limit.
      return a.reduce((sum, value) => sum + Math.max(0, value), 0) <= 1 ? [] : [{ a, b: 1 }];
    }),
  ];
  const shares = minimise(
    members.map((i) => pick(problem.H[i]!)),
    pick(problem.g),
    bounds,
  ).map((share) => (share < NO_FORCE ? 0 : Math.min(1, share)));
  return { members, shares, error: errorOf(problem, members, shares) };
}

/** The better of two sets: the smaller error, and of errors that are one the fewer pulls. */
const used = ({ shares }: PullSet): number => shares.filter((share) => share > 0).length;
const isBetter = (a: PullSet, b: PullSet, before: number): boolean => {
  if (Math.abs(a.error - b.error) <= SAME * before) return used(a) < used(b);
  return a.error < b.error;
};

const NONE = (before: number): PullSet => ({ members: [], shares: [], error: before });

function ofAll(problem: Problem, pulls: number, together: number, before: number): PullSet {
  const all: PullSet[] = [NONE(before)];
  const grow = (members: readonly number[], from: number): void => {
    for (let i = from; i < pulls; i++) {
      const next = [...members, i];
      all.push(solved(problem, next));
      if (next.length < together) grow(next, i + 1);
    }
  };
  grow([], 0);
  // The smallest error first, then the fewest pulls of all that are as good.
  const least = all.reduce((most, { error }) => Math.min(most, error), Infinity);
  const asGood = all.filter(({ error }) => error - least <= SAME * before);
  return asGood.toSorted((a, b) => used(a) - used(b) || a.error - b.error)[0]!;
}

function ofMany(problem: Problem, pulls: number, together: number, before: number): PullSet {
  let best = NONE(before);
  let beam: PullSet[] = [best];
  for (let size = 1; size <= together; size++) {
    const seen = new Set<string>();
    const grown = beam.flatMap(({ members }) =>
      Array.from({ length: pulls }, (_, i) => i).flatMap((i) => {
        if (members.includes(i)) return [];
        const next = [...members, i].toSorted((a, b) => a - b);
        const key = next.join();
        if (seen.has(key)) return [];
        seen.add(key);
        return [{ members: next, least: before - most(problem, next) }];
      }),
    );
    beam = bestOf(problem, grown);
    for (const each of beam) if (isBetter(each, best, before)) best = each;
  }
  return beam.slice(0, EXCHANGED).reduce((kept, each) => {
    const better = exchanged(problem, each, pulls, before);
    return isBetter(better, kept, before) ? better : kept;
  }, best);
}

/** The best sets of some, each worked out only where its bound lets it be among them. */
function bestOf(problem: Problem, sets: readonly { readonly members: readonly number[]; readonly least: number }[]) {
  let best: PullSet[] = [];
  for (const { members, least } of sets.toSorted((a, b) => a.least - b.least).slice(0, WORKED_OUT)) {
    if (best.length === BEAM && least >= best.at(-1)!.error) break;
    best = [...best, solved(problem, members)].toSorted((a, b) => a.error - b.error).slice(0, BEAM);
  }
  return best;
}

/** What a set brings at most: were its forces free of every bound, gᵀH⁻¹g, by elimination. */
function most({ H, g }: Problem, members: readonly number[]): number {
  const rows = members.map((i) => [...members.map((k) => H[i]![k]!), g[i]!]);
  const n = members.length;
  let brought = 0;
  for (let k = 0; k < n; k++) {
    const pivot = rows[k]![k]!;
    // Two pulls that do the same bring together what one does.
    if (pivot <= SAME * H[members[k]!]![members[k]!]!) continue;
    brought += rows[k]![n]! ** 2 / pivot;
    for (let r = k + 1; r < n; r++) {
      const by = rows[r]![k]! / pivot;
      for (let c = k; c <= n; c++) rows[r]![c]! -= by * rows[k]![c]!;
    }
  }
  return brought;
}

/** One pull exchanged for another as long as that helps. */
function exchanged(problem: Problem, start: PullSet, pulls: number, before: number): PullSet {
  let best = start;
  for (let again = true; again;) {
    again = false;
    for (const out of best.members)
      for (let i = 0; i < pulls; i++) {
        if (best.members.includes(i)) continue;
        const members = best.members.map((each) => (each === out ? i : each));
        if (before - most(problem, members) >= best.error) continue;
        const tried = solved(problem, members);
        if (tried.error >= best.error - SAME * before) continue;
        [best, again] = [tried, true];
        break;
      }
  }
  return best;
}

/** How many sets of up to so many there are. */
function sets(of: number, upTo: number): number {
  let [count, all] = [1, 1];
  for (let k = 1; k <= upTo; k++) {
    count = (count * (of - k + 1)) / k;
    all += count;
  }
  return all;
}
