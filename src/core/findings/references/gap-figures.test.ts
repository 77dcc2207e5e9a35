import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../../tests/support/demo-rows';
import { Job } from '../../shell/job/job';
import { stationKey } from '../../shell/references/chosen';
import { fromEarlierRound, fromMirror } from './derive';
import { measuredGaps, sisterGaps } from './gap-figures';

const rows = demoRows('solbris');
const job = Job.of(rows);
const [asFound] = rows.rounds;
const station = (code: string, number: number) => {
  const seam = rows.seams.find((each) => each.code === code)!;
  return rows.seamStations.find((each) => each.seamId === seam.id && each.number === number)!.id;
};
const draftOf = (result: ReturnType<typeof fromEarlierRound>) => {
  if (!result.ok) throw new Error(result.reason);
  const { stations } = result.draft;
  return new Map(stations.map((each) => [stationKey(each.stationId, each.quantity), each]));
};

describe('gaps as a reference', () => {
  it('are what this car had before it was taken apart', () => {
    const gaps = draftOf(fromEarlierRound(job, asFound!));
    expect(gaps.size).toBe(36);
    expect(gaps.get(stationKey(station('DBL', 1), 'gap'))!.value).toBeCloseTo(2.1, 0);
  });

  it('are the good side’s on both, the other a little less sure', () => {
    const gaps = draftOf(fromMirror(job, asFound!, 'right'));
    const [right, left] = ['DBR', 'DBL'].map((code) => gaps.get(stationKey(station(code, 1), 'gap'))!);
    expect(left!.value).toBe(right!.value);
    expect(left!.sd).toBeGreaterThan(right!.sd);
  });

  it('need no chart and no place: a caliper and a round are enough', () => {
    const alone: typeof rows = {
      ...rows,
      ...{ references: [], referencePoints: [], referenceDimensions: [], referenceStations: [] },
      readings: rows.readings.filter(({ stationId }) => stationId !== null),
    };
    expect(draftOf(fromEarlierRound(Job.of(alone), asFound!)).size).toBe(36);
  });

  it('are the mean of sister cars, as sure as production let them scatter', () => {
    const car = (value: number) => ({
      measured: {
        points: new Map(),
        distances: [],
        gaps: [{ stationId: 's', quantity: 'gap' as const, value, sd: 0.25 }],
      },
    });
    const [one] = sisterGaps([car(4)] as unknown as Parameters<typeof sisterGaps>[0]);
    const [two] = sisterGaps([car(4), car(5)] as unknown as Parameters<typeof sisterGaps>[0]);
    expect(two!.value).toBeCloseTo(4.5, 9);
    expect(two!.sd).toBeLessThan(one!.sd);
    expect(measuredGaps(car(4) as unknown as Parameters<typeof measuredGaps>[0])).toHaveLength(1);
  });
});
