import { describe, expect, it } from 'vitest';
import { seeded } from '../maths/random/seeded';
import { shellNet } from '../practice/shell-net';
import { ellipseOf } from '../maths/geometry/ellipse';
import { rigidFreedoms } from './datum';
import { looseSentence } from './loose';
import { equationsOf, linearise, newRow } from './observations';
import { startOf } from './solve';
import type { Survey } from './survey';

describe('the gradient of an observation', () => {
  it('is what a small step makes of its value', () => {
    const { survey } = shellNet({ points: 6, distances: 8 }, seeded(2));
    const plan = {
      ...survey,
      readings: [
        ...survey.readings,
        { id: 'p', kind: 'plan', from: 'P0L', to: 'P2R', value: 1, sigma: 1 } as const,
        { id: 'z', kind: 'rise', from: 'P0L', to: 'P2R', value: 1, sigma: 1 } as const,
      ],
    };
    const equations = equationsOf(plan);
    const x = startOf(plan);
    const none = new Float64Array(0);
    for (const observation of equations.observations) {
      const row = newRow();
      linearise(equations, observation, x, none, row);
      for (let p = 0; p < row.count; p++) {
        const moved = Float64Array.from(x);
        moved[row.columns[p]!]! += 1e-4;
        const after = newRow();
        linearise(equations, observation, moved, none, after);
        expect((after.value - row.value) / 1e-4).toBeCloseTo(row.coefficients[p]!, 4);
      }
    }
  });
});

describe('the freedoms of a datum', () => {
  const { survey } = shellNet({ points: 8, distances: 28 }, seeded(7));
  const freedoms = (of: Survey) =>
    rigidFreedoms(equationsOf(of), startOf(of), new Float64Array(equationsOf(of).biasSigmas.length)).length;
  const distances = {
    ...survey,
    readings: survey.readings.filter(({ kind }) => kind === 'distance'),
  };
  const held = (...ids: string[]): Survey => ({
    ...distances,
    points: distances.points.map((point) => (ids.includes(point.id) ? { ...point, hold: 'fixed' as const } : point)),
  });

  it('are six with distances alone, three with heights, and fewer with every point held', () => {
    expect(freedoms(distances)).toBe(6);
    expect(freedoms(survey)).toBe(3);
    expect(freedoms(held('P0L'))).toBe(3);
    expect(freedoms(held('P0L', 'P3R'))).toBe(1);
    expect(freedoms(held('P0L', 'P3R', 'P1R'))).toBe(0);
  });
});

describe('what a loose net is told', () => {
  it('stands in one line, points with the same advice together', () => {
    const loose = [
      { id: 'A', directions: [], advice: 'add a height' },
      { id: 'B', directions: [], advice: 'add a height' },
      { id: 'C', directions: [], advice: 'add a length' },
    ];
    expect(looseSentence(loose.slice(0, 1))).toBe('point "A" is not determined: add a height');
    expect(looseSentence(loose)).toBe(
      'points "A", "B", "C" are not determined: "A", "B": add a height; "C": add a length',
    );
  });
});

describe('the ellipse of two axes', () => {
  it('has the eigenvalues of their covariance', () => {
    const { major, minor, angle } = ellipseOf([5, 2, 0, 2, 2, 0, 0, 0, 1], 0, 1);
    expect(major ** 2).toBeCloseTo(6, 9);
    expect(minor ** 2).toBeCloseTo(1, 9);
    expect(Math.tan(angle)).toBeCloseTo(0.5, 9);
  });
});
