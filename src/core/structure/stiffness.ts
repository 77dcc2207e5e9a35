import { minimumDegree } from '../maths/linear/minimum-degree';
import { BlockFactor } from '../maths/linear/block-factor';
import { inner } from '../maths/linear/inner';
import { Symmetric, type SymmetricFactor } from '../maths/linear/symmetric';
import { eachBlock, type TakeBlock } from './elements';
import {
  couplingsOf,
  FREEDOMS,
  lineBetween,
  pushingApart,
  type Material,
  type NodeVector,
  type ShellFrame,
  type Strut,
} from './shell-frame';

/** A frame with its stiffness matrix factorised: loads become displacements at once. */
export interface Stiffness {
  readonly frame: ShellFrame;
  readonly factor: BlockFactor;
  /** Number of each freedom of each node in the order of elimination; −1 where it is fixed or nothing turns with it. */
  readonly equation: Int32Array;
  /** So many times as stiff as what was factorised. */
  readonly times: number;
  /** Bars that were put in since. */
  readonly bars?: Bars;
}

/** Bars in a frame that was factorised without them. */
interface Bars {
  /** Unit forces that push the ends of each apart. */
  readonly lines: readonly NodeVector[];
  /** What the frame without them answers to these, mm/N. */
  readonly answers: readonly NodeVector[];
  /** Of each pair how far the one opens under a unit force in the other, and how far each gives itself. */
  readonly gives: SymmetricFactor;
}

/** What a frame is factorised to; or the nodes that nothing holds. */
export type StiffnessResult =
  { readonly ok: true; readonly stiffness: Stiffness } | { readonly ok: false; readonly loose: readonly string[] };

/** Some freedom of a node without resistance moves it, once the direction's largest is 1. */
const MOVES = 1e-6;

/**
 * Assembles and factorises the stiffness matrix of a frame (direct stiffness method, e.g. McGuire, Gallagher and Ziemian,
 * Matrix Structural Analysis, ch. 4 and 5). Nodes are eliminated in an order of minimum degree, all freedoms of one
 * together. A node that no member joins has no freedom to turn.
 */
export function factorise(frame: ShellFrame): StiffnessResult {
  const count = frame.nodes.length;
  const neighbours: number[][] = frame.nodes.map(() => []);
  for (const [a, b] of couplingsOf(frame)) {
    neighbours[a]!.push(b);
    neighbours[b]!.push(a);
  }
  const order = minimumDegree(count, neighbours);
  const at = new Int32Array(count);
  order.forEach((node, k) => (at[node] = k));
  const unknown = unknownFreedoms(frame);
  const widths = Int32Array.from(order, (node) =>
    unknown.subarray(6 * node, 6 * node + 6).reduce((sum, each) => sum + each, 0),
  );
  const factor = new BlockFactor({
    widths,
    neighbours: Array.from(order, (node) => neighbours[node]!.map((other) => at[other]!)),
  });
  // The number of each unknown in its own node, and in the whole.
  const own = new Int32Array(6 * count).fill(-1);
  const equation = new Int32Array(6 * count).fill(-1);
  for (let node = 0; node < count; node++)
    for (let i = 6 * node, next = 0; i < 6 * node + 6; i++)
      if (unknown[i]) {
        own[i] = next;
        equation[i] = factor.first[at[node]!]! + next++;
      }
  eachBlock(frame, assembler(factor, at, own));
  const free = factor.factorise();
  if (free.length > 0) return { ok: false, loose: looseNodes(frame, equation, free) };
  return { ok: true, stiffness: { frame, factor, equation, times: 1 } };
}

/** Displacements of all nodes under a load, mm and rad. */
export function displaced(stiffness: Stiffness, load: NodeVector): NodeVector {
  const moved = solved(stiffness, load);
  const { bars } = stiffness;
  if (!bars) return moved;
  const opened = Float64Array.from(bars.lines, (line) => inner(line, moved));
  const forces = bars.gives.solve(opened);
  bars.answers.forEach((answer, b) => {
    for (let i = 0; i < moved.length; i++) moved[i]! -= forces[b]! * answer[i]!;
  });
  return moved;
}

/**
 * The same frame with pin-ended bars put in between nodes that stand, at the cost of one solution a bar: with B their lines, k their
 * stiffnesses and Z = K⁻¹ B, a load's displacements u become u − Z (k⁻¹ + BᵀZ)⁻¹ Bᵀu (Woodbury 1950).
 *
 * @throws where bars were put in before: they are put in all at once
 */
export function withBars(stiffness: Stiffness, struts: readonly Strut[]): Stiffness {
  const { frame } = stiffness;
  if (stiffness.bars) throw new Error('bars are put into a frame all at once');
  const lines = struts.map(({ from, to }) => pushingApart(frame, from, to));
  const answers = lines.map((line) => displaced(stiffness, line));
  const gives = Symmetric.zeros(struts.length);
  struts.forEach(({ from, to, A, E }, i) => {
    for (let j = 0; j <= i; j++) gives.set(i, j, inner(lines[i]!, answers[j]!));
    gives.set(i, i, gives.get(i, i) + lineBetween(frame, from, to).length / (E * A));
  });
  return {
    ...stiffness,
    frame: { ...frame, struts: [...frame.struts, ...struts] },
    bars: { lines, answers, gives: gives.factor()! },
  };
}

/** The largest force, N, that so much at any freedom of any node brings into each bar that was put in. */
export function largestInBars({ bars, equation }: Stiffness, force: number): number[] {
  const largest = bars?.lines.map(() => 0) ?? [];
  if (!bars) return largest;
  for (let i = 0; i < equation.length; i++) {
    if (equation[i]! < 0 || i % 6 > 2) continue;
    const forces = bars.gives.solve(Float64Array.from(bars.answers, (answer) => answer[i]!));
    forces.forEach((each, b) => (largest[b] = Math.max(largest[b]!, force * Math.abs(each))));
  }
  return largest;
}

/** Of what was factorised, without bars that were put in since. */
function solved({ factor, equation, times }: Stiffness, load: NodeVector): NodeVector {
  const x = new Float64Array(factor.size);
  for (let i = 0; i < equation.length; i++) if (equation[i]! >= 0) x[equation[i]!] = load[i]! / times;
  factor.solve(x);
  const moved = new Float64Array(equation.length);
  for (let i = 0; i < equation.length; i++) if (equation[i]! >= 0) moved[i] = x[equation[i]!]!;
  return moved;
}

/** The same with everything in it so many times as stiff: it gives as much less, and nothing is factorised for that. */
export function timesAsStiff(stiffness: Stiffness, times: number): Stiffness {
  const stiffer = <Part extends Pick<Material, 'E'>>(part: Part): Part => ({ ...part, E: part.E * times });
  const { members, panels, struts, ...frame } = stiffness.frame;
  return {
    ...stiffness,
    times: stiffness.times * times,
    frame: {
      ...frame,
      members: members.map((member) => ({ ...stiffer(member), G: member.G * times })),
      panels: panels.map((panel) => ({ ...stiffer(panel), G: panel.G * times })),
      struts: struts.map(stiffer),
    },
  };
}

/** Which freedoms of each node are unknowns: those that are not fixed, and turns only where a member joins. */
function unknownFreedoms({ nodes, members, supports }: ShellFrame): Uint8Array {
  const unknown = new Uint8Array(6 * nodes.length);
  nodes.forEach((_, i) => unknown.fill(1, 6 * i, 6 * i + 3));
  for (const { from, to } of members) for (const node of [from, to]) unknown.fill(1, 6 * node + 3, 6 * node + 6);
  for (const { node, fix } of supports) for (const freedom of fix) unknown[6 * node + FREEDOMS.indexOf(freedom)] = 0;
  return unknown;
}

/** Puts blocks of the whole matrix where the factor keeps them: the lower triangle, by the order of elimination. */
function assembler(factor: BlockFactor, at: Int32Array, own: Int32Array): TakeBlock {
  return (a, b, block) => {
    const isLower = at[a]! >= at[b]!;
    const [row, column] = isLower ? [a, b] : [b, a];
    const { panel, start, stride } = factor.place(at[row]!, at[column]!);
    // How far apart elements of one row of it, and of one column, are in the block as it came.
    const [down, across] = isLower ? [6, 1] : [1, 6];
    // Nearly all nodes are free in all six.
    const isWhole = stride === 6 && own[6 * row + 5] === 5;
    for (let i = 0; i < 6; i++) {
      const r = isWhole ? i : own[6 * row + i]!;
      if (r < 0) continue;
      const last = row === column ? r : 5;
      const to = start + r * stride;
      if (isWhole) for (let j = 0, from = i * down; j <= last; j++, from += across) panel[to + j]! += block[from]!;
      else
        for (let j = 0; j < 6; j++) {
          const c = own[6 * column + j]!;
          if (c >= 0 && c <= last) panel[to + c]! += block[i * down + j * across]!;
        }
    }
  };
}

function looseNodes({ nodes }: ShellFrame, equation: Int32Array, free: readonly Float64Array[]): string[] {
  const loose = new Set<number>();
  for (const direction of free) {
    const most = direction.reduce((best, value) => Math.max(best, Math.abs(value)), 0);
    equation.forEach((e, i) => {
      if (e >= 0 && Math.abs(direction[e]!) > MOVES * most) loose.add(Math.floor(i / 6));
    });
  }
  return nodes.filter((_, i) => loose.has(i)).map(({ id }) => id);
}
