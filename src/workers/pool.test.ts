import { beforeEach, describe, expect, it } from 'vitest';
import type { JobRows } from '@/core/shell/job/job-rows';
import { demoRows } from '../../tests/support/demo-rows';
import { TaskEnded, TaskPool } from './pool';
import { taskServer, type TaskMessage, type TaskRequest } from './serve';

const rows = demoRows('kvist');

/** A pool whose workers answer in this thread, one message later, or not at all while they are stopped. */
function poolOf(most: number) {
  const sent: { readonly worker: number; readonly request: TaskRequest }[] = [];
  const ended: number[] = [];
  const state = { answering: true, started: 0 };
  const pool = new TaskPool((receive) => {
    const worker = state.started++;
    const serve = taskServer((message: TaskMessage) => receive(structuredClone(message)));
    return {
      post(request) {
        const copy = structuredClone(request);
        sent.push({ worker, request: copy });
        if (state.answering) queueMicrotask(() => serve(copy));
      },
      end: () => ended.push(worker),
    };
  }, most);
  return { pool, sent, ended, state };
}

const struck = (of: JobRows): JobRows => ({
  ...of,
  readingStrikes: of.readings.slice(0, 3).map(({ id }) => ({
    ...{ id, readingId: id, struckAt: '2026-01-02T08:00:00.000Z', author: 'Ronja', personId: null, reason: 'misread' },
    replacedByLineId: null,
  })),
});

describe('the pool of workers', () => {
  let { pool, sent, ended, state } = poolOf(1);
  beforeEach(() => ({ pool, sent, ended, state } = poolOf(1)));

  it('sends rows once, then names them, then sends only the tables that changed', async () => {
    const roundId = rows.rounds[0]!.id;
    const judged = async (of: TaskPool, state: JobRows) => (await of.run('judge', state, { roundId })).value;
    const first = await judged(pool, rows);
    await judged(pool, rows);
    const later = struck(rows);
    const after = await judged(pool, later);
    expect(
      sent.map(({ request }) => request.rows && [Object.keys(request.rows.tables).length, request.rows.rest]),
    ).toEqual([[Object.keys(rows).length, undefined], undefined, [1, 'rows 1']]);
    const fresh = await judged(poolOf(1).pool, later);
    expect(after).toEqual(fresh);
    expect(after).not.toEqual(first);
  });

  it('sends what a worker has forgotten again, as the difference from the nearest state it has', async () => {
    const states = [0, 1, 2, 3, 4].map(() => ({ ...rows, points: structuredClone(rows.points) }));
    for (const state of states) await pool.run('rounds', state, undefined);
    expect(sent.flatMap(({ request }) => request.forget)).toEqual(['rows 1', 'rows 2']);
    await pool.run('rounds', { ...states[3]!, steps: [] }, undefined);
    expect(sent.at(-1)!.request.rows).toMatchObject({ tables: { steps: [] }, rest: 'rows 4' });
    await pool.run('rounds', states[0]!, undefined);
    expect(sent.at(-1)!.request.rows).toMatchObject({ tables: { points: rows.points }, rest: 'rows 5' });
  });

  it('sends of a table that goes on only what was added', async () => {
    const judged = async (of: TaskPool, state: JobRows) =>
      (await of.run('judge', state, { roundId: rows.rounds[0]!.id, warm: true })).value;
    const states = [0, 1, 4, 5].map((added) => ({
      ...rows,
      readings: rows.readings.slice(0, rows.readings.length - 5 + added),
    }));
    const answers: unknown[] = [];
    for (const state of states) answers.push(await judged(pool, state));
    expect(sent.slice(1).map(({ request }) => request.rows?.more?.readings?.length)).toEqual([1, 3, 1]);
    expect(sent.slice(1).every(({ request }) => Object.keys(request.rows!.tables).length === 0)).toBe(true);
    // What another worker makes of all the rows at once.
    const whole = await judged(poolOf(1).pool, states[3]!);
    expect(answers[3]).toMatchObject({ measured: (whole as { measured: object }).measured });
    // A line that is gone, or another in its place, is no addition.
    const [first, ...others] = states[3]!.readings;
    await judged(pool, { ...states[3]!, readings: [...others, first!] });
    expect(sent.at(-1)!.request.rows!.tables.readings).toHaveLength(rows.readings.length);
    await judged(pool, states[0]!);
    expect(sent.at(-1)!.request.rows?.more).toBeUndefined();
  });

  it('keeps a job while another is written to line after line', async () => {
    const other = demoRows('maake');
    await pool.run('rounds', other, undefined);
    for (let line = 0; line < 10; line++) await pool.run('rounds', struck(rows), undefined);
    await pool.run('rounds', { ...other, steps: [] }, undefined);
    expect(sent.at(-1)!.request.rows).toEqual({ tables: { steps: [] }, rest: 'rows 1' });
  });

  it('forgets the job that was used longest ago', async () => {
    const jobs = (['kvist', 'maake', 'lodd', 'solbris'] as const).map((name) => demoRows(name));
    for (const job of jobs) await pool.run('rounds', job, undefined);
    expect(sent.map(({ request }) => request.forget)).toEqual([[], [], [], ['rows 1']]);
  });

  it('gives a task to the worker that did it before, with the rows that were then', async () => {
    const two = poolOf(2);
    await Promise.all([two.pool.run('rounds', rows, undefined), two.pool.run('time', rows, undefined)]);
    for (let state = 0; state < 3; state++) await two.pool.run('time', struck(rows), undefined);
    await two.pool.run('rounds', struck(rows), undefined);
    expect(two.sent.map(({ worker, request }) => [worker, request.task])).toEqual([
      [0, 'rounds'],
      [1, 'time'],
      [1, 'time'],
      [1, 'time'],
      [1, 'time'],
      [0, 'rounds'],
    ]);
  });

  it('takes a cancelled task out of the queue, and lets the running one go on', async () => {
    state.answering = false;
    const control = new AbortController();
    const running = pool.run('rounds', rows, undefined);
    const waiting = pool.run('rounds', rows, undefined, { signal: control.signal });
    control.abort();
    await expect(waiting).rejects.toMatchObject({ why: 'cancelled' });
    expect(sent).toHaveLength(1);
    pool.close();
    await expect(running).rejects.toBeInstanceOf(TaskEnded);
  });

  it('ends a worker that takes too long, and starts another for the next task', async () => {
    state.answering = false;
    await expect(pool.run('rounds', rows, undefined, { budget: 5 })).rejects.toMatchObject({ why: 'tooLong' });
    expect(ended).toEqual([0]);
    state.answering = true;
    await pool.run('rounds', rows, undefined);
    expect(sent.at(-1)).toMatchObject({ worker: 1, request: { rows: { tables: { points: rows.points } } } });
  });

  it('says what went wrong in a task, and works on', async () => {
    await expect(pool.run('judge', rows, { roundId: 'gone' })).rejects.toThrow('the job has no round gone');
    expect(await pool.run('rounds', rows, undefined)).toHaveLength(rows.rounds.length);
  });

  it('gives work to a second worker only while the first is busy', async () => {
    const two = poolOf(2);
    await two.pool.run('rounds', rows, undefined);
    await two.pool.run('rounds', struck(rows), undefined);
    expect(two.state.started).toBe(1);
    await Promise.all([two.pool.run('rounds', rows, undefined), two.pool.run('rounds', rows, undefined)]);
    expect(two.state.started).toBe(2);
  });
});
