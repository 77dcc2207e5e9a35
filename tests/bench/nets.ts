import type { Case } from './case';
import { seeded } from '@/core/maths/random/seeded';
import { shellNet } from '@/core/practice/shell-net';
import { addReading } from '@/core/survey/extend';
import { solveNet, type NetSolution } from '@/core/survey/solve';
import type { Survey } from '@/core/survey/survey';

/** Nets of growing size: a full solve with the joint covariance, and one more reading. */
const SIZES = [
  [15, 60],
  [30, 200],
  [60, 540],
  [150, 1850],
] as const;

export const nets: Case[] = SIZES.flatMap(([points, distances]) => {
  const { survey } = shellNet({ points, distances, startOff: 20 }, seeded(points));
  const whole = solved(survey);
  const last = survey.readings.at(-1)!;
  const before = solved({ ...survey, readings: survey.readings.slice(0, -1) });
  const of = `net of ${points} points, ${survey.readings.length} readings`;
  return [
    { of, what: 'full solve with joint covariance', run: () => solveNet(survey) },
    { of, what: 'from the last coordinates', run: () => solveNet(survey, { from: whole.x }) },
    { of, what: 'one more reading', run: () => addReading(before, last) },
  ];
});

function solved(survey: Survey): NetSolution {
  const result = solveNet(survey);
  if (!result.ok) throw new Error(result.why);
  return result.solution;
}
