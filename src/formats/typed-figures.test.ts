import { describe, expect, it } from 'vitest';
import { demoRows } from '../../tests/support/demo-rows';
import { readTypedFigures } from './typed-figures';

const rows = demoRows('solbris');

describe('figures typed one a line', () => {
  it('are points with three coordinates and dimensions with one length, in any length format', () => {
    const { points, dimensions, faults } = readTypedFigures('s1l 760 -69cm 150\n\ncd1 1.4325m\n', rows, 'mm');
    expect(faults).toEqual([]);
    expect(points).toEqual([{ pointId: rows.points.find(({ code }) => code === 'S1L')!.id, at: [760, -690, 150] }]);
    expect(dimensions[0]!.value).toBeCloseTo(1432.5, 9);
  });

  it('are refused line by line', () => {
    const { faults } = readTypedFigures('S1L 760 -690\nZZ 12\nCD1 nonsense\nCD1 0', rows, 'mm');
    expect(faults.map(({ line }) => line)).toEqual([1, 2, 3, 4]);
    expect(faults[0]!.message).toContain('length, width and height');
    expect(faults[1]!.message).toContain('no point or dimension "ZZ"');
  });
});
