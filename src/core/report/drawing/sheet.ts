import type { Vector } from '../../maths/geometry/vector';
import { ellipseOf } from '../../maths/geometry/ellipse';
import { MM_PER } from '../../maths/units/length';

/**
 * The drawing sheet: plan, side and end views of one shell at one scale, aligned so that a point
 * can be followed across. Plan above side share the length axis, side beside end share the height
 * axis. In chart axes and millimetres in; sheet units out, x to the right and y downward.
 */
export type ViewName = 'plan' | 'side' | 'end';
export const VIEWS: readonly ViewName[] = ['plan', 'side', 'end'];

export interface SheetLayout {
  readonly width: number;
  readonly height: number;
  /** Sheet units per millimetre. */
  readonly scale: number;
  readonly views: Readonly<Record<ViewName, SheetView>>;
}

export interface SheetView {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  /** Where the view's own origin (the zero planes) falls on the sheet. */
  readonly origin: readonly [number, number];
}

/** The two axes a view shows: index into a position, and its direction on the sheet. */
const SHOWN: Readonly<Record<ViewName, readonly [readonly [number, 1 | -1], readonly [number, 1 | -1]]>> = {
  plan: [
    [0, 1],
    [1, -1],
  ],
  side: [
    [0, 1],
    [2, -1],
  ],
  end: [
    [1, 1],
    [2, -1],
  ],
};

export interface Bounds {
  readonly min: Vector;
  readonly max: Vector;
}

/** The box around positions; a box of one metre where there are none. */
export function boundsOf(positions: readonly Vector[]): Bounds {
  if (positions.length === 0) return { min: [0, -500, 0], max: [1000, 500, 500] };
  const along = (i: number, pick: (...values: number[]) => number) =>
    positions.reduce((best, p) => pick(best, p[i]!), positions[0]![i]!);
  return {
    min: [along(0, Math.min), along(1, Math.min), along(2, Math.min)],
    max: [along(0, Math.max), along(1, Math.max), along(2, Math.max)],
  };
}

/**
 * Lays the three views out on a sheet.
 *
 * @param bounds what must be seen, chart axes, mm
 * @param size   the sheet, in its own units
 * @param margin room round every view for marks and labels, sheet units
 * @param at     the scale, where it is given; else the largest that fits
 */
export function layOut(
  { min, max }: Bounds,
  size: { readonly width: number; readonly height: number },
  margin = 26,
  at?: number,
): SheetLayout {
  const halfWidth = Math.max(Math.abs(min[1]), Math.abs(max[1]), 50);
  const length = Math.max(max[0] - min[0], 100);
  const low = Math.min(min[2], 0);
  const high = Math.max(max[2], low + 100);
  const fitting = Math.min(
    (size.width - 4 * margin) / (length + 2 * halfWidth),
    (size.height - 4 * margin) / (2 * halfWidth + high - low),
  );
  const scale = at ?? fitting;
  const wide = length * scale + 2 * margin;
  const deep = 2 * halfWidth * scale + 2 * margin;
  const tall = (high - low) * scale + 2 * margin;
  const floor = deep + margin + high * scale;
  return {
    width: size.width,
    height: size.height,
    scale,
    views: {
      plan: { x: 0, y: 0, width: wide, height: deep, origin: [margin - min[0] * scale, deep / 2] },
      side: { x: 0, y: deep, width: wide, height: tall, origin: [margin - min[0] * scale, floor] },
      end: { x: wide, y: deep, width: deep, height: tall, origin: [wide + deep / 2, floor] },
    },
  };
}

/** Share of a sheet with one view that is left free beside it, for the title. */
const TITLE_SHARE = 0.26;

/**
 * One view on the whole sheet; the title keeps its place beside it. The other views are laid out with no room of their own.
 *
 * @param bounds what must be seen, chart axes, mm
 */
export function layOutOne(
  view: ViewName,
  { min, max }: Bounds,
  size: { readonly width: number; readonly height: number },
  margin = 30,
): SheetLayout {
  const [across, down] = SHOWN[view];
  const width = size.width * (1 - TITLE_SHARE);
  const span = (axis: number) => Math.max(max[axis]! - min[axis]!, 100);
  const scale = Math.min((width - 2 * margin) / span(across[0]), (size.height - 2 * margin) / span(down[0]));
  const centre = (axis: number) => (min[axis]! + max[axis]!) / 2;
  const shown: SheetView = {
    ...{ x: 0, y: 0, width, height: size.height },
    origin: [width / 2 - across[1] * centre(across[0]) * scale, size.height / 2 - down[1] * centre(down[0]) * scale],
  };
  const none: SheetView = { x: width, y: 0, width: 0, height: 0, origin: [width, 0] };
  return {
    ...size,
    scale,
    views: { plan: none, side: none, end: { ...none, x: width }, [view]: shown },
  };
}

/** Scales a drawing is printed at: one to so many. */
const PRINT_SCALES = [5, 10, 15, 20, 25, 30, 40, 50, 75, 100] as const;

/**
 * The layout of a sheet of paper at the largest usual scale that fits.
 *
 * @param size   of the paper inside its margins, sheet units
 * @param units  sheet units a millimetre of paper
 * @returns the layout, and N of the scale 1:N
 */
export function layOutToScale(
  bounds: Bounds,
  size: { readonly width: number; readonly height: number },
  margin: number,
  units: number,
): { readonly layout: SheetLayout; readonly oneTo: number } {
  const fitting = layOut(bounds, size, margin).scale / units;
  const oneTo = PRINT_SCALES.find((n) => 1 / n <= fitting) ?? Math.ceil(1 / fitting / 100) * 100;
  return { layout: layOut(bounds, size, margin, units / oneTo), oneTo };
}

/** A closer look at the sheet: how many times as large, and the position that all three views are centred on. */
export interface Zoom {
  readonly times: number;
  /** Chart axes, mm. */
  readonly focus: Vector;
}

/** The views kept where they are on the sheet, their contents enlarged together about one position. */
export function zoomed(layout: SheetLayout, { times, focus }: Zoom): SheetLayout {
  const scale = layout.scale * times;
  const centred = (view: ViewName): SheetView => {
    const box = layout.views[view];
    const [across, down] = SHOWN[view];
    return {
      ...box,
      origin: [
        box.x + box.width / 2 - across[1] * focus[across[0]]! * scale,
        box.y + box.height / 2 - down[1] * focus[down[0]]! * scale,
      ],
    };
  };
  return { ...layout, scale, views: { plan: centred('plan'), side: centred('side'), end: centred('end') } };
}

/** The position in the middle of every view as the sheet is laid out. */
export function middleOf(layout: SheetLayout): Vector {
  const middle: [number, number, number] = [0, 0, 0];
  for (const view of ['end', 'plan', 'side'] as const) {
    const { x, y, width, height, origin } = layout.views[view];
    const [across, down] = SHOWN[view];
    middle[across[0]] = (across[1] * (x + width / 2 - origin[0])) / layout.scale;
    middle[down[0]] = (down[1] * (y + height / 2 - origin[1])) / layout.scale;
  }
  return middle;
}

/** The focus after the contents of a view are dragged by so many sheet units. */
export function panned(layout: SheetLayout, view: ViewName, focus: Vector, dx: number, dy: number): Vector {
  const [across, down] = SHOWN[view];
  const next: [number, number, number] = [...focus];
  next[across[0] as 0] -= (across[1] * dx) / layout.scale;
  next[down[0] as 0] -= (down[1] * dy) / layout.scale;
  return next;
}

/** Where a position falls in one view, sheet units. */
export function project(layout: SheetLayout, view: ViewName, position: Vector): [number, number] {
  const { origin } = layout.views[view];
  const [across, down] = SHOWN[view];
  return [
    origin[0] + across[1] * position[across[0]]! * layout.scale,
    origin[1] + down[1] * position[down[0]]! * layout.scale,
  ];
}

export interface Whisker {
  /** End of the whisker from the mark, sheet units. */
  readonly dx: number;
  readonly dy: number;
  /** The two tones: longer, outward, higher; or shorter, inward, lower. */
  readonly tone: 'plus' | 'minus';
}

/**
 * A movement as one view shows it, exaggerated. Its tone is that of its larger component there:
 * rearward, outward and upward are plus.
 *
 * @param movement chart axes, mm
 * @param side     sign of the point's y: outward is away from the centre plane
 */
export function whisker(layout: SheetLayout, view: ViewName, movement: Vector, side: number, factor: number): Whisker {
  const [across, down] = SHOWN[view];
  const size = factor * layout.scale;
  const components = [across, down].map(([axis]) => movement[axis]! * (axis === 1 && side < 0 ? -1 : 1));
  const larger = Math.abs(components[0]!) >= Math.abs(components[1]!) ? components[0]! : components[1]!;
  return {
    dx: across[1] * movement[across[0]]! * size,
    dy: down[1] * movement[down[0]]! * size,
    tone: larger >= 0 ? 'plus' : 'minus',
  };
}

/** An ellipse on the sheet: half axes in sheet units, turned clockwise by degrees. */
export interface SheetEllipse {
  readonly rx: number;
  readonly ry: number;
  readonly turn: number;
}

/** The ellipse of two standard deviations of a point as one view shows it, exaggerated like the whiskers. */
export function spreadEllipse(
  layout: SheetLayout,
  view: ViewName,
  covariance: readonly number[],
  factor: number,
): SheetEllipse {
  const [across, down] = SHOWN[view];
  const { major, minor, angle } = ellipseOf(covariance, across[0], down[0]);
  const size = 2 * factor * layout.scale;
  return {
    rx: major * size,
    ry: minor * size,
    turn: (across[1] * down[1] * angle * 180) / Math.PI,
  };
}

/** A round factor that makes the largest movement about a tenth of the sheet long. */
export function suggestFactor(movements: readonly number[], layout: SheetLayout): number {
  const largest = Math.max(0, ...movements);
  if (largest === 0) return 10;
  const wanted = layout.width / 12 / (largest * layout.scale);
  const steps = [1, 2, 5, 10, 20, 50, 100, 200];
  return steps.reduce((best, step) => (step <= wanted ? step : best), 1);
}

/** Distances between the lines of the grid that read as round numbers in a unit. */
const GRID_STEPS = { mm: [100, 200, 250, 500, 1000, 2000], in: [5, 10, 20, 50, 100] } as const;

/** Round distances for the grid of zero planes, in the unit given: about one line every tenth of the sheet. */
export function gridStep(layout: SheetLayout, unit: keyof typeof GRID_STEPS): number {
  const wanted = layout.width / 10 / layout.scale / MM_PER[unit];
  return GRID_STEPS[unit].find((step) => step >= wanted * 0.8) ?? GRID_STEPS[unit].at(-1)!;
}
