import { describe, expect, it } from 'vitest';
import { seeded } from '../maths/random/seeded';
import { shellNet } from '../practice/shell-net';
import { NetState } from './net-state';
import { equationsOf } from './observations';
import { startOf } from './solve';
import type { Survey, SurveyReading } from './survey';

const STEP = 1e-3;

/** A small net with every kind of equation, a fixed point, a weakly held one and a shared bias. */
function mixedNet(): Survey {
  const { survey } = shellNet({ points: 6, distances: 9, startOff: 12 }, seeded(21));
  const [a, b, c, d] = survey.points.map(({ id }) => id) as [string, string, string, string];
  const bias = { group: 'tape', sigma: 0.5 };
  const further: SurveyReading[] = [
    { id: 'plan', kind: 'plan', from: a, to: c, value: 900, sigma: 0.8 },
    { id: 'rise', kind: 'rise', from: b, to: d, value: 40, sigma: 0.6 },
    { id: 'offset', kind: 'offset', point: c, value: -380, sigma: 1, bias },
    { id: 'again', kind: 'offset', point: c, value: -379, sigma: 1, bias },
    { id: 'head', kind: 'position', point: d, value: [100, 400, 200], sigma: [0.7, 0.7, 0.9] },
  ];
  const points = survey.points.map((point, i) =>
    i === 0 ? { ...point, hold: 'fixed' as const } : i === 1 ? { ...point, hold: 2 } : point,
  );
  return { points, readings: [...survey.readings, ...further] };
}

describe('the sum of squares of a net', () => {
  const survey = mixedNet();
  const state = new NetState(equationsOf(survey), startOf(survey));
  state.biases.fill(0.3);
  const { unknowns, coordinates, column } = state.equations;

  /** The cost after the unknowns have moved. */
  const costAt = (moves: ReadonlyMap<number, number>): number => {
    const step = new Float64Array(unknowns);
    moves.forEach((by, unknown) => (step[unknown] = by));
    return state.after(step).cost;
  };

  it('falls the way downhill says: half its gradient, turned round', () => {
    const right = state.downhill();
    right.forEach((value, i) => {
      const slope = (costAt(new Map([[i, STEP]])) - costAt(new Map([[i, -STEP]]))) / (2 * STEP);
      expect(-slope / 2).toBeCloseTo(value, 2);
    });
  });

  it('curves as Newton’s matrix says: half its second derivatives', () => {
    const normal = state.normal(true);
    for (let i = 0; i < unknowns; i++)
      for (let k = 0; k <= i; k++) {
        const at = (p: number, q: number) =>
          i === k
            ? costAt(new Map([[i, p + q]]))
            : costAt(
                new Map([
                  [i, p],
                  [k, q],
                ]),
              );
        const h = 0.05;
        const curvature = (at(h, h) - at(h, -h) - at(-h, h) + at(-h, -h)) / (4 * h * h);
        expect(Math.abs(curvature / 2 - normal[i * unknowns + k]!)).toBeLessThan(2e-3);
      }
  });

  it('leaves the second derivatives out of Gauss’s matrix, which stays positive on its diagonal', () => {
    const normal = state.normal();
    for (let i = 0; i < unknowns; i++) expect(normal[i * unknowns + i]!).toBeGreaterThanOrEqual(0);
  });

  it('knows no unknowns of a fixed point, one bias for its repeats, and drifts from the start alone', () => {
    expect(column[0]).toBe(-1);
    expect([coordinates, unknowns]).toEqual([3 * (survey.points.length - 1), coordinates + 1]);
    expect(Math.max(...state.drift().map(Math.abs))).toBe(0);
    const step = new Float64Array(unknowns).fill(2);
    const { x, biases } = state.after(step);
    expect(x.slice(0, 3)).toEqual(state.x.slice(0, 3));
    expect([x[3]! - state.x[3]!, biases[0]]).toEqual([2, 2.3]);
  });
});
