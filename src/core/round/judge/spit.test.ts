import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../../tests/support/demo-rows';
import { Job } from '../../shell/job/job';
import { judgeRound } from './judge-round';

describe('a round on a roll-over spit', () => {
  it('locates and measures, and gives no verdict: that is for the measuring support', () => {
    const rows = demoRows('lodd');
    const [round] = rows.rounds;
    const supports = rows.supports.map((each) =>
      each.id === round!.supportId ? { ...each, kind: 'spit' as const } : each,
    );
    const onBench = judgeRound(Job.of(rows), round!);
    const onSpit = judgeRound(Job.of({ ...rows, supports }), round!);
    expect(onBench.points.some(({ judged }) => judged)).toBe(true);
    expect(onSpit.located.size).toBe(onBench.located.size);
    for (const each of [...onSpit.points, ...onSpit.dimensions]) expect('judged' in each).toBe(false);
    const before = onBench.points.filter(({ judged }) => judged).length;
    expect(onSpit.points.filter(({ lacking }) => lacking === 'onSpit')).toHaveLength(before);
    expect(onSpit.dimensions.find(({ lacking }) => lacking === 'onSpit')!.measured).toBeDefined();
  });
});
