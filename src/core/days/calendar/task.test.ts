import { describe, expect, it } from 'vitest';
import type { Step, StepEvent } from '../../shell/job/entities';
import { NEW_STEP } from '../../shell/job/entities';
import { Job } from '../../shell/job/job';
import { emptyJobRows } from '../../shell/job/job-rows';
import { calendarRows, curedIn } from './task';

const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const NOW = Date.parse('2026-11-27T09:00:00Z');
const step = (n: number, more: Partial<Step> = {}): Step => ({
  ...{
    ...NEW_STEP,
    id: id(n),
    jobId: id(0),
    rung: 'weld',
    title: `Step ${n}`,
    ordinal: n,
    note: '',
    needs: '',
    version: 1,
  },
  ...more,
});
const said = (n: number, kind: StepEvent['kind'], at: string, until: string | null = null): StepEvent => ({
  ...{
    id: id(100 + n),
    stepId: id(n),
    kind,
    until,
    at: `2026-11-27T${at}:00.000Z`,
    author: 'Nils',
    personId: null,
    note: '',
  },
});
const rowsOf = (
  steps: readonly Step[],
  events: readonly StepEvent[] = [],
  needs: readonly (readonly [number, number])[] = [],
) =>
  calendarRows(
    Job.of({
      ...emptyJobRows(),
      steps: [...steps],
      stepEvents: [...events],
      stepNeeds: needs.map(([stepId, needsId]) => ({ stepId: id(stepId), needsId: id(needsId) })),
    }),
    NOW,
  );

describe('the steps of a job in its calendar', () => {
  it('cure half as long for every ten degrees more, where warmth is a matter at all', () => {
    expect(curedIn(1440, 20)).toBe(1440);
    expect(curedIn(1440, 10)).toBe(2880);
    expect(curedIn(1440, 30)).toBe(720);
    expect(curedIn(1440, null)).toBe(1440);
    const [sealed] = rowsOf([step(1, { minutes: 60, waits: 1440, curesAt: 10, keeps: 600 })]).steps;
    expect(sealed).toMatchObject({ wait: 2880, keeps: 1200 });
  });

  it('take an hour where nobody said how long', () => {
    expect(rowsOf([step(1)]).steps[0]!.minutes).toBe(60);
  });

  it('need what a dropped step needed, in its place', () => {
    const { steps } = rowsOf(
      [step(1), step(2), step(3)],
      [said(2, 'dropped', '08:00')],
      [
        [2, 1],
        [3, 2],
      ],
    );
    expect(steps.map((each) => [each.id, each.needs])).toEqual([
      [id(1), []],
      [id(3), [id(1)]],
    ]);
  });

  it('wait from when their work was done, until the time that was said, or until somebody says it is over', () => {
    const cures = step(1, { minutes: 60, waits: 120 });
    const is = (...events: StepEvent[]) => rowsOf([cures], events).steps[0]!.is;
    const at = Date.parse('2026-11-27T08:00:00Z');
    expect(is(said(1, 'done', '08:00'))).toEqual({ kind: 'worked', at, ready: at + 120 * 60_000 });
    const until = '2026-11-28T08:00:00.000Z';
    expect(is(said(1, 'curing', '08:00', until))).toEqual({ kind: 'worked', at, ready: Date.parse(until) });
    const over = { ...said(1, 'done', '08:30'), id: id(300) };
    expect(is(said(1, 'curing', '08:00', until), over)).toMatchObject({ ready: Date.parse('2026-11-27T08:30:00Z') });
  });

  it('a part on order is waited for, and work for which something is missing begins when it is there', () => {
    const until = '2026-12-04T12:00:00.000Z';
    const missing = [said(1, 'missing', '08:00', until)];
    const [order] = rowsOf([step(1, { minutes: 0, waits: 30_240 })], missing).steps;
    expect(order!.is).toMatchObject({ kind: 'worked', ready: Date.parse(until) });
    const [fit] = rowsOf([step(1, { minutes: 90 })], missing).steps;
    expect(fit).toMatchObject({ is: { kind: 'open' }, notBefore: Date.parse(until) });
  });
});
