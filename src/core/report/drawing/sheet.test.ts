import { describe, expect, it } from 'vitest';
import type { Vector } from '../../maths/geometry/vector';
import { placeLabels } from './labels';
import { boundsOf, gridStep, layOut, middleOf, panned, project, suggestFactor, VIEWS, whisker, zoomed } from './sheet';

const shell: Vector[] = [
  [-420, -395, 320],
  [-420, 395, 320],
  [1180, -540, 1330],
  [3345, 0, 470],
  [3240, 430, 345],
];
const size = { width: 1000, height: 590 };
const layout = layOut(boundsOf(shell), size);

describe('the sheet', () => {
  it('lines the views up: one length in plan and side, one height in side and end', () => {
    for (const point of shell) {
      expect(project(layout, 'plan', point)[0]).toBeCloseTo(project(layout, 'side', point)[0], 9);
      expect(project(layout, 'side', point)[1]).toBeCloseTo(project(layout, 'end', point)[1], 9);
    }
  });

  it('keeps every point inside its view and every view on the sheet', () => {
    for (const view of VIEWS) {
      const { x, y, width, height } = layout.views[view];
      expect(x + width).toBeLessThanOrEqual(size.width + 1e-9);
      expect(y + height).toBeLessThanOrEqual(size.height + 1e-9);
      for (const point of shell) {
        const [px, py] = project(layout, view, point);
        expect(px).toBeGreaterThanOrEqual(x);
        expect(px).toBeLessThanOrEqual(x + width);
        expect(py).toBeGreaterThanOrEqual(y);
        expect(py).toBeLessThanOrEqual(y + height);
      }
    }
  });

  it('puts the right-hand side above in plan and up upward in the others', () => {
    expect(project(layout, 'plan', [0, 400, 0])[1]).toBeLessThan(project(layout, 'plan', [0, -400, 0])[1]);
    expect(project(layout, 'side', [0, 0, 400])[1]).toBeLessThan(project(layout, 'side', [0, 0, 0])[1]);
    expect(project(layout, 'end', [0, 400, 0])[0]).toBeGreaterThan(project(layout, 'end', [0, -400, 0])[0]);
  });

  it('draws a movement as many times as large as it says', () => {
    const { dx, dy } = whisker(layout, 'plan', [-14, 6, 9], -1, 20);
    expect(dx).toBeCloseTo(-14 * 20 * layout.scale, 9);
    expect(dy).toBeCloseTo(-6 * 20 * layout.scale, 9);
  });

  it('tones a movement by its larger part: inward on the left is toward the right', () => {
    expect(whisker(layout, 'plan', [0, 5, 0], -1, 10).tone).toBe('minus');
    expect(whisker(layout, 'plan', [0, 5, 0], 1, 10).tone).toBe('plus');
    expect(whisker(layout, 'side', [-14, 0, 9], -1, 10).tone).toBe('minus');
    expect(whisker(layout, 'end', [-14, 6, 9], -1, 10).tone).toBe('plus');
  });

  it('suggests a round factor and a round grid', () => {
    expect([1, 2, 5, 10, 20, 50, 100, 200]).toContain(suggestFactor([14], layout));
    expect(suggestFactor([1], layout)).toBeGreaterThan(suggestFactor([20], layout));
    expect(gridStep(layout, 'mm') % 50).toBe(0);
  });

  it('spaces the grid alike in millimetres and inches, each in round numbers', () => {
    for (const times of [1, 2, 4]) {
      const close = zoomed(layout, { times, focus: shell[2]! });
      const [mm, inches] = [gridStep(close, 'mm'), gridStep(close, 'in')];
      expect(inches % 5).toBe(0);
      expect((inches * 25.4) / mm).toBeGreaterThan(0.4);
      expect((inches * 25.4) / mm).toBeLessThan(2.6);
    }
  });

  it('enlarges all views together, so that a point can still be followed across', () => {
    const close = zoomed(layout, { times: 4, focus: shell[2]! });
    for (const view of VIEWS) {
      const { x, y, width, height } = close.views[view];
      expect(project(close, view, shell[2]!)[0]).toBeCloseTo(x + width / 2, 9);
      expect(project(close, view, shell[2]!)[1]).toBeCloseTo(y + height / 2, 9);
    }
    for (const point of shell)
      expect(project(close, 'plan', point)[0]).toBeCloseTo(project(close, 'side', point)[0], 9);
    const whole = zoomed(layout, { times: 1, focus: middleOf(layout) });
    expect(project(whole, 'plan', shell[1]!)).toEqual(
      project(layout, 'plan', shell[1]!).map((v) => expect.closeTo(v, 6)),
    );
  });

  it('drags the contents of a view under the hand', () => {
    const focus = panned(layout, 'side', middleOf(layout), 30, -20);
    const [x, y] = project(zoomed(layout, { times: 1, focus }), 'side', shell[0]!);
    const [x0, y0] = project(layout, 'side', shell[0]!);
    expect([x - x0, y - y0]).toEqual([expect.closeTo(30, 6), expect.closeTo(-20, 6)]);
  });

  it('draws even when there is nothing yet', () => {
    expect(layOut(boundsOf([]), size).scale).toBeGreaterThan(0);
    expect(layOut(boundsOf([[100, 0, 0]]), size).scale).toBeGreaterThan(0);
  });
});

describe('labels', () => {
  it('cover neither each other nor a mark, and the heavy ones win', () => {
    const requests = Array.from({ length: 60 }, (_, i) => ({
      id: `${i}`,
      at: [100 + (i % 10) * 22, 100 + Math.floor(i / 10) * 18] as const,
      text: `P${i}`,
      weight: i,
    }));
    const placed = placeLabels(requests, { line: 13, character: 7 }, 9, {
      x: 95,
      y: 0,
      width: 400,
      height: 400,
    });
    const boxes = placed.map((label) => ({
      x: label.x,
      y: label.y - 13 * 0.8,
      width: label.text.length * 7,
      height: 13,
    }));
    boxes.forEach((a, i) =>
      boxes.slice(i + 1).forEach((b) => {
        const apart = a.x >= b.x + b.width || b.x >= a.x + a.width || a.y >= b.y + b.height || b.y >= a.y + a.height;
        expect(apart).toBe(true);
      }),
    );
    expect(placed.map((label) => label.id)).toContain('59');
    expect(Math.min(...boxes.map((box) => box.x))).toBeGreaterThanOrEqual(95);
  });

  it('keep clear of what else is written there', () => {
    const request = { id: 'C2L', at: [50, 50] as const, text: 'C2L', weight: 1 };
    const view = { x: 0, y: 0, width: 200, height: 200 };
    const free = placeLabels([request], { line: 13, character: 7 }, 9, view)[0]!;
    const written = { x: free.x, y: free.y - 10, width: 60, height: 13 };
    const moved = placeLabels([request], { line: 13, character: 7 }, 9, view, [written])[0]!;
    expect(moved).not.toEqual(free);
    expect(placeLabels([request], { line: 13, character: 7 }, 9, view, [view])).toEqual([]);
  });
});
