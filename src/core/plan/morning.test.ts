import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../tests/support/demo-rows';
import { judgeReadings } from '../findings/morning';
import { seeded } from '../maths/random/seeded';
import { judgeRound } from '../round/judge/judge-round';
import { Job } from '../shell/job/job';
import { morningThree, type MorningProposal } from './morning';

const solbris = demoRows('solbris');
const job = Job.of(solbris);
const proposal = morningThree(job) as MorningProposal;
const { pairs, version, roundId } = proposal.what;
const code = (id: string) => job.code(id);
const verdictOf = (off: (i: number) => number) =>
  judgeReadings(
    pairs.map((pair, i) => ({ ...pair, value: pair.expected + off(i) })),
    code,
  );

describe('the three readings of a morning', () => {
  it('are lengths of the last round, read with the instrument it was read with', () => {
    const braced = solbris.rounds.at(-1)!;
    expect(roundId).toBe(braced.id);
    const read = job.standingReadings(braced).filter(({ quantity }) => quantity === 'distance');
    expect(version.instrumentId).toBe(job.version(read.at(-1)!.instrumentVersionId).instrumentId);
    const key = (a: string, b: string) => [a, b].sort().join();
    const known = new Set(read.map(({ pointId, toPointId }) => key(pointId!, toPointId!)));
    expect(new Set(pairs.map(({ fromPointId, toPointId }) => key(fromPointId, toPointId))).size).toBe(3);
    for (const { fromPointId, toPointId } of pairs) expect(known.has(key(fromPointId, toPointId))).toBe(true);
  });

  it('expect what the net of that round says', () => {
    const { located } = judgeRound(job, job.round(roundId)!);
    for (const { fromPointId, toPointId, measure, expected } of pairs) {
      const [a, b] = [located.get(fromPointId)!.position, located.get(toPointId)!.position];
      const apart = Math.hypot(a[0] - b[0], a[1] - b[1], measure === 'level' ? 0 : a[2] - b[2]);
      expect(expected).toBeCloseTo(apart, 6);
    }
  });

  it('leave less open of every way a shell moves, and say of which how much', () => {
    expect(proposal.why.map(({ kind }) => kind)).toEqual(['diamond', 'twist', 'mash', 'sway', 'sag']);
    for (const { noticed } of proposal.why) expect(noticed).toBeLessThanOrEqual(4 + 1e-9);
    expect(Math.min(...proposal.why.map(({ noticed }) => noticed))).toBeLessThan(2.5);
  });

  it('need a round with lengths in it', () => {
    expect(morningThree(Job.of({ ...solbris, readings: [] }))).toEqual({ missing: 'round' });
  });
});

describe('the verdict of a morning', () => {
  it('is that nothing moved while the readings are what they were', () => {
    expect(verdictOf(() => 0)).toMatchObject({ verdict: 'still' });
  });

  it('names the length that moved, and only that', () => {
    const { verdict, readings } = verdictOf((i) => (i === 1 ? 5 * pairs[1]!.sd : 0));
    expect([verdict, readings.map(({ moved }) => moved)]).toEqual(['moved', [false, true, false]]);
    expect(readings[1]!.change).toBeCloseTo(5 * pairs[1]!.sd, 9);
  });

  it('is a false alarm once in a hundred mornings, however the readings hang together', () => {
    const random = seeded(31);
    let alarms = 0;
    for (let morning = 0; morning < 2000; morning++) {
      const common = random.normal();
      // What the round before was wrong by is in all three.
      if (verdictOf((i) => pairs[i]!.sd * (0.6 * common + 0.8 * random.normal())).verdict === 'moved') alarms++;
    }
    expect(alarms / 2000).toBeLessThan(0.016);
    expect(alarms / 2000).toBeGreaterThan(0.003);
  });
});
