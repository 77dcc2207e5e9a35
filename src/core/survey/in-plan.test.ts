import { describe, expect, it } from 'vitest';
import type { Vector } from '../maths/geometry/vector';
import { seeded } from '../maths/random/seeded';
import { locateInPlan } from './in-plan';
import { roughStart } from './rough-start';
import type { SurveyReading } from './survey';

/** Six points of a bare shell, heights as unlike as legs, sills and rear legs are. */
const SHELL: Readonly<Record<string, Vector>> = {
  FL: [0, -410, 215],
  FR: [0, 410, 218],
  ML: [1150, -655, 190],
  MR: [1152, 655, 188],
  RL: [2390, -480, 262],
  RR: [2385, 482, 260],
};
const IDS = Object.keys(SHELL);
const sideOf = (id: string) => (id.endsWith('L') ? 'left' : 'right') as 'left' | 'right';

/** All fifteen lengths and one height, as a tape reads them. */
function taped(seed: number, heights: readonly string[] = ['FL']): SurveyReading[] {
  const random = seeded(seed);
  const lengths = IDS.flatMap((from, i) =>
    IDS.slice(i + 1).map((to): SurveyReading => {
      const true_ = Math.hypot(...SHELL[from]!.map((value, k) => value - SHELL[to]![k]!));
      const sigma = 0.6 + 0.0003 * true_;
      return { id: from + to, kind: 'distance', from, to, value: true_ + sigma * random.normal(), sigma };
    }),
  );
  const read = heights.map((point): SurveyReading => ({
    ...{ id: `h${point}`, kind: 'height', point, sigma: 0.7 },
    value: SHELL[point]![2] + 0.7 * random.normal(),
  }));
  return [...lengths, ...read];
}

const located = (readings: readonly SurveyReading[]) => {
  const { positions } = roughStart(IDS, readings, sideOf);
  const points = IDS.map((id) => ({ id, start: positions.get(id) ?? ([0, 0, 0] as const) }));
  return locateInPlan({ points, readings });
};

/** Plan positions against the truth, laid on each other by a turn and a shift, mm. */
function off(found: readonly { readonly id: string; readonly at: readonly [number, number] }[]): number[] {
  const truth = found.map(({ id }) => SHELL[id]!);
  const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / values.length;
  const [mx, my] = [0, 1].map((k) => mean(found.map(({ at }) => at[k]!))) as [number, number];
  const [tx, ty] = [0, 1].map((k) => mean(truth.map((at) => at[k]!))) as [number, number];
  let [sine, cosine] = [0, 0];
  found.forEach(({ at: [x, y] }, i) => {
    const [u, v] = [truth[i]![0] - tx, truth[i]![1] - ty];
    cosine += (x - mx) * u + (y - my) * v;
    sine += (x - mx) * v - (y - my) * u;
  });
  const turn = Math.atan2(sine, cosine);
  return found.map(({ at: [x, y] }, i) => {
    const [dx, dy] = [x - mx, y - my];
    return Math.hypot(
      tx + dx * Math.cos(turn) - dy * Math.sin(turn) - truth[i]![0],
      ty + dx * Math.sin(turn) + dy * Math.cos(turn) - truth[i]![1],
    );
  });
}

describe('six points with all fifteen lengths and one height', () => {
  it('are located in plan within two millimetres, and the missing heights are named', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const found = located(taped(seed));
      expect(found.map(({ id }) => id)).toEqual(IDS);
      expect(Math.max(...off(found))).toBeLessThan(2);
      expect(found.filter(({ heightMissing }) => heightMissing).map(({ id }) => id)).toEqual(IDS.slice(1));
    }
  });

  it('are known about as well as is said', () => {
    const shares = Array.from({ length: 40 }, (_, seed) => {
      const found = located(taped(seed + 100));
      const worst = off(found);
      return worst.filter((each, i) => each <= 2.45 * found[i]!.sd).length / found.length;
    });
    expect(shares.reduce((a, b) => a + b, 0) / shares.length).toBeGreaterThan(0.9);
  });

  it('are not told in plan where the lengths leave one free', () => {
    const few = taped(1).filter((reading) => !('to' in reading) || reading.to !== 'RR' || reading.from === 'FL');
    expect(located(few).map(({ id }) => id)).toEqual(IDS.slice(0, 5));
  });

  it('say nothing with two points or none', () => {
    expect(locateInPlan({ points: [], readings: [] })).toEqual([]);
    expect(located(taped(1).filter(({ id }) => id === 'FLFR'))).toEqual([]);
  });
});
