import { minimumDegree } from '../maths/linear/minimum-degree';
import { SparseFactor, type SparseSymmetric } from '../maths/linear/sparse-symmetric';
import { eachElement, type TakeElement } from './elements';
import { couplingsOf, FREEDOMS, type NodeVector, type ShellFrame } from './shell-frame';

/** A frame with its stiffness matrix factorised: loads become displacements at once. */
export interface Stiffness {
  readonly frame: ShellFrame;
  readonly factor: SparseFactor;
  /** Number of each freedom of each node in the order of elimination; −1 where it is fixed or nothing turns with it. */
  readonly equation: Int32Array;
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
  const { nodes } = frame;
  const neighbours: number[][] = nodes.map(() => []);
  for (const [a, b] of couplingsOf(frame)) {
    neighbours[a]!.push(b);
    neighbours[b]!.push(a);
  }
  const order = minimumDegree(nodes.length, neighbours);
  const equation = numbered(frame, order);
  const pattern = patternOf(equation, order, neighbours);
  eachElement(frame, pattern.add);
  const factor = new SparseFactor(pattern.matrix);
  if (factor.free.length > 0) return { ok: false, loose: looseNodes(frame, equation, factor.free) };
  return { ok: true, stiffness: { frame, factor, equation } };
}

/** Displacements of all nodes under a load, mm and rad. */
export function displaced({ factor, equation }: Stiffness, load: NodeVector): NodeVector {
  const x = new Float64Array(factor.size);
  equation.forEach((e, i) => {
    if (e >= 0) x[e] = load[i]!;
  });
  factor.solve(x);
  return Float64Array.from(equation, (e) => (e < 0 ? 0 : x[e]!));
}

function numbered({ nodes, members, supports }: ShellFrame, order: Int32Array): Int32Array {
  const turns = new Uint8Array(nodes.length);
  for (const { from, to } of members) turns[from] = turns[to] = 1;
  const equation = new Int32Array(6 * nodes.length);
  nodes.forEach((_, i) => {
    if (!turns[i]) equation.fill(-1, 6 * i + 3, 6 * i + 6);
  });
  for (const { node, fix } of supports) for (const freedom of fix) equation[6 * node + FREEDOMS.indexOf(freedom)] = -1;
  let next = 0;
  for (const node of order) for (let i = 6 * node; i < 6 * node + 6; i++) if (equation[i] !== -1) equation[i] = next++;
  return equation;
}

/** An empty matrix whose pattern joins all freedoms of neighbouring nodes, and where an element of it is kept. */
interface Pattern {
  readonly matrix: SparseSymmetric;
  readonly add: TakeElement;
}

function patternOf(equation: Int32Array, order: Int32Array, neighbours: readonly (readonly number[])[]): Pattern {
  const count = order.length;
  const at = new Int32Array(count);
  order.forEach((node, k) => (at[node] = k));
  const own = (node: number) => [0, 1, 2, 3, 4, 5].map((d) => equation[6 * node + d]!).filter((e) => e >= 0);
  const size = order.reduce((sum, node) => sum + own(node).length, 0);
  const starts = new Int32Array(size + 1);
  const rows: number[] = [];
  // Where, in a column of a node, the rows of each earlier neighbour begin.
  const begins: Map<number, number>[] = Array.from({ length: count }, () => new Map<number, number>());
  for (const node of order) {
    const earlier = [...new Set(neighbours[node])].filter((other) => at[other]! < at[node]!);
    earlier.sort((a, b) => at[a]! - at[b]!);
    const above: number[] = [];
    for (const other of earlier) {
      begins[node]!.set(other, above.length);
      above.push(...own(other));
    }
    begins[node]!.set(node, above.length);
    const mine = own(node);
    mine.forEach((column, k) => {
      starts[column] = rows.length;
      for (const row of above) rows.push(row);
      for (let r = 0; r <= k; r++) rows.push(mine[r]!);
    });
  }
  starts[size] = rows.length;
  const values = new Float64Array(rows.length);
  const first = new Int32Array(count).fill(-1);
  for (let node = 0; node < count; node++) {
    const [least] = own(node);
    if (least !== undefined) first[node] = least;
  }
  const add: TakeElement = (i, j, value) => {
    const [a, b] = [equation[i]!, equation[j]!];
    if (a < 0 || b < 0 || a > b) return;
    const [above, node] = [Math.floor(i / 6), Math.floor(j / 6)];
    values[starts[b]! + begins[node]!.get(above)! + a - first[above]!]! += value;
  };
  return { matrix: { size, starts, rows: Int32Array.from(rows), values }, add };
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
