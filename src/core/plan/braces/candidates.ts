import type { Vector } from '../../maths/geometry/vector';
import { barMass, GRAVITY, lineBetween, STEEL, type ShellFrame } from '../../structure/shell-frame';

/** A box that no brace may touch: frame axes, mm. */
export interface KeepOut {
  readonly min: Vector;
  readonly max: Vector;
}

/** Between which nodes a brace may be put, and of what. */
export interface BraceChoice {
  readonly nodes: readonly number[];
  /** Area of the tube, mm². */
  readonly area: number;
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
  { nodes, area, maxLength = Infinity, forbid, keepOut }: BraceChoice,
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
      const stiffness = (STEEL.E * area) / length;
      return [{ from, to, length, along, stiffness, weight: barMass(STEEL.density, area, length) * GRAVITY }];
    }),
  );
}

/** Whether a line between two places touches a box, its faces too (slabs: Kay and Kajiya 1986). */
export function touches({ min, max }: KeepOut, a: Vector, b: Vector): boolean {
  let [enters, leaves] = [0, 1];
  for (let k = 0; k < 3; k++) {
    const by = b[k]! - a[k]!;
    if (by === 0) {
      if (a[k]! < min[k]! || a[k]! > max[k]!) return false;
      continue;
    }
    const [p, q] = [(min[k]! - a[k]!) / by, (max[k]! - a[k]!) / by];
    enters = Math.max(enters, Math.min(p, q));
    leaves = Math.min(leaves, Math.max(p, q));
  }
  return enters <= leaves;
}
