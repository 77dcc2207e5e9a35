import { describe, expect, it } from 'vitest';
import { NEW_SEAM } from '../../shell/job/entities';
import { judge } from '../../maths/statistics/verdict';
import { seamMeetings, type SeamJudgement } from './seams';

const seam = (
  code: string,
  ends: readonly [string | null, string | null],
  deviations: readonly number[],
): SeamJudgement => ({
  seam: {
    ...{ id: code, jobId: '', code, name: '', side: 'left', pairing: '', version: 1 },
    ...{ ...NEW_SEAM, fromPointId: ends[0], toPointId: ends[1] },
  },
  stations: deviations.map((deviation, i) => ({
    station: { id: `${code}${i}`, seamId: code, number: i + 1, name: '' },
    quantity: 'gap',
    measured: { value: 5 + deviation, sd: 0.25 },
    target: { value: 5, limit: 1, toCome: 0, referenceId: '' },
    judged: { ...judge(deviation, 0.25, 1), deviation },
  })),
});

describe('where seams meet', () => {
  it('holds the gaps of three panels at one place against each other', () => {
    const found = seamMeetings([seam('DF', ['sill', 'A'], [0, 0, 1.4]), seam('BN', ['nose', 'A'], [0, 0, -0.9])]);
    expect(found).toHaveLength(1);
    expect(found[0]).toMatchObject({ pointId: 'A', spread: { verdict: 'outside', limit: 1 } });
    expect(found[0]!.spread.value).toBeCloseTo(2.3, 9);
    expect(found[0]!.spread.sd).toBeCloseTo(0.25 * Math.SQRT2, 9);
    expect(found[0]!.ends.map(({ code }) => code)).toEqual(['DF', 'BN']);
  });

  it('says nothing of seams that lie nowhere, or were not read', () => {
    expect(
      seamMeetings([seam('DF', ['sill', 'A'], [0]), seam('BN', [null, null], [3]), seam('X', ['A', 'A2'], [])]),
    ).toEqual([]);
  });
});
