import type { Vector } from '../../maths/geometry/vector';

/** Extent of a shell along each axis, chart axes, mm. */
export interface Extent {
  readonly from: Vector;
  readonly to: Vector;
}

export interface ShellWeight {
  readonly kilograms: number;
  /** Centre of gravity, chart axes, mm. */
  readonly centre: Vector;
}

/** Of body sheet, kg/m²: 0.8 mm of steel. */
const SHEET = 0.8 * 7.85;
/** Double skins, box sections and crossmembers, as a share of the bare skins. */
const DOUBLED = 2.2;
/** How much of each side of the box around it a bare shell has as sheet: floor and roof, sides, ends. */
const COVERED = { flat: 0.8, side: 0.6, end: 0.5 } as const;
/** Height of the centre of gravity over the underside, as a share of the shell's height: the floor weighs most. */
const CENTRE_HEIGHT = 0.4;

/**
 * The mass of a bare shell and where it acts, estimated from the box around it: good to a third or so, until somebody types
 * what the scale says.
 */
export function estimateWeight({ from, to }: Extent): ShellWeight {
  const [length, width, height] = [0, 1, 2].map((axis) => (to[axis]! - from[axis]!) / 1000) as [number, number, number];
  const area = 2 * (COVERED.flat * length * width + COVERED.side * length * height + COVERED.end * width * height);
  return {
    kilograms: Math.round(SHEET * DOUBLED * area),
    centre: [(from[0] + to[0]) / 2, 0, from[2] + CENTRE_HEIGHT * (to[2] - from[2])],
  };
}
