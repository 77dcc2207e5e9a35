import { describe, expect, it } from 'vitest';
import { cutList } from './own-frame';

describe('a frame of one’s own', () => {
  it('is cut by the points it carries: height less the head with its screw in the middle, and how far off the tube', () => {
    const mounts = [
      { id: 'F1L', x: 300, side: -400, height: 280 },
      { id: 'S1R', x: 1200, side: 700, height: 230 },
    ];
    expect(cutList({ span: 1000 }, mounts, { height: 55, travel: 24 })).toEqual([
      { mountId: 'F1L', height: 213, along: 300, side: -400, offset: -100, top: 280 },
      { mountId: 'S1R', height: 163, along: 1200, side: 700, offset: 200, top: 230 },
    ]);
  });
});
