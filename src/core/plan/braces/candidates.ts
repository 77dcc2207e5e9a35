import type { Vector } from '../../maths/geometry/vector';
import { barMass, GRAVITY, lineBetween, STEEL, type ShellFrame, type Strut } from '../../structure/shell-frame';

/** A box that no brace may touch: frame axes, mm. */
export interface KeepOut {
  readonly min: Vector;
  readonly max: Vector;
  /** The straight way it is swept along, where it moves. */
  readonly move?: Vector;
}

/** Between which nodes a brace may be put, and of what. */
export interface BraceChoice {
  readonly nodes: readonly number[];
  /** Area of the tube for a brace of this length, mm². */
  readonly area: (length: number) => number;
  /** Stiffness of what an end sits on, N/mm; a rigid one is `Infinity`. */
  readonly end?: (node: number) => number;
  /** Of as many braces that hold as well, those that cost least are chosen; without it any. */
  readonly cost?: (brace: BraceCandidate) => number;
  readonly maxLength?: number;
  readonly forbid: readonly (readonly [number, number])[];
  readonly keepOut: readonly KeepOut[];
}

/** A brace that could be put in. */
export interface BraceCandidate {
  readonly from: number;
  readonly to: number;
  readonly length: number;
  /** From one end to the other, a unit vector. */
  readonly along: Vector;
  /** E·A/L, N/mm. */
  readonly stiffness: number;
  /** N */
  readonly weight: number;
}

const ONE_SPOT = 1e-9;

/**
 * Every brace that is allowed between nodes that stand: short enough, not forbidden in either direction, and clear of all
 * boxes along its whole line.
 */
export function braceCandidates(
  frame: ShellFrame,
  stands: readonly boolean[],
  { nodes, area, end = () => Infinity, maxLength = Infinity, forbid, keepOut }: BraceChoice,
): BraceCandidate[] {
  const there = [...new Set(nodes)].filter((node) => stands[node]);
  const pair = (a: number, b: number) => `${Math.min(a, b)} ${Math.max(a, b)}`;
  const forbidden = new Set(forbid.map(([a, b]) => pair(a, b)));
  return there.flatMap((from, i) =>
    there.slice(i + 1).flatMap((to): BraceCandidate[] => {
      const { length, along } = lineBetween(frame, from, to);
      if (length > maxLength || length <= ONE_SPOT || forbidden.has(pair(from, to))) return [];
      const [a, b] = [frame.nodes[from]!.at, frame.nodes[to]!.at];
      if (keepOut.some((box) => touches(box, a, b))) return [];
      const tube = area(length);
      const stiffness = inSeries((STEEL.E * tube) / length, end(from), end(to));
      return [{ from, to, length, along, stiffness, weight: barMass(STEEL.density, tube, length) * GRAVITY }];
    }),
  );
}

/** Springs one behind the other: a brace is no stiffer than its ends. */
export const inSeries = (...springs: readonly number[]): number =>
  1 / springs.reduce((sum, stiffness) => sum + 1 / stiffness, 0);

/** A brace as the pin-ended bar that is as stiff, its ends included, and weighs as much. */
export function strutOf({ from, to, length, stiffness, weight }: BraceCandidate, id: string): Strut {
  const A = (stiffness * length) / STEEL.E;
  return { id, from, to, A, E: STEEL.E, density: weight / GRAVITY / barMass(1, A, length) };
}

/**
 * Whether a line between two places touches a box, its faces too, anywhere along the box's way. The line is a + t·(b − a) and
 * the box stands s along its move, both 0 … 1: each of its six faces leaves a half plane of (s, t), and what is left of the
 * unit square is clipped by one after the other (Sutherland and Hodgman 1974).
 */
export function touches({ min, max, move = [0, 0, 0] }: KeepOut, a: Vector, b: Vector): boolean {
  let left: readonly (readonly [s: number, t: number])[] = [
    [0, 0],
    [1, 0],
    [1, 1],
    [0, 1],
  ];
  for (let k = 0; k < 3; k++) {
    const by = b[k]! - a[k]!;
    // Over the lower face and under the upper one: at least nothing of these.
    left = clipped(left, (s, t) => a[k]! + t * by - s * move[k]! - min[k]!);
    left = clipped(left, (s, t) => max[k]! - (a[k]! + t * by - s * move[k]!));
  }
  return left.length > 0;
}

function clipped(
  outline: readonly (readonly [number, number])[],
  over: (s: number, t: number) => number,
): readonly (readonly [number, number])[] {
  return outline.flatMap((here, i) => {
    const next = outline[(i + 1) % outline.length]!;
    const [p, q] = [over(...here), over(...next)];
    const share = p / (p - q);
    const crossing = [here[0] + share * (next[0] - here[0]), here[1] + share * (next[1] - here[1])] as const;
    return [...(p >= 0 ? [here] : []), ...(p * q < 0 ? [crossing] : [])];
  });
}
