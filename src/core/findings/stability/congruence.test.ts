import { describe, expect, it } from 'vitest';
import { add, position, type Vector } from '../../maths/geometry/vector';
import { seeded, type Random } from '../../maths/random/seeded';
import { shellNet } from '../../practice/shell-net';
import { jointOf } from '../../survey/prediction';
import { solveNet } from '../../survey/solve';
import { congruence, type FreeRound } from './congruence';

/** A round measured on a shell some of whose points have gone elsewhere. */
function round<F extends 'earlier' | 'later'>(
  random: Random,
  shell: number,
  moved: (id: string) => Vector | undefined,
  tilt = 0,
): FreeRound<F> {
  const { survey, truth } = shellNet({ points: 20, distances: 80, startOff: 0 }, seeded(shell));
  const at = new Map([...truth].map(([id, p]) => [id, add(p, moved(id) ?? [0, 0, 0])]));
  const readings = survey.readings.map((reading) => {
    if (reading.kind === 'height')
      return {
        ...reading,
        value: at.get(reading.point)![2] + tilt * at.get(reading.point)![0] + 0.7 * random.normal(),
      };
    if (reading.kind !== 'distance') return reading;
    const [a, b] = [at.get(reading.from)!, at.get(reading.to)!];
    return { ...reading, value: Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]) + 0.8 * random.normal() };
  });
  const result = solveNet({ points: survey.points, readings });
  if (!result.ok) throw new Error(result.why);
  const { solution } = result;
  return {
    points: new Map(
      solution.survey.points.map(({ id }, i) => [id, position<F>(solution.x.subarray(3 * i, 3 * i + 3))]),
    ),
    joint: jointOf<F>(solution),
  };
}

const compared = (earlier: FreeRound<'earlier'>, later: FreeRound<'later'>) => {
  const result = congruence(earlier, later);
  if (!result.ok) throw new Error(result.reason);
  return result;
};
const still = () => undefined;

describe('did it move', { timeout: 60_000 }, () => {
  it('calls an unmoved shell moved in no more than one case of twenty', () => {
    const random = seeded(31);
    let alarms = 0;
    for (let seed = 1; seed <= 60; seed++)
      if (compared(round(random, seed, still), round(random, seed, still)).tests.some(({ moved }) => moved)) alarms++;
    expect(alarms).toBeLessThanOrEqual(6);
  });

  it('names the points that moved and no others, however the shell stands on its supports', () => {
    const random = seeded(7);
    const gone = new Map<string, Vector>([
      ['P8L', [-9, 4, 6]],
      ['P9L', [-12, 6, 9]],
      ['P9R', [-2, 7, 0]],
      ['P8R', [0, 8, 0]],
    ]);
    let [seen, wrong] = [0, 0];
    for (let seed = 1; seed <= 10; seed++) {
      const result = compared(
        round(random, seed, still),
        round(random, seed, (id) => gone.get(id), 0.01),
      );
      const moved = result.tests.filter((test) => test.moved).map(({ id }) => id);
      seen += moved.filter((id) => gone.has(id)).length;
      wrong += moved.filter((id) => !gone.has(id)).length;
      for (const test of result.tests.filter(({ id }) => gone.has(id)))
        gone.get(test.id)!.forEach((truth, axis) => {
          expect(Math.abs(test.change[axis]! - truth)).toBeLessThan(4 * Math.sqrt(test.covariance[4 * axis]!));
        });
    }
    expect(seen).toBeGreaterThanOrEqual(37);
    expect(wrong).toBeLessThanOrEqual(1);
  });

  it('is not misled when nearly half the points moved together', () => {
    const random = seeded(19);
    const rear = (id: string): Vector | undefined => (Number(id.slice(1, -1)) >= 6 ? [-10, 9, 7] : undefined);
    const result = compared(round(random, 3, still), round(random, 3, rear));
    expect(result.stable).toHaveLength(12);
    expect(result.stable.every((id) => rear(id) === undefined)).toBe(true);
  });

  it('says what is missing where the rounds have too little in common', () => {
    const random = seeded(2);
    const whole = round<'earlier'>(random, 1, still);
    const again = round<'later'>(random, 1, still);
    const few = { ...again, points: new Map([...again.points].slice(0, 3)) };
    expect(congruence(whole, few)).toMatchObject({
      ok: false,
      reason: expect.stringContaining('only 3 located points in common'),
    });
  });
});
