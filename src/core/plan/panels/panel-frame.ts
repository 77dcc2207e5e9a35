import { add, dot, scale, type Vector } from '../../maths/geometry/vector';
import type { HungPanel, PanelEdge, PanelSeam, PanelSetting } from '../../shell/job/entities';

/** A panel's own frame in chart axes: the way its length is taken, its height, and out of the shell. Its middle is the zero. */
export interface PanelFrame {
  readonly long: Vector;
  readonly high: Vector;
  readonly out: Vector;
}

type Shape = Pick<HungPanel, 'kind' | 'side' | 'long' | 'high'>;

/** Doors and wings stand along the car, lids lie, a tailgate stands across; a skin in the middle lies. */
export function frameOf({ kind, side }: Pick<Shape, 'kind' | 'side'>): PanelFrame {
  if (kind === 'tailgate') return { long: [0, 1, 0], high: [0, 0, 1], out: [1, 0, 0] };
  const lies = kind === 'bonnet' || kind === 'bootLid' || side === 'centre';
  if (lies) return { long: [1, 0, 0], high: [0, 1, 0], out: [0, 0, 1] };
  return { long: [1, 0, 0], high: [0, 0, 1], out: [0, side === 'left' ? -1 : 1, 0] };
}

/** Out of the panel across an edge, chart axes. */
const EDGE_WAY: Readonly<Record<PanelEdge, Vector>> = {
  ...{ front: [-1, 0, 0], rear: [1, 0, 0] },
  ...{ left: [0, -1, 0], right: [0, 1, 0] },
  ...{ bottom: [0, 0, -1], top: [0, 0, 1] },
};

/** The edges a panel has: those across its length first. */
export function edgesOf(panel: Pick<Shape, 'kind' | 'side'>): readonly PanelEdge[] {
  const { long, high } = frameOf(panel);
  const across = (way: Vector) =>
    (Object.keys(EDGE_WAY) as PanelEdge[]).filter((edge) => Math.abs(dot(EDGE_WAY[edge], way)) > 0.5);
  return [...across(long), ...across(high)];
}

/** A place on an edge: where it is in the panel's frame, along its length and its height from its middle, mm; and the way out across the edge. */
export interface EdgePlace {
  readonly x: number;
  readonly y: number;
  readonly normal: readonly [number, number];
}

/**
 * @param share how far along the edge, from its front, left or lower end: 0 … 1
 * @returns undefined where the panel has no such edge
 */
export function placeOnEdge(panel: Shape, edge: PanelEdge, share: number): EdgePlace | undefined {
  const { long, high } = frameOf(panel);
  const normal = [dot(EDGE_WAY[edge], long), dot(EDGE_WAY[edge], high)] as const;
  const along = share - 0.5;
  if (normal[0] !== 0) return { x: (normal[0] * panel.long) / 2, y: along * panel.high, normal };
  if (normal[1] !== 0) return { x: along * panel.long, y: (normal[1] * panel.high) / 2, normal };
  return undefined;
}

/** How far along an edge a station is, by its place among the seam's stations. */
export function shareOf({ turned }: Pick<PanelSeam, 'turned'>, i: number, stations: number): number {
  const share = stations > 1 ? i / (stations - 1) : 0.5;
  return turned ? 1 - share : share;
}

/** A place of a panel in chart axes, from its middle, mm. */
export const inSpace = ({ long, high }: PanelFrame, x: number, y: number): Vector =>
  add(scale(long, x), scale(high, y));

/** The unit vector of the way a setting moves its place, chart axes. */
export const wayOf = (frame: PanelFrame, way: NonNullable<PanelSetting['way']>): Vector => frame[way];
