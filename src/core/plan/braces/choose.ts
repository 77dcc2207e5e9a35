import {
  sagOf,
  slackOf,
  stageStiffness,
  withBraces,
  type CriticalLength,
  type Slack,
  type Stage,
  type StageResult,
} from '../../structure/slack';
import type { ShellFrame, Strut } from '../../structure/shell-frame';
import { braceCandidates, strutOf, type BraceCandidate, type BraceChoice } from './candidates';
import { Braced } from './braced';

/** Braces that hold a stage, as few as were found. */
export interface Bracing {
  /** Every length is within its limit. */
  readonly ok: boolean;
  /** In the order that helps most first; `gain` is the fall of the largest ratio of slack to limit. */
  readonly braces: readonly (BraceCandidate & { readonly gain: number })[];
  /** How every length would give if one of the braces alone were missing, in their order. */
  readonly missing: readonly (readonly (Slack | undefined)[])[];
  readonly before: readonly (Slack | undefined)[];
  readonly after: readonly (Slack | undefined)[];
}

export type BracingResult =
  | { readonly ok: true; readonly value: Bracing }
  | { readonly ok: false; readonly stage?: string; readonly loose: readonly string[] };

export interface BracingTask {
  readonly frame: ShellFrame;
  /** Up to the one to be held. */
  readonly stages: readonly Stage[];
  /** The frame as it is there, where it is not just what these stages leave. */
  readonly cut?: ShellFrame;
  readonly lengths: readonly CriticalLength[];
  readonly handling: number;
  readonly choice: BraceChoice;
  readonly most: number;
  /** Braces that are in already. */
  readonly planned?: readonly Strut[];
  /** Told how much of the search is done, 0 … 1. */
  readonly progress?: (share: number) => void;
}

/** A set is put together by what its ratios of slack to limit come to: several ways, since none is always best. */
const MEASURES: readonly Measure[] = [
  { of: (ratios) => Math.max(0, ...ratios), most: (value) => value },
  {
    of: (ratios) => ratios.reduce((sum, each) => sum + Math.max(0, each - 1), 0) + 1e-3 * Math.max(0, ...ratios),
    most: (value) => 1 + value,
  },
  { of: (ratios) => ratios.reduce((sum, each) => sum + each ** 4, 0), most: (value) => value ** 0.25 },
];
interface Measure {
  /** Grows with every ratio. */
  readonly of: (ratios: readonly number[]) => number;
  /** The largest that a single ratio can be where the measure is no more than a value. */
  readonly most: (value: number) => number;
}

/** All sets of one brace fewer are tried where there are no more than this. */
const ALL_SETS = 30_000;

/**
 * Chooses braces so that every length keeps its limit: greedily by several measures, then by taking out, by one in place of
 * two and by exchanging one, until none of it helps; where few sets of one brace fewer exist, all of them are tried.
 */
export function chooseBraces(task: BracingTask): BracingResult {
  const { frame, lengths, handling, choice, most, planned = [] } = task;
  const [from, stages] = task.cut ? [task.cut, []] : [frame, task.stages];
  const whole = stageStiffness(frame, []);
  if (!whole.ok) return whole;
  const stage = stageStiffness(from, stages, planned);
  if (!stage.ok) return failed(stage, stages);
  const uncut = sagOf(whole.value, lengths);
  const { stands } = stage.value;
  const there = lengths.flatMap((each, d) => (stands[each.from] && stands[each.to] ? [d] : []));
  const hold = { lengths: there.map((d) => lengths[d]!), uncut: there.map((d) => uncut[d]!), handling };
  const candidates = braceCandidates(frame, stands, choice);
  const nodes = [...new Set(candidates.flatMap(({ from, to }) => [from, to]))];
  const bare = Braced.of(stage.value, hold, nodes);
  const found = search(bare, candidates, most, task.progress);
  const chosen = inOrder(bare, choice.cost ? cheaper(bare, found, candidates, choice.cost) : found);
  const struts = chosen.map((brace, i) => strutOf(brace, `brace ${i}`));
  // Nothing is factorised for braces between nodes that stand.
  const bracedBy = (own: readonly Strut[]): StageResult => {
    const value = withBraces(stage.value, own);
    return value ? { ok: true, value } : stageStiffness(from, stages, [...planned, ...own]);
  };
  const braced = bracedBy(struts);
  if (!braced.ok) return failed(braced, stages);
  const rows = (of: typeof stage.value) => lengths.map((each, d) => slackOf(of, each, handling, uncut[d]!));
  const [before, after] = [rows(stage.value), rows(braced.value)];
  const missing = chosen.map((_, k) => {
    const without = bracedBy(struts.filter((__, i) => i !== k));
    return without.ok ? rows(without.value) : before;
  });
  return { ok: true, value: { ok: after.every((row) => !row || row.ok), braces: chosen, before, after, missing } };
}

const failed = ({ loose }: Extract<StageResult, { ok: false }>, stages: readonly Stage[]): BracingResult => {
  const stage = stages.at(-1)?.name;
  return { ok: false, ...(stage === undefined ? {} : { stage }), loose };
};

/** Some braces, and the state with them in. */
interface Pick {
  readonly braces: readonly BraceCandidate[];
  readonly state: Braced;
  readonly worst: number;
}

const pickOf = (bare: Braced, braces: readonly BraceCandidate[]): Pick => {
  const state = braces.reduce((each, brace) => each.with(brace), bare);
  return { braces, state, worst: Math.max(0, ...state.ratios()) };
};

const holds = ({ worst }: Pick): boolean => worst <= 1;
/** Fewer where both hold, or where neither can; before that the one that holds, and the tighter. */
const isBetter = (a: Pick, b: Pick): boolean => {
  if (holds(a) !== holds(b)) return holds(a);
  if (holds(a) && a.braces.length !== b.braces.length) return a.braces.length < b.braces.length;
  return a.worst < b.worst * (1 - 1e-9);
};

function search(
  bare: Braced,
  candidates: readonly BraceCandidate[],
  most: number,
  progress: (share: number) => void = () => undefined,
): readonly BraceCandidate[] {
  const none = pickOf(bare, []);
  if (holds(none)) return [];
  const tried = MEASURES.map((measure, i) => {
    const pick = improved(bare, greedy(bare, candidates, measure, most), candidates);
    progress((i + 1) / (MEASURES.length + 1));
    return pick;
  });
  const best = tried.reduce((kept, each) => (isBetter(each, kept) ? each : kept), none);
  return fewest(bare, best, candidates).braces;
}

/** Adds the brace that brings a measure down most, until everything holds, nothing helps or there are as many as may be. */
function greedy(bare: Braced, candidates: readonly BraceCandidate[], measure: Measure, most: number): Pick {
  let pick = pickOf(bare, []);
  while (!holds(pick) && pick.braces.length < most) {
    let [least, next] = [measure.of(pick.state.ratios()) * (1 - 1e-9), undefined as BraceCandidate | undefined];
    for (const brace of candidates) {
      if (pick.braces.includes(brace)) continue;
      // What is too much at the least is too much.
      const atLeast = pick.state.leastRatiosWith(brace, measure.most(least));
      if (!atLeast || measure.of(atLeast) >= least) continue;
      const value = measure.of(pick.state.ratiosWith(brace)!);
      if (value < least) [least, next] = [value, brace];
    }
    if (!next) break;
    const state = pick.state.with(next);
    pick = { braces: [...pick.braces, next], state, worst: Math.max(0, ...state.ratios()) };
  }
  return pick;
}

/** Takes out, puts one in place of two or exchanges one, as long as that helps. */
function improved(bare: Braced, start: Pick, candidates: readonly BraceCandidate[]): Pick {
  let pick = start;
  for (;;) {
    const next = holds(pick) ? fewer(bare, pick, candidates) : tighter(bare, pick, candidates);
    if (!next) return pick;
    pick = next;
  }
}

/** A set of one brace fewer that still holds: one taken out, or one in place of two. */
function fewer(bare: Braced, { braces, state: all }: Pick, candidates: readonly BraceCandidate[]): Pick | undefined {
  const left = braces.map((out) => all.without(out));
  for (const [k, state] of left.entries()) {
    if (Math.max(0, ...state.ratios()) > 1) continue;
    const pick = pickOf(
      bare,
      braces.filter((_, i) => i !== k),
    );
    if (holds(pick)) return pick;
  }
  for (let i = 0; i < braces.length; i++)
    for (let j = 0; j < i; j++) {
      const rest = braces.filter((_, k) => k !== i && k !== j);
      const state = left[i]!.without(braces[j]!);
      const one = candidates.find((brace) => !rest.includes(brace) && state.ratiosWith(brace, 1));
      const pick = one && pickOf(bare, [...rest, one]);
      if (pick && holds(pick)) return pick;
    }
  return undefined;
}

/** A set in which one brace is exchanged for another, with a smaller largest ratio. */
function tighter(bare: Braced, pick: Pick, candidates: readonly BraceCandidate[]): Pick | undefined {
  let best: Pick | undefined;
  let least = pick.worst * (1 - 1e-9);
  for (const out of pick.braces) {
    const rest = pick.braces.filter((each) => each !== out);
    const state = pick.state.without(out);
    for (const brace of candidates) {
      if (rest.includes(brace)) continue;
      const ratios = state.ratiosWith(brace, least);
      if (!ratios) continue;
      least = Math.max(...ratios);
      best = { braces: [...rest, brace], state, worst: least };
    }
  }
  return best && pickOf(bare, best.braces);
}

/** As many braces that hold as well, exchanged one by one for those that cost less. */
function cheaper(
  bare: Braced,
  found: readonly BraceCandidate[],
  candidates: readonly BraceCandidate[],
  cost: (brace: BraceCandidate) => number,
): readonly BraceCandidate[] {
  if (!holds(pickOf(bare, found))) return found;
  const priced = candidates.map((brace) => ({ brace, price: cost(brace) })).toSorted((a, b) => a.price - b.price);
  let braces = found;
  for (let again = true; again;) {
    again = false;
    for (const out of braces) {
      const rest = braces.filter((each) => each !== out);
      const { state } = pickOf(bare, rest);
      const price = cost(out);
      const better = priced.find(
        (each) => each.price < price * (1 - 1e-9) && !rest.includes(each.brace) && state.ratiosWith(each.brace, 1),
      );
      if (!better) continue;
      braces = [...rest, better.brace];
      again = true;
      break;
    }
  }
  return braces;
}

/** Where there are few sets of one brace fewer, all of them: the first that holds, and so on down. */
function fewest(bare: Braced, pick: Pick, candidates: readonly BraceCandidate[]): Pick {
  let best = pick;
  while (holds(best) && best.braces.length > 1) {
    const size = best.braces.length - 1;
    if (choices(candidates.length, size) > ALL_SETS) break;
    const found = anySet(bare, [], 0, size, candidates);
    if (!found) break;
    best = pickOf(bare, found);
  }
  return best;
}

function anySet(
  state: Braced,
  braces: readonly BraceCandidate[],
  from: number,
  left: number,
  candidates: readonly BraceCandidate[],
): readonly BraceCandidate[] | undefined {
  for (let i = from; i <= candidates.length - left; i++) {
    const brace = candidates[i]!;
    if (left === 1) {
      if (state.ratiosWith(brace, 1)) return [...braces, brace];
      continue;
    }
    const found = anySet(state.with(brace), [...braces, brace], i + 1, left - 1, candidates);
    if (found) return found;
  }
  return undefined;
}

const choices = (n: number, k: number): number => {
  let count = 1;
  for (let i = 0; i < k; i++) count = (count * (n - i)) / (i + 1);
  return count;
};

/** The chosen in the order that helps most first, each with how far the largest ratio falls. */
function inOrder(bare: Braced, chosen: readonly BraceCandidate[]): Bracing['braces'] {
  const left = [...chosen];
  const ordered: (BraceCandidate & { gain: number })[] = [];
  let state = bare;
  let worst = Math.max(0, ...state.ratios());
  while (left.length > 0) {
    const after = left.map((brace) => Math.max(0, ...state.ratiosWith(brace)!));
    const k = after.indexOf(Math.min(...after));
    const [brace] = left.splice(k, 1);
    ordered.push({ ...brace!, gain: worst - after[k]! });
    state = state.with(brace!);
    worst = after[k]!;
  }
  return ordered;
}
