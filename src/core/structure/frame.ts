import { forcesOf } from './elements';
import { massOf, weightOf, type NodeVector, type ShellFrame } from './shell-frame';
import { displaced, factorise, type Stiffness } from './stiffness';

/** A frame under load. */
export interface LoadedFrame {
  readonly moved: NodeVector;
  /** What each support exerts on the frame, six a support in the order of these: N and N·mm. */
  readonly reactions: readonly Float64Array[];
  readonly mass: number;
}

export type FrameResult =
  | { readonly ok: true; readonly value: LoadedFrame }
  /** Nothing holds these nodes, or nothing carries the moment put on them. */
  | { readonly ok: false; readonly why: 'loose' | 'moment'; readonly nodes: readonly string[] };

/**
 * Displacements and reactions of a frame under loads and, if asked, its own weight.
 *
 * @param load on all nodes, N and N·mm
 */
export function solveFrame(frame: ShellFrame, load: NodeVector, gravity: boolean): FrameResult {
  const result = factorise(frame);
  if (!result.ok) return { ok: false, why: 'loose', nodes: result.loose };
  const { stiffness } = result;
  const idle = momentsOnNothing(frame, stiffness, load);
  if (idle.length > 0) return { ok: false, why: 'moment', nodes: idle };
  const weight = gravity ? weightOf(frame) : undefined;
  const whole = weight ? load.map((value, i) => value + weight[i]!) : load;
  const moved = displaced(stiffness, whole);
  return { ok: true, value: { moved, reactions: reactionsOf(frame, moved, whole), mass: massOf(frame) } };
}

/** Nodes that a moment is put on though no member and no support there can carry it. */
function momentsOnNothing(
  { nodes, members, supports }: ShellFrame,
  { equation }: Stiffness,
  load: NodeVector,
): string[] {
  const joined = new Set(members.flatMap(({ from, to }) => [from, to]));
  const holds = (node: number, k: number) =>
    supports.some((support) => support.node === node && support.fix.includes((['rx', 'ry', 'rz'] as const)[k]!));
  return nodes.flatMap(({ id }, node) =>
    !joined.has(node) &&
    [0, 1, 2].some((k) => load[6 * node + 3 + k] !== 0 && equation[6 * node + 3 + k]! < 0 && !holds(node, k))
      ? [id]
      : [],
  );
}

/** The forces of all parts on their nodes less the loads there, at what is fixed. */
export function reactionsOf(frame: ShellFrame, moved: NodeVector, load: NodeVector): Float64Array[] {
  const held = new Set(frame.supports.map(({ node }) => node));
  const isHeld = (nodes: readonly number[]) => nodes.some((node) => held.has(node));
  // What stands on no support asks nothing of one.
  const beside = {
    ...frame,
    members: frame.members.filter(({ from, to }) => isHeld([from, to])),
    struts: frame.struts.filter(({ from, to }) => isHeld([from, to])),
    panels: frame.panels.filter(({ nodes }) => isHeld(nodes)),
  };
  const forces = forcesOf(beside, moved);
  return frame.supports.map(({ node, fix }) =>
    Float64Array.from({ length: 6 }, (_, k) => {
      const i = 6 * node + k;
      return fix.includes((['x', 'y', 'z', 'rx', 'ry', 'rz'] as const)[k]!) ? forces[i]! - load[i]! : 0;
    }),
  );
}
