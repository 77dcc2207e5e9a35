import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../../tests/support/demo-rows';
import { judgeRound } from '../../round/judge/judge-round';
import { Job } from '../job/job';
import { nextEdition } from './editions';

const lodd = demoRows('lodd');
const [chart] = lodd.references;
const closed = lodd.rounds.at(-1)!;
const retired = lodd.points.find(({ code }) => code === 'F1L')!;

/** The chart's next edition without one point, made after the rounds were closed. */
function withoutPoint() {
  let made = 0;
  const newId = () => `00000000-0000-4000-8000-${String(++made).padStart(12, '0')}`;
  const next = nextEdition(lodd, chart!, '2026-12-01T08:00:00.000Z', newId).rows;
  return {
    ...lodd,
    references: [
      ...lodd.references.map((each) => ({ ...each, inUse: each.id !== chart!.id && each.inUse })),
      ...next.references,
    ],
    referencePoints: [...lodd.referencePoints, ...next.referencePoints.filter(({ pointId }) => pointId !== retired.id)],
    referenceDimensions: [...lodd.referenceDimensions, ...next.referenceDimensions],
    referenceStations: [...lodd.referenceStations, ...next.referenceStations],
  };
}

describe('a point retired from the chart', () => {
  const rows = withoutPoint();
  const judged = (round: typeof closed) =>
    judgeRound(Job.of({ ...rows }), round).points.find(({ point }) => point.id === retired.id)!.judged;

  it('keeps its verdict in the rounds that were closed with it', () => {
    const before = judgeRound(Job.of(lodd), closed).points.find(({ point }) => point.id === retired.id)!.judged!;
    expect(judged(closed)).toMatchObject({ verdict: before.verdict, limit: before.limit });
    expect(judged(closed)!.deviation.d).toBeCloseTo(before.deviation.d, 9);
  });

  it('is judged no more in a round that is open', () => {
    expect(judged({ ...closed, closedAt: null })).toBeUndefined();
  });
});
