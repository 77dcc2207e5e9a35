import type { Vector } from '../../maths/geometry/vector';
import { COMPONENTS, type Component } from '../../shell/components';
import { share, shareSlope, type Hinge, type PatternPoint } from './sections';
import type { Sparse } from './weights';

/** Along which axis a component moves the shell. */
export const AXIS: Readonly<Record<Component, number>> = { mash: 0, sway: 1, sag: 2, diamond: 0, spread: 1, twist: 2 };
const SIDE = { left: -0.5, centre: 0, right: 0.5 } as const;

/** The components a hinge's points can show: with one side only, means and differences are one. */
export function visibleComponents(hinge: Hinge, points: readonly PatternPoint[]): readonly Component[] {
  const sides = new Set(points.filter(({ at }) => share(hinge, at[0]) > 0.02).map(({ side }) => side));
  return sides.has('left') && sides.has('right') ? COMPONENTS : COMPONENTS.slice(0, 3);
}

/** Moves both sides alike; any other moves them apart. */
export const isMean = (component: Component): boolean =>
  component === 'mash' || component === 'sway' || component === 'sag';

/** How much of a component a point on that side has. */
export const sideShare = (component: Component, side: PatternPoint['side']): number =>
  isMean(component) ? 1 : SIDE[side];

/** Movement of the coordinates per millimetre of each component. */
export const designOf = (hinge: Hinge, points: readonly PatternPoint[], components: readonly Component[]): Sparse[] =>
  components.map((component) =>
    columnOf(points, AXIS[component], ({ at, side }) => share(hinge, at[0]) * sideShare(component, side)),
  );

/** The further column that says how the movement changes when the hinge goes along the shell, per mm. */
export function hingeColumn(
  hinge: Hinge,
  points: readonly PatternPoint[],
  components: readonly Component[],
  amounts: readonly number[],
): Sparse {
  const columns = [0, 1, 2].map((axis) =>
    columnOf(
      points,
      axis,
      ({ at, side }) =>
        shareSlope(hinge, at[0]) *
        components.reduce(
          (sum, component, c) => (AXIS[component] === axis ? sum + amounts[c]! * sideShare(component, side) : sum),
          0,
        ),
    ),
  );
  return { rows: columns.flatMap(({ rows }) => rows), values: columns.flatMap(({ values }) => values) };
}

/** A column with one entry a point, on one axis. */
function columnOf(points: readonly PatternPoint[], axis: number, value: (point: PatternPoint) => number): Sparse {
  const rows: number[] = [];
  const values: number[] = [];
  points.forEach((point, i) => {
    const entry = value(point);
    if (entry === 0) return;
    rows.push(3 * i + axis);
    values.push(entry);
  });
  return { rows, values };
}

/** How far the components carry one point, mm. */
export function movementAt(
  hinge: Hinge,
  { at, side }: Pick<PatternPoint, 'at' | 'side'>,
  components: readonly { readonly name: Component; readonly amount: number }[],
): Vector {
  const movement: [number, number, number] = [0, 0, 0];
  for (const { name, amount } of components)
    movement[AXIS[name] as 0 | 1 | 2] += amount * share(hinge, at[0]) * sideShare(name, side);
  return movement;
}
