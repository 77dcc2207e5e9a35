import { norm, scale, type Vector } from '../../maths/geometry/vector';
import { reactionsOf } from '../../structure/frame';
import { displaced } from '../../structure/stiffness';
import type { HeldPlace, PullModel } from './pull-model';
import { loadOf, sharesOf, type PullAt } from './try-pull';

/** What one place that is held gives back against a pull. */
export interface Reaction {
  readonly node: number;
  readonly hold?: HeldPlace['hold'];
  /** Newtons for each newton of the pull, chart axes, on the shell. */
  readonly share: Vector;
  readonly size: number;
  /** The pull at which it bears what it is rated for, N; absent where nobody said. */
  readonly bearsUpTo?: number;
}

/** The forces of a pull and of what holds against it. */
export interface RigForces {
  /** Angle of the force above the datum plane, and in plan from straight rearward to the right, degrees. */
  readonly rise: number;
  readonly heading: number;
  /** Newtons each newton lifts the shell, lengthwise and sideways: the parts of its direction. */
  readonly parts: Vector;
  readonly reactions: readonly Reaction[];
  /** What of the pull's force and moment the reactions do not balance: nothing but rounding. */
  readonly unbalanced: number;
  /** The pull must never be harder than this, N: at it the first of chain, clamp, anchor and holds bears what it may. */
  readonly never?: { readonly newtons: number; readonly by: 'rated' | number };
  /** The same at the pump, bar, where the ram's area is known. */
  readonly pressure?: number;
}

/** Of what something is rated for, so much is used: the rest is margin. */
export const MARGIN = 0.8;

const degrees = (radians: number): number => (radians * 180) / Math.PI;

/**
 * The statics of a pull: what each place that is held gives back for each newton, in balance with it, and what bears what it may
 * first. The shares are those of an elastic shell; how hard to pull is read at the gauge and the metal, never here.
 */
export function rigForces(
  model: PullModel,
  pull: PullAt & { readonly rated: number | null; readonly ramArea: number | null },
): RigForces {
  const { frame, stiffness, holds } = model;
  const load = loadOf(model, pull);
  const all = reactionsOf(frame, displaced(stiffness, load), load);
  const reactions = holds.map((held): Reaction => {
    const at = frame.supports.findIndex(({ node }) => node === held.node);
    const share = [0, 1, 2].map((k) => all[at]?.[k] ?? 0) as unknown as Vector;
    const size = norm(share);
    const rating = held.hold?.rating;
    return {
      ...{ node: held.node, share, size },
      ...(held.hold ? { hold: held.hold } : {}),
      ...(rating && size > 1e-6 ? { bearsUpTo: (MARGIN * rating) / size } : {}),
    };
  });
  const limits = [
    ...(pull.rated === null ? [] : [{ newtons: MARGIN * pull.rated, by: 'rated' as const }]),
    ...reactions.flatMap(({ bearsUpTo, node }) => (bearsUpTo === undefined ? [] : [{ newtons: bearsUpTo, by: node }])),
  ];
  const [never] = limits.toSorted((a, b) => a.newtons - b.newtons);
  const [x, y, z] = pull.direction;
  return {
    rise: degrees(Math.atan2(z, Math.hypot(x, y))),
    heading: degrees(Math.atan2(y, x)),
    parts: pull.direction,
    reactions: reactions.toSorted((a, b) => b.size - a.size),
    unbalanced: unbalanced(model, pull, reactions),
    ...(never ? { never } : {}),
    // A newton on a square millimetre is ten bar.
    ...(never && pull.ramArea !== null ? { pressure: (10 * never.newtons) / pull.ramArea } : {}),
  };
}

/** Sums of forces, N for each newton, and of moments about the first node, by the length of the shell, that are left over. */
function unbalanced({ frame }: PullModel, pull: PullAt, reactions: readonly Reaction[]): number {
  const forces: { at: Vector; by: Vector }[] = [
    ...sharesOf(pull).map(({ node, share }) => ({ at: frame.nodes[node]!.at, by: scale(pull.direction, share) })),
    ...reactions.map(({ node, share }) => ({ at: frame.nodes[node]!.at, by: share })),
  ];
  const sum = [0, 0, 0];
  const moment = [0, 0, 0];
  for (const { at, by } of forces)
    for (let k = 0; k < 3; k++) {
      const [i, j] = [(k + 1) % 3, (k + 2) % 3];
      sum[k]! += by[k]!;
      moment[k]! += (at[i]! * by[j]! - at[j]! * by[i]!) / 1000;
    }
  return Math.max(...sum.map(Math.abs), ...moment.map(Math.abs));
}
