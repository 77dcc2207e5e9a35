import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../../tests/support/demo-rows';
import { Job } from '../../shell/job/job';
import type { JobRows } from '../../shell/job/job-rows';
import { recordDocument } from '../../shell/record-document';
import { buildRecord } from './record';
import { signedWith } from './signed';

const MADE = '2026-11-28T10:00:00.000Z';
const lodd = demoRows('lodd');
const of = (rows: JobRows) => buildRecord(Job.of(rows), MADE);
const record = of(lodd);

describe('what a record says of the whole shell', () => {
  it('counts every figure that was judged, and names what was accepted with its reason', () => {
    const { judged, outside, undecided, exceptions } = record.conformity!;
    const { points, dimensions } = record.final!;
    expect(judged).toBe(points.length + dimensions.length);
    const count = (verdict: string) =>
      points.filter((each) => each.verdict === verdict).length +
      dimensions.filter((each) => each.verdict === verdict && !each.accepted).length;
    expect([outside, undecided]).toEqual([count('outside'), count('undecided')]);
    expect(exceptions).toMatchObject([
      { code: 'NW1', author: 'Alva', reason: expect.stringMatching(/^Within the chart/) },
    ]);
  });

  it('gives no verdict while something holds the shell, whatever reason is given', () => {
    const braced = { ...lodd, workEvents: lodd.workEvents.filter(({ kind }) => kind !== 'removed') };
    const signed = signedWith(of(braced), () => 'the owner wants it so');
    expect(signed.conformity).toMatchObject({ verdict: 'notGiven', still: [{ kind: 'bracesIn', codes: ['N1'] }] });
  });

  it('lets what was put in for a while stay where somebody says why', () => {
    const still = [...record.conformity!.still, { kind: 'closeOut' as const, names: ['BN screw'] }];
    const open = [...record.open!, { kind: 'closeOut' as const, subject: 'BN screw', reason: '' }];
    const waiting = { ...record, open, conformity: { ...record.conformity!, still, verdict: 'notGiven' as const } };
    expect(signedWith(waiting, () => 'it stays').conformity!.verdict).toBe('undecided');
    expect(signedWith(waiting, ({ kind }) => (kind === 'closeOut' ? '' : 'known')).conformity!.verdict).toBe(
      'notGiven',
    );
  });

  it('conforms where nothing is outside or undecided, and says so of what was accepted', () => {
    const all = { ...record.conformity!, undecided: 0 };
    const signed = (conformity: typeof all) => signedWith({ ...record, conformity }, () => 'x').conformity!.verdict;
    expect(signed(all)).toBe('except');
    expect(signed({ ...all, exceptions: [] })).toBe('conforms');
    expect(signed({ ...all, outside: 1 })).toBe('doesNot');
  });

  it('carries how the shell stood, was cut, welded and read through its rounds, and stays readable', () => {
    const { setUps, cuts, welds, history, axles } = record;
    expect(setUps![0]!.mounts).toHaveLength(8);
    expect(cuts!.map(({ part, state }) => [part, state])).toContainEqual(['Left nose leg', 'in']);
    expect(welds!.every(({ places, laid }) => places === laid)).toBe(true);
    expect(welds!.find(({ beside }) => beside === 'nose leg')!.shrank.map(({ by }) => by)).toEqual([
      expect.closeTo(0.6, 9),
      expect.closeTo(0.5, 9),
    ]);
    expect(history!.find(({ code }) => code === 'NW1')!.values).toHaveLength(3);
    expect(axles!.stand.difference.verdict).toBe('inside');
    const sent = JSON.parse(JSON.stringify(of(demoRows('solbris')))) as unknown;
    expect(recordDocument.parse(sent)).toEqual(sent);
  });
});
