import { pushingApart } from '../../structure/shell-frame';
import type { StageStiffness } from '../../structure/slack';
import { displaced } from '../../structure/stiffness';
import type { CutModel } from './cut-model';
import { givesAfter, HANDLING, stiffnessAfter, type Give } from './worked-stages';

export type SlackWord = 'tight' | 'loose' | 'free';

/** How far a length gives after a stage, over the range in which the shell's stiffness is known; mm. */
export interface SlackRange {
  readonly low: number;
  readonly usual: number;
  readonly high: number;
  /** At the stiffest and at the softest that the shell can be. */
  readonly words: readonly [SlackWord, SlackWord];
}

export interface SlackRow {
  readonly lengthId: string;
  readonly code: string;
  readonly name: string;
  readonly limit: number;
  /** The points of its ends. */
  readonly pointIds: readonly string[];
  /** In the shell before anything is cut. */
  readonly whole?: SlackRange;
  /** After each stage; `gone` where an end of it left with the metal. */
  readonly stages: readonly SlackCell[];
}

export interface SlackCell {
  readonly bare?: SlackRange;
  readonly braced?: SlackRange;
}

export interface StageState {
  readonly stageId: string;
  readonly name: string;
  /** Places that nothing holds any more though metal is left at them: a part that falls off. */
  readonly loosePart: readonly string[];
  /** A part that is held but can swing about its joints. */
  readonly mechanism: readonly string[];
  /** The length that the cut set loose most for its limit, and how the whole shell moves when it does; without braces and with them. */
  readonly loosest?: Loosest;
  readonly loosestBraced?: Loosest;
}

export interface Loosest {
  readonly lengthId: string;
  /** Displacement of each node for the hand's force that pushes its ends apart, three a node, mm. */
  readonly shape: readonly number[];
}

export interface SlackTable {
  readonly rows: readonly SlackRow[];
  readonly states: readonly StageState[];
}

/** Ten times as far as it may is free. */
const FREE = 10;
const wordOf = (give: number, limit: number): SlackWord =>
  give <= limit ? 'tight' : give <= FREE * limit ? 'loose' : 'free';

const largest = (give: Give): number => Math.max(give.hand, Math.abs(give.sag));

/** How a length gives, from how it does in the stiffest shell there can be, in the likeliest and in the softest. */
export function slackRange(limit: number, gives: readonly (Give | undefined)[]): SlackRange | undefined {
  const [stiff, mean, soft] = gives;
  if (!stiff || !mean || !soft) return undefined;
  const [least, most] = [largest(stiff), largest(soft)].toSorted((a, b) => a - b) as [number, number];
  return { low: least, usual: largest(mean), high: most, words: [wordOf(least, limit), wordOf(most, limit)] };
}

/** How every length gives after every stage, with the braces of the plan and without. */
export function slackTable(cut: CutModel): SlackTable {
  const { low, usual, high } = cut.stiffness;
  // The stiffest shell gives least.
  const at = [high, usual, low].map((stiffness) => ({
    whole: givesAfter(cut, -1, stiffness, false),
    stages: cut.stages.map((_, k) => ({
      bare: givesAfter(cut, k, stiffness, false),
      braced: givesAfter(cut, k, stiffness, true),
    })),
  }));
  const rangeOf = (
    limit: number,
    d: number,
    of: (each: (typeof at)[number]) => readonly (Give | undefined)[] | undefined,
  ) =>
    slackRange(
      limit,
      at.map((each) => of(each)?.[d]),
    );
  const rows = cut.lengths.map(({ id, code, name, limit, from, to }, d): SlackRow => {
    const pointIds = [from, to].flatMap((node) => cut.structure.model.nodes[node]!.pointId ?? []);
    const whole = rangeOf(limit, d, (each) => each.whole);
    return {
      ...{ lengthId: id, code, name, limit, pointIds },
      ...(whole ? { whole } : {}),
      stages: cut.stages.map((_, k): SlackCell => {
        const bare = rangeOf(limit, d, (each) => each.stages[k]!.bare);
        const braced = rangeOf(limit, d, (each) => each.stages[k]!.braced);
        return { ...(bare ? { bare } : {}), ...(braced ? { braced } : {}) };
      }),
    };
  });
  return { rows, states: cut.stages.map((_, k) => stateOf(cut, k, rows)) };
}

function stateOf(cut: CutModel, stage: number, rows: readonly SlackRow[]): StageState {
  const { id, name } = cut.stages[stage]!;
  const { usual } = cut.stiffness;
  const [bare, braced] = [false, true].map((with_) => stiffnessAfter(cut, stage, usual, with_));
  const loosest = bare!.ok ? loosestIn(cut, bare!.value, rows, (row) => row.stages[stage]!.bare) : undefined;
  const held = braced!.ok ? loosestIn(cut, braced!.value, rows, (row) => row.stages[stage]!.braced) : undefined;
  return {
    ...{ stageId: id, name },
    loosePart: bare!.ok ? unheld(cut, bare!.value) : [],
    mechanism: bare!.ok ? [] : bare!.loose,
    ...(loosest ? { loosest } : {}),
    ...(held ? { loosestBraced: held } : {}),
  };
}

/** Nodes that still have metal but hang on nothing. */
function unheld({ structure, stages }: CutModel, { stands }: StageStiffness): string[] {
  const left = stages.at(-1)?.left;
  return structure.model.nodes.flatMap(({ code }, node) => {
    const hasMetal = structure.model.members.some(
      (member) => (member.from === node || member.to === node) && (left?.get(member.code) ?? 1) > 0,
    );
    return !stands[node] && hasMetal ? [code] : [];
  });
}

/** By less than this nothing was set loose, mm. */
const NOTICED = 0.02;

function loosestIn(
  cut: CutModel,
  { frame, stiffness }: StageStiffness,
  rows: readonly SlackRow[],
  rangeOf: (row: SlackRow) => SlackRange | undefined,
): Loosest | undefined {
  // What gave as much before is none of the cut's doing.
  const more = (row: SlackRow) => (rangeOf(row)?.usual ?? 0) - (row.whole?.usual ?? 0);
  let best: SlackRow | undefined;
  for (const row of rows)
    if (more(row) > NOTICED && (!best || more(row) / row.limit > more(best) / best.limit)) best = row;
  if (!best) return undefined;
  const length = cut.lengths.find(({ id }) => id === best.lengthId)!;
  const moved = displaced(stiffness, pushingApart(frame, length.from, length.to));
  const shape = cut.structure.model.nodes.flatMap((_, i) => [0, 1, 2].map((k) => HANDLING * moved[6 * i + k]!));
  return { lengthId: best.lengthId, shape };
}
