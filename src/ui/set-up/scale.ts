import { place, position, type Motion } from '@/core/maths/geometry/vector';
import type { SetUpPage } from '@/core/report/pages/set-up';
import type { Built } from '@/core/plan/set-up/build';
import type { ShellWeight } from '@/core/plan/set-up/weight';
import type { BenchVersion, ShelfItem } from '@/core/shell/job/entities';

/** What the bench plan draws. */
export interface Drawn {
  readonly page: SetUpPage;
  readonly version: BenchVersion;
  readonly items: readonly ShelfItem[];
  readonly placement: Motion<'chart', 'bench'>;
  readonly built: Built;
  readonly weight: ShellWeight;
  /** Points that are mounts, by the mounts' identities. */
  readonly pointOf: ReadonlyMap<string, string>;
  readonly nameOf: (mountId: string) => string;
}

export const WIDTH = 690;
export const MARGIN = 26;
const GAP = 56;

/** Where bench millimetres fall on the drawing: plan above, side below, at one scale. */
export interface Scale {
  readonly x: (mm: number) => number;
  readonly y: (mm: number) => number;
  readonly z: (mm: number) => number;
  readonly mm: number;
  readonly height: number;
  readonly floor: number;
}

/** The scale at which everything fits the width. */
export function scaleOf({ page: { extent }, version, placement }: Drawn): Scale {
  const corners = [extent.from[0], extent.to[0]].flatMap((x) =>
    [extent.from[1], extent.to[1]].flatMap((y) =>
      [extent.from[2], extent.to[2]].map((z) => place(placement, position<'chart'>([x, y, z]))),
    ),
  );
  const from = Math.min(0, ...corners.map(([x]) => x));
  const to = Math.max(version.rails, ...corners.map(([x]) => x));
  const half = Math.max(version.span / 2, ...corners.map(([, y]) => Math.abs(y))) + 90;
  const mm = (WIDTH - 2 * MARGIN) / Math.max(to - from, 500);
  const top = Math.max(...corners.map(([, , z]) => z), version.beamTop + 300);
  const floor = MARGIN + 2 * half * mm + GAP + top * mm;
  return {
    x: (x) => MARGIN + (x - from) * mm,
    y: (y) => MARGIN + (half - y) * mm,
    z: (z) => floor - z * mm,
    mm,
    height: floor + MARGIN + 10,
    floor,
  };
}
