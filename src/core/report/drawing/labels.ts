/** A rectangle on the sheet, sheet units. */
export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export interface LabelRequest {
  readonly id: string;
  /** The mark the label belongs to. */
  readonly at: readonly [number, number];
  readonly text: string;
  /** Labels of higher weight are placed first; one that finds no room is left out. */
  readonly weight: number;
}

export interface PlacedLabel {
  readonly id: string;
  readonly text: string;
  readonly x: number;
  readonly y: number;
}

const holds = (view: Box, box: Box): boolean =>
  box.x >= view.x &&
  box.y >= view.y &&
  box.x + box.width <= view.x + view.width &&
  box.y + box.height <= view.y + view.height;

const overlaps = (a: Box, b: Box): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

/** Where a label may stand round its mark, as shares of its own size: right, left, above, below, corners. */
const SPOTS: readonly (readonly [number, number])[] = [
  [0, -0.5],
  [-1, -0.5],
  [-0.5, -1],
  [-0.5, 0],
  [0, -1],
  [0, 0],
  [-1, -1],
  [-1, 0],
];

/**
 * Places labels so that none covers another or a mark or leaves the view: greedily, the heaviest first.
 *
 * @param size   height of a line and width of a character, sheet units
 * @param reach  distance of a label from its mark, sheet units
 * @param view   where labels may stand, sheet units
 * @param others what else is written there, sheet units
 */
export function placeLabels(
  requests: readonly LabelRequest[],
  size: { readonly line: number; readonly character: number },
  reach: number,
  view: Box,
  others: readonly Box[] = [],
): PlacedLabel[] {
  const marks = requests.map(({ at: [x, y] }): Box => ({
    x: x - reach / 2,
    y: y - reach / 2,
    width: reach,
    height: reach,
  }));
  const taken: Box[] = [...others, ...marks];
  const placed: PlacedLabel[] = [];
  for (const { id, at, text } of [...requests].sort((a, b) => b.weight - a.weight)) {
    const [width, height] = [text.length * size.character, size.line];
    const spot = SPOTS.map(([sx, sy]): Box => ({
      x: at[0] + sx * width + Math.sign(sx + 0.5) * (sx === -0.5 ? 0 : reach),
      y: at[1] + sy * height + (sx === -0.5 ? Math.sign(sy + 0.5) * reach : 0),
      width,
      height,
    })).find((box) => holds(view, box) && !taken.some((other) => overlaps(box, other)));
    if (!spot) continue;
    taken.push(spot);
    placed.push({ id, text, x: spot.x, y: spot.y + height * 0.8 });
  }
  return placed;
}
