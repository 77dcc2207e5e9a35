import {
  apart,
  joinsOf,
  lineBetween,
  pushingApart,
  weightOf,
  type Member,
  type NodeVector,
  type ShearPanel,
  type ShellFrame,
  type Strut,
} from './shell-frame';
import { displaced, factorise, timesAsStiff, withBars, type Stiffness } from './stiffness';

/** A length that must not change, between two nodes; its limit, mm. */
export interface CriticalLength {
  readonly id: string;
  readonly from: number;
  readonly to: number;
  readonly limit: number;
}

/** A cut, or a brace put in: what goes and what comes, after all stages before it. */
export interface Stage {
  readonly name: string;
  readonly remove: readonly string[];
  readonly add: readonly Member[];
}

export const MOVING_AXES = ['X', 'Y', 'Z'] as const;

/** How a length gives, mm; first order: the relative displacement of its ends along their line. */
export interface Slack {
  readonly length: number;
  /** When its two ends are pushed apart along their line. */
  readonly push: number;
  /** The change of largest size from one force at any node along an axis, and where. */
  readonly worst: number;
  readonly node: number;
  readonly axis: (typeof MOVING_AXES)[number];
  /** Under the shell's own weight, less the same in the uncut shell. */
  readonly sag: number;
  readonly ok: boolean;
}

export interface StageSlack {
  readonly name: string;
  /** One a length; undefined where an end of it is gone. */
  readonly lengths: readonly (Slack | undefined)[];
}

export type SlackResult =
  | { readonly ok: true; readonly stages: readonly StageSlack[] }
  /** A stage, or the shell before the first, in which some nodes are held by nothing. */
  | { readonly ok: false; readonly stage?: string; readonly loose: readonly string[] };

/** What stands in a stage: a frame whose loose pieces were dropped, and which of the whole shell's nodes are in it. */
export interface StandingFrame {
  readonly frame: ShellFrame;
  readonly stands: readonly boolean[];
}

/** The frame at a stage, with everything removed and added up to and with it. */
export function frameAt(frame: ShellFrame, stages: readonly Stage[]): ShellFrame {
  let { members, panels }: { members: readonly Member[]; panels: readonly ShearPanel[] } = frame;
  for (const { remove, add } of stages) {
    const gone = new Set(remove);
    members = [...members.filter(({ id }) => !gone.has(id)), ...add];
    panels = panels.filter(({ id }) => !gone.has(id));
  }
  return { ...frame, members, panels };
}

/** Drops nodes that nothing is left at, and pieces that hang together but on no support. */
export function standing(frame: ShellFrame): StandingFrame {
  const piece = frame.nodes.map((_, i) => i);
  const root = (i: number): number => {
    let at = i;
    while (piece[at] !== at) at = piece[at] = piece[piece[at]!]!;
    return at;
  };
  const joined = new Set<number>();
  for (const [first, ...others] of joinsOf(frame)) {
    joined.add(first!);
    for (const other of others) {
      joined.add(other);
      piece[root(other)] = root(first!);
    }
  }
  const held = new Set(frame.supports.flatMap(({ node, fix }) => (fix.length > 0 ? [root(node)] : [])));
  const stands = frame.nodes.map((_, i) => joined.has(i) && held.has(root(i)));
  const within = (nodes: readonly number[]) => nodes.every((node) => stands[node]);
  return {
    stands,
    frame: {
      nodes: frame.nodes,
      members: frame.members.filter(({ from, to }) => within([from, to])),
      struts: frame.struts.filter(({ from, to }) => within([from, to])),
      panels: frame.panels.filter(({ nodes }) => within(nodes)),
      // Nodes that do not stand are put aside: they take no part in anything.
      supports: [
        ...frame.supports.filter(({ node }) => stands[node]),
        ...stands.flatMap((there, node) => (there ? [] : [{ node, fix: ['x', 'y', 'z'] as const }])),
      ],
    },
  };
}

/** A stage factorised: what a length's slack is read off. */
export interface StageStiffness extends StandingFrame {
  readonly stiffness: Stiffness;
  /** Displacements under its own weight. */
  readonly sagged: NodeVector;
}

export type StageResult =
  { readonly ok: true; readonly value: StageStiffness } | { readonly ok: false; readonly loose: readonly string[] };

export function stageStiffness(
  frame: ShellFrame,
  stages: readonly Stage[],
  struts: readonly Strut[] = [],
): StageResult {
  const there = standing({ ...frameAt(frame, stages), struts });
  if (!there.stands.some((stands) => stands)) return { ok: false, loose: frame.nodes.map(({ id }) => id) };
  const result = factorise(there.frame);
  if (!result.ok) return result;
  const sagged = displaced(result.stiffness, weightOf(there.frame));
  return { ok: true, value: { ...there, stiffness: result.stiffness, sagged } };
}

/** A stage whose every part, its struts too, is so many times as stiff, and no heavier. */
export function stageTimesAsStiff({ stands, stiffness, sagged }: StageStiffness, times: number): StageStiffness {
  const stiffer = timesAsStiff(stiffness, times);
  return { stands, stiffness: stiffer, frame: stiffer.frame, sagged: sagged.map((each) => each / times) };
}

/** A stage with braces put in between nodes that stand, without factorising it again; undefined where one does not. */
export function withBraces(stage: StageStiffness, struts: readonly Strut[]): StageStiffness | undefined {
  const { stands } = stage;
  if (!struts.every(({ from, to }) => stands[from] && stands[to])) return undefined;
  const stiffness = withBars(stage.stiffness, struts);
  return { stands, stiffness, frame: stiffness.frame, sagged: displaced(stiffness, weightOf(stiffness.frame)) };
}

/**
 * How a length gives in a stage. By reciprocity (Maxwell 1864, Betti 1872) the displacements under unit forces that push its
 * ends apart are at once its change under a unit force at any node and axis.
 *
 * @param handling N
 * @param uncut    the same length's change under the weight of the shell before it was cut, mm
 */
export function slackOf(
  { frame, stands, stiffness, sagged }: StageStiffness,
  { from, to, limit }: CriticalLength,
  handling: number,
  uncut: number,
): Slack | undefined {
  if (!stands[from] || !stands[to]) return undefined;
  const unit = displaced(stiffness, pushingApart(frame, from, to));
  const figures = {
    length: lineBetween(frame, from, to).length,
    push: handling * apart(frame, from, to, unit),
    ...worstOf(unit, stands, handling),
    sag: apart(frame, from, to, sagged) - uncut,
  };
  return { ...figures, ok: isWithin(figures, limit) };
}

export const isWithin = ({ push, worst, sag }: Pick<Slack, 'push' | 'worst' | 'sag'>, limit: number): boolean =>
  Math.max(Math.abs(push), Math.abs(worst), Math.abs(sag)) <= limit;

function worstOf(
  unit: NodeVector,
  stands: readonly boolean[],
  handling: number,
): Pick<Slack, 'worst' | 'node' | 'axis'> {
  let [best, at] = [-1, 0];
  stands.forEach((there, node) => {
    if (!there) return;
    for (let k = 0; k < 3; k++)
      if (Math.abs(unit[6 * node + k]!) > best) {
        at = 6 * node + k;
        best = Math.abs(unit[at]!);
      }
  });
  return { worst: handling * unit[at]!, node: Math.floor(at / 6), axis: MOVING_AXES[at % 6]! };
}

/** How every length gives at every stage. */
export function slackByStage(
  frame: ShellFrame,
  stages: readonly Stage[],
  lengths: readonly CriticalLength[],
  handling: number,
): SlackResult {
  const whole = stageStiffness(frame, []);
  if (!whole.ok) return whole;
  const uncut = sagOf(whole.value, lengths);
  const told: StageSlack[] = [];
  for (let k = 0; k < stages.length; k++) {
    const { name } = stages[k]!;
    const stage = stageStiffness(frame, stages.slice(0, k + 1));
    if (!stage.ok) return { ok: false, stage: name, loose: stage.loose };
    told.push({ name, lengths: lengths.map((each, i) => slackOf(stage.value, each, handling, uncut[i]!)) });
  }
  return { ok: true, stages: told };
}

/** How far each length changes under the shell's own weight, mm; 0 where an end does not stand. */
export const sagOf = ({ frame, stands, sagged }: StageStiffness, lengths: readonly CriticalLength[]): number[] =>
  lengths.map(({ from, to }) => (stands[from] && stands[to] ? apart(frame, from, to, sagged) : 0));
