import type { BenchVersion, ShelfItem } from '../../shell/job/entities';
import type { BuiltMount } from './build';

/** A stand of a frame made for one model. Millimetres; bench axes. */
export interface FrameStand {
  readonly mountId: string;
  /** What to cut: from the frame's top to under the head, its screw in the middle. */
  readonly height: number;
  /** Where its foot stands: along the frame, and right of the middle. */
  readonly along: number;
  readonly side: number;
  /** How far outside (+) or inside (−) of the frame's tube its foot stands, so that it needs an arm. */
  readonly offset: number;
  /** The point from the frame's top. */
  readonly top: number;
}

/**
 * The cut list of a frame of one's own: a stand under every mount, as high as leaves the head's screw in its middle.
 *
 * @param head what is put on every stand
 */
export function cutList(
  { span }: Pick<BenchVersion, 'span'>,
  mounts: readonly BuiltMount[],
  head: Pick<ShelfItem, 'height' | 'travel'>,
): FrameStand[] {
  return mounts.map(({ id, x, side, height }) => ({
    mountId: id,
    height: height - head.height - head.travel / 2,
    along: x,
    side,
    offset: Math.abs(side) - span / 2,
    top: height,
  }));
}
