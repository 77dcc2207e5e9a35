import { NEW_WELD_SEAM, type Crack, type WeldSeam } from '../../shell/job/entities';
import { layOut, type WeldLayout } from '../weld-order/layout';

export const CRACK_STEPS = ['clean', 'ends', 'drill', 'open', 'weld', 'dress', 'lookAgain', 'protect'] as const;
export type CrackStep = (typeof CRACK_STEPS)[number];

/** How a crack is mended. */
export interface CrackPlan {
  /** The drill that stops it, mm. */
  readonly drill: number;
  /** From the end that is seen to the middle of the hole: what opens runs further than what shows, mm. */
  readonly beyond: number;
  /** One hole where the other end runs out at an edge. */
  readonly holes: 1 | 2;
  /** How many times the stress beside it the metal at the hole still bears. */
  readonly concentration: number;
  /** What is welded, from hole to hole or to the edge, mm. */
  readonly weld: number;
  /** The gap the edges are opened to, mm; none where they touch. */
  readonly gap: number;
  readonly layout: WeldLayout;
  readonly steps: readonly { readonly kind: CrackStep; readonly minutes: number }[];
}

/** Drills by the thickness of the sheet, mm. */
const DRILLS = [
  { upTo: 1.2, drill: 3 },
  { upTo: 2, drill: 4 },
  { upTo: Infinity, drill: 5 },
] as const;
/** So much further than it shows, in sheets' thicknesses, and at least, mm. */
const RUNS_ON = 2;
const LEAST = 2;
/** The stress at an edge crack is so much more than at half a crack inside (free surface). */
const AT_EDGE = 1.12;
const MINUTES: Readonly<Record<Exclude<CrackStep, 'weld'>, { readonly once: number; readonly each?: number }>> = {
  clean: { once: 10, each: 0.1 },
  ends: { once: 20 },
  drill: { once: 4 },
  open: { once: 3, each: 0.1 },
  dress: { once: 3, each: 0.15 },
  lookAgain: { once: 20 },
  protect: { once: 15 },
};

/**
 * How a crack is stopped and welded. A hole at its tip takes the edge off it: stress there is 1 + 2·√(a/ρ) times that beside it
 * (Inglis, Stresses in a plate due to the presence of cracks and sharp corners, 1913), a half its length and ρ the hole's radius, where it
 * had no bound before; which says too that the hole by itself mends nothing.
 */
export function crackPlan(crack: Crack): CrackPlan {
  const { long, thickness: t, toEdge, process } = crack;
  const { drill } = DRILLS.find(({ upTo }) => t <= upTo)!;
  const beyond = Math.max(LEAST, RUNS_ON * t);
  const holes = toEdge ? 1 : 2;
  const weld = long + holes * beyond;
  const half = (toEdge ? weld : weld / 2) + drill / 2;
  const layout = layOut(seamOf(crack, weld), { thicknessA: t, thicknessB: t, factorySpots: null }, []);
  return {
    ...{ drill, beyond, holes, weld, layout },
    concentration: (toEdge ? AT_EDGE : 1) * (1 + 2 * Math.sqrt(half / (drill / 2))),
    gap: process === 'mig' ? t : 0,
    steps: CRACK_STEPS.map((kind) => {
      if (kind === 'weld') return { kind, minutes: Math.round(layout.minutes) };
      const { once, each = 0 } = MINUTES[kind];
      return { kind, minutes: Math.round((kind === 'drill' ? holes * once : once) + each * long) };
    }),
  };
}

const seamOf = ({ id, jobId, process }: Crack, long: number): WeldSeam => ({
  ...{ ...NEW_WELD_SEAM, id, jobId, process, long, kind: 'butt', school: 'oneEnd' },
});
