import { describe, expect, it } from 'vitest';
import { taped, TAPED_ROUND as round, tapedId } from '../../../tests/support/taped';
import { demoRows } from '../../../tests/support/demo-rows';
import { judgeRound } from '../round/judge/judge-round';
import { Job } from '../shell/job/job';
import { expectationOf } from './wanted';

const whole = { measure: 'tip', stationId: null, pointerFrom: null, pointerTo: null } as const;
const length = (from: string, to: string) =>
  ({ ...whole, quantity: 'distance', pointId: tapedId(from), toPointId: tapedId(to) }) as const;
const height = (code: string) =>
  ({ ...whole, quantity: 'height', measure: null, pointId: tapedId(code), toPointId: null }) as const;

/** What a job of a few readings and no chart lets expect of another. */
const after = (job: Job, reading: Parameters<typeof expectationOf>[2]) =>
  expectationOf(job, judgeRound(job, round), reading, job.version(round.instrumentVersionId));

describe('of a shell without a chart, before anything is located', () => {
  it('a length is expected as it was read before, from either end', () => {
    expect(after(taped(['FL', 'RR', 2182]), length('RR', 'FL'))).toMatchObject({ value: 2182, from: 'readings' });
  });

  it('a height is expected as it was read before', () => {
    expect(after(taped(['FL', 215]), height('FL'))).toMatchObject({ value: 215, from: 'readings' });
    expect(after(taped(['FL', 215]), height('FR'))).toBeUndefined();
  });

  it('a length is expected about as long as on the other side, by as much as shells are bent', () => {
    const expected = after(taped(['FL', 'RR', 2182]), length('FR', 'RL'));
    expect(expected).toMatchObject({ value: 2182, from: 'otherSide' });
    expect(expected!.sd).toBeCloseTo(18 * Math.SQRT2, 0);
  });

  it('nothing is expected of a length that has no other side', () => {
    expect(after(taped(['FL', 'SL', 1100]), length('FR', 'SL'))).toBeUndefined();
    expect(after(taped(['FL', 'RL', 1800]), length('FL', 'FR'))).toBeUndefined();
  });
});

describe('what is expected is what the scale shows', () => {
  const job = taped(['FL', 'RR', 2182]);
  const judged = judgeRound(job, round);
  const version = job.version(round.instrumentVersionId);
  const reading = length('FL', 'RR');

  it('a tape that is begun at the 100 mm mark shows 100 more', () => {
    const begunAt = { ...version, startMark: version.startMark + 100 };
    const plain = expectationOf(job, judged, reading, version)!.value;
    expect(expectationOf(job, judged, reading, begunAt)!.value).toBeCloseTo(plain + 100, 9);
  });

  it('a bar with pointers of 120 and 300 mm shows 1000 where it is 1016.1 from tip to tip', () => {
    const tips = taped(['FL', 'RR', Math.hypot(1000, 180)]);
    expect(after(tips, { ...reading, pointerFrom: 120, pointerTo: 300 })!.value).toBeCloseTo(1000, 6);
  });

  it('a tape that does not grow shows more of a warm shell: 0.345 mm on 2 m at 35 °C', () => {
    const rows = { ...job.rows, rounds: [{ ...round, temperature: 35 }] };
    const warm = judgeRound(Job.of(rows), rows.rounds[0]!);
    const read = (steel: boolean) => expectationOf(Job.of(rows), warm, reading, { ...version, steel })!.value;
    expect(read(false) - read(true)).toBeCloseTo(2182 * 11.5e-6 * 15, 3);
  });
});

describe('where there is a net', () => {
  it('a reading of it is expected as the net says', () => {
    const job = Job.of(demoRows('solbris'));
    const open = job.rows.rounds.at(-1)!;
    const judged = judgeRound(job, open);
    const again = job
      .standingReadings(open)
      .find(({ quantity, pointId }) => quantity === 'height' && judged.located.has(pointId!))!;
    const expected = expectationOf(job, judged, again, job.version(again.instrumentVersionId))!;
    expect(expected.from).toBe('net');
    expect(Math.abs(expected.value - again.value)).toBeLessThan(5);
  });
});
