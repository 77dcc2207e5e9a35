import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { theJob } from '@/core/shell/job/job-rows';
import { chartOf } from '@/core/shell/references/chosen';
import { loadJob } from '@/db/jobs';
import type { Outcome } from '@/formats/outcome';
import { savePoint } from '@/server/actions/chart';
import { editJob } from '@/server/actions/jobs';
import { openRound, recordRoundEvent } from '@/server/actions/rounds';
import { addStep } from '@/server/actions/steps';
import { withdraw } from '@/server/actions/work';
import { takeTapeEntry } from '@/server/readings';
import { store } from '@/server/store';

/** What the writers of one process are to work at. */
export interface Task {
  readonly jobId: string;
  /** A round they fill, and one that is closed while they fill it. */
  readonly roundId: string;
  readonly closingId: string;
  readonly instrumentVersionId: string;
  readonly pointId: string;
  /** What all of them take back. */
  readonly eventId: string;
  /** A step that all of them add, by one form. */
  readonly stepId: string;
  readonly form: string;
  readonly writers: number;
  readonly times: number;
}

/** How often each thing was done, and what was wrong with it. */
export interface Tally {
  readonly done: Readonly<Record<string, number>>;
  /** Anything that was refused in a way nobody foresees. */
  readonly odd: readonly string[];
}

/** Many writers at once in a process of its own: run with a `Task` as JSON, begins on a line of input, tells a `Tally`. */
const task = JSON.parse(process.argv[2]!) as Task;
const { jobId } = task;
const { database, close } = await store();
const done: Record<string, number> = {};
const odd: string[] = [];

/** Counts what was done; a refusal must be one of those that are foreseen. */
function count(what: string, outcome: Outcome<unknown>, foreseen?: RegExp): boolean {
  if (outcome.ok) done[what] = (done[what] ?? 0) + 1;
  else {
    const said = outcome.faults.map(({ path, message }) => `${path}: ${message}`).join('; ');
    if (!foreseen?.test(said)) odd.push(`${what} – ${said}`);
  }
  return outcome.ok;
}

const height = (roundId: string, value: number) => ({
  roundId,
  readings: [
    {
      ...{ id: randomUUID(), lineId: randomUUID(), instrumentVersionId: task.instrumentVersionId, author: 'Ronja' },
      ...{ raw: `F1L h ${value}`, takenAt: new Date().toISOString(), quantity: 'height', value, phase: 'none' },
      ...{ measure: null, pointId: task.pointId, toPointId: null, stationId: null, pullId: null },
      ...{ pointerFrom: null, pointerTo: null, fit: null, partHoleId: null, toward: null },
    },
  ],
  strike: null,
});

async function writer(k: number): Promise<void> {
  const step = { jobId, rung: 'weld' as const, note: '', needs: '' };
  const once = await addStep({ ...step, id: task.stepId, title: 'Once' }, task.form);
  count('told of the one form', once);
  let refused = false;
  for (let i = 0; i < task.times; i++) {
    count('line', await takeTapeEntry(height(task.roundId, 540 + i), randomUUID));
    count('step', await addStep({ ...step, id: randomUUID(), title: `${k} ${i}` }));
    const rows = (await loadJob(database, jobId))!;
    count('job', await editJob({ ...theJob(rows), owner: `${process.pid} ${k} ${i}` }), /somebody else|changed/);
    const reference = rows.referencePoints.find(
      (row) => row.pointId === task.pointId && row.referenceId === chartOf(rows)!.id,
    )!;
    const point = rows.points.find(({ id }) => id === task.pointId)!;
    count('chart', await savePoint({ point, reference: { ...reference, z: 500 + i } }), /somebody else|changed/);
    const taken = count('line of the other', await takeTapeEntry(height(task.closingId, 1), randomUUID), /is closed/);
    if (taken && refused) odd.push('a line was taken after one was refused since the round is closed');
    refused ||= !taken;
    if (k === 0 && i === Math.floor(task.times / 2)) {
      const closed = { id: randomUUID(), roundId: task.closingId, kind: 'closed' as const, reason: '' };
      count('closed', await recordRoundEvent(closed), /closed/);
    }
  }
  const ids = { id: randomUUID(), jobId };
  count(
    'round',
    await openRound({
      round: {
        ...{ ...ids, name: `of ${k}`, stateId: ids.id, supportId: ids.id },
        ...{ instrumentVersionId: task.instrumentVersionId, temperature: 18, shell: '' },
      },
      state: { ...ids, kind: 'asFound', note: '' },
      support: { ...ids, kind: 'stands', suspension: 'off', note: '' },
      control: [],
    }),
  );
  const back = { jobId, tableName: 'work_event' as const, rowId: task.eventId, kind: 'withdrawn' as const };
  count('taken back', await withdraw({ id: randomUUID(), ...back, reason: 'pressed by mistake' }));
}

console.log('ready');
await once(process.stdin, 'data');
await Promise.all(Array.from({ length: task.writers }, (_, k) => writer(k)));
console.log(JSON.stringify({ done, odd } satisfies Tally));
await close();
process.exit(0);
