import { bench, describe } from 'vitest';
import { seeded } from '../maths/random/seeded';
import { shellNet } from '../practice/shell-net';
import { addReading } from './extend';
import { solveNet, type NetSolution } from './solve';
import type { Survey } from './survey';

/** Nets of growing size: a full solve with the joint covariance, and one more reading. */
const SIZES = [
  [15, 60],
  [30, 200],
  [60, 540],
  [150, 1850],
] as const;
const few = { time: 1500, iterations: 5, warmupIterations: 2 };

for (const [points, distances] of SIZES) {
  const { survey } = shellNet({ points, distances, startOff: 20 }, seeded(points));
  const whole = solved(survey);
  const last = survey.readings.at(-1)!;
  const before = solved({ ...survey, readings: survey.readings.slice(0, -1) });
  describe(`${points} points, ${survey.readings.length} readings`, () => {
    bench('full solve with covariance', () => void solveNet(survey), few);
    bench('the same from the last coordinates', () => void solveNet(survey, { from: whole.x }), few);
    bench('one more reading', () => void addReading(before, last), few);
  });
}

function solved(survey: Survey): NetSolution {
  const result = solveNet(survey);
  if (!result.ok) throw new Error(result.why);
  return result.solution;
}
