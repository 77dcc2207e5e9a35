import { afterEach, describe, expect, it, vi } from 'vitest';
import { demoRows } from '../../../../tests/support/demo-rows';
import { cutModel } from '../../plan/cut/cut-model';
import { settle } from '../../plan/settle';
import { judgeRound } from '../../round/judge/judge-round';
import { Job } from '../../shell/job/job';
import type { JobRows } from '../../shell/job/job-rows';
import { cuttingAdvice, cuttingPage } from './cutting';
import { fittingPage } from './fitting';
import { pullingPage } from './pulling';
import { roundsPage } from './rounds';
import { setUpPage } from './set-up';
import { weldingPage } from './welding';

/** Everything that is worked out of a job and kept while what it does not hang on changes. */
async function workedOut(job: Job) {
  const judged = job.rows.rounds.map((round) => judgeRound(job, round));
  return {
    judged,
    settled: judged.flatMap((judgement) =>
      judgement.points.map(({ point }) => settle(job, judgement, { kind: 'point', id: point.id })),
    ),
    pages: [
      cuttingPage(job),
      cuttingAdvice(job, { stage: 0, room: 'brace' }),
      fittingPage(job),
      pullingPage(job),
      roundsPage(job),
      weldingPage(job),
      setUpPage(job),
    ],
  };
}

afterEach(() => vi.restoreAllMocks());

describe('what is worked out without some tables', () => {
  it.each(['solbris', 'kvist', 'lodd', 'maake'] as const)('is the same as with them: %s', async (name) => {
    const rows = demoRows(name);
    const without = await workedOut(Job.of(rows));
    vi.spyOn(Job.prototype, 'without').mockImplementation(function (this: Job) {
      return this;
    });
    expect(await workedOut(Job.of({ ...rows }))).toEqual(without);
  });

  it('is kept while a step is ticked, and worked out anew when a brace goes or a reading comes', () => {
    const rows = demoRows('solbris');
    const of = (changed: Partial<JobRows>) => Job.of({ ...rows, ...changed });
    const [job, ticked] = [of({}), of({ stepEvents: rows.stepEvents.slice(1), changes: [] })];
    const [round] = rows.rounds;
    expect(cutModel(ticked)).toBe(cutModel(job));
    expect(judgeRound(ticked, round!)).toBe(judgeRound(job, round!));
    const braceless = of({ braces: rows.braces.slice(1) });
    expect(cutModel(braceless)!.braces).toHaveLength(cutModel(job)!.braces.length - 1);
    expect(judgeRound(braceless, round!)).toBe(judgeRound(job, round!));
    const unread = of({ readings: rows.readings.slice(1) });
    expect(judgeRound(unread, round!).measured).not.toEqual(judgeRound(job, round!).measured);
    expect(cutModel(unread)).not.toBe(cutModel(job));
  });
});
