import { describe, expect, it } from 'vitest';
import { add, mapAxes, subtract, type Vector } from '../maths/geometry/vector';
import { turned } from '../maths/rigid/turn';
import { seeded } from '../maths/random/seeded';
import { predict } from './prediction';
import { checkObservations, degreesOfFreedom } from './reliability';
import { solveNet, type NetSolution } from './solve';
import type { PositionReading, Survey, SurveyReading } from './survey';

const SHELL: Readonly<Record<string, Vector>> = {
  F1L: [0, -410, 215],
  F1R: [0, 410, 215],
  S1L: [900, -600, 190],
  S1R: [900, 600, 190],
  S2L: [2000, -620, 195],
  S2R: [2000, 620, 195],
  R1L: [3200, -480, 340],
  R1R: [3200, 480, 340],
};
const IDS = Object.keys(SHELL);
const HOLES = ['S1L', 'S1R', 'S2L', 'S2R'];
const MIDDLE: Vector = [1450, 0, 192.5];

/** Every length between two points and every height, as they are. */
function tape(): SurveyReading[] {
  const lengths = IDS.flatMap((from, i) =>
    IDS.slice(i + 1).map((to): SurveyReading => {
      const value = Math.hypot(...subtract(SHELL[to]!, SHELL[from]!));
      return { id: `${from}${to}`, kind: 'distance', from, to, value, sigma: 0.7 };
    }),
  );
  const heights = IDS.map((point): SurveyReading => ({
    id: `h${point}`,
    kind: 'height',
    point,
    value: SHELL[point]![2],
    sigma: 0.5,
  }));
  return [...lengths, ...heights];
}

/** The holes of a body that was moved from its start, each read exactly. */
function held(shift: Vector, turn: Vector, off: Readonly<Record<string, Vector>> = {}): PositionReading[] {
  return HOLES.map((point) => {
    // The place at which the body's hole stood before it was moved to the point it is read at.
    const arm = turned(subtract(subtract(SHELL[point]!, off[point] ?? [0, 0, 0]), add(MIDDLE, shift)), [
      -turn[0],
      -turn[1],
      -turn[2],
    ]);
    const value = add(MIDDLE, arm);
    return {
      id: `b${point}`,
      kind: 'position',
      point,
      value,
      sigma: [0.2, 0.2, 0.2],
      body: { id: 'bench', middle: MIDDLE },
    };
  });
}

const started = (by: Vector = [0, 0, 0]): Survey['points'] => IDS.map((id) => ({ id, start: add(SHELL[id]!, by) }));

function solved(survey: Survey): NetSolution {
  const result = solveNet(survey);
  if (!result.ok) throw new Error(result.why);
  return result.solution;
}

describe('a body read at in a net', () => {
  it('is found wherever it stands, however it is turned, and bends nothing', () => {
    const readings = [...tape(), ...held([14, -9, 22], [0.02, -0.03, 0.05])];
    const solution = solved({ points: started(), readings });
    for (const check of checkObservations(solution)) expect(Math.abs(check.residual)).toBeLessThan(1e-5);
    expect(solution.freedoms).toBe(3);
    // 28 lengths, 8 heights and 12 coordinates; 24 unknowns of points and six of the body; three shifts and turns in plan.
    expect(degreesOfFreedom(solution)).toBe(28 + 8 + 12 - 24 - 6 + 3);
  });

  it('holds nothing of the datum by itself: the whole may float with it', () => {
    const lengths = tape().filter(({ kind }) => kind === 'distance');
    const readings = [...lengths, ...held([5, 3, -4], [0.01, 0.02, -0.01])];
    const solution = solved({ points: started(), readings });
    expect(solution.freedoms).toBe(6);
    const other = solved({ points: started(), readings: lengths });
    // Its four places check the tape: whatever the datum, no length is known less well than by the tape alone.
    for (const reading of lengths)
      expect(predict(solution, reading).variance).toBeLessThanOrEqual(predict(other, reading).variance * (1 + 1e-9));
  });

  it('tells the one place that does not fit its others', () => {
    const readings = [...tape(), ...held([3, 2, 1], [0, 0.01, 0], { S2R: [4, 0, 0] })].map((reading) => ({
      ...reading,
    }));
    const moved = readings.map((reading) =>
      reading.id === 'bS2R' ? { ...reading, value: add(reading.value as Vector, [-4, 0, 0]) } : reading,
    );
    const checks = checkObservations(solved({ points: started(), readings: moved as SurveyReading[] }));
    const worst = checks.reduce((a, b) => (Math.abs(b.w ?? 0) > Math.abs(a.w ?? 0) ? b : a));
    expect(moved[worst.observation.reading]!.id).toBe('bS2R');
    expect(worst.observation.axis).toBe(0);
  });

  it('is unbiased, and as uncertain as it says, over two hundred seeds', () => {
    const truth = { id: 'd', kind: 'distance', from: 'S1L', to: 'S2R', sigma: 1 } as const;
    const value = Math.hypot(...subtract(SHELL.S1L!, SHELL.S2R!));
    const runs = Array.from({ length: 200 }, (_, seed) => {
      const random = seeded(seed + 1);
      const readings = [...tape(), ...held([8, -6, 5], [0.01, -0.02, 0.015])].map((reading): SurveyReading => {
        if (reading.kind !== 'position') return { ...reading, value: reading.value + random.normal() * reading.sigma };
        return { ...reading, value: mapAxes((k) => reading.value[k] + random.normal() * reading.sigma[k]) };
      });
      const { value: found, variance } = predict(solved({ points: started(), readings }), { ...truth, value });
      return { off: found - value, w: (found - value) / Math.sqrt(variance) };
    });
    const mean = (of: (run: (typeof runs)[number]) => number) =>
      runs.reduce((sum, run) => sum + of(run), 0) / runs.length;
    expect(Math.abs(mean(({ off }) => off))).toBeLessThan(0.05);
    expect(mean(({ w }) => w * w)).toBeGreaterThan(0.75);
    expect(mean(({ w }) => w * w)).toBeLessThan(1.3);
  });
});
