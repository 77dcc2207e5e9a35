import { notFound } from 'next/navigation';
import { cache } from 'react';
import { newestBenches, type ListedBench } from '@/core/shell/benches';
import type { Round } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { TaskInput, TaskName, TaskResult } from '@/workers/tasks';
import { countJobs, jobsAlone, listJobs, type JobSummary, type Sought } from '@/db/jobs';
import { peopleHere } from '@/db/people';
import { shopRows } from '@/db/shop';
import { weldedElsewhere } from '@/db/welds';
import { packRows, type PackedRows } from '@/formats/packed-rows';
import { rowsAt } from './rows-at';
import { store } from './store';
import { runTask } from './tasks';

/** The jobs last worked on, of those in which a text is found, and how many there are. */
export async function jobsListed({ find, most }: Required<Sought>): Promise<ListedJobs> {
  const { database } = await store();
  const [jobs, counts] = await Promise.all([listJobs(database, { find, most }), countJobs(database, find)]);
  return { jobs, counts, find, most };
}

/** All jobs by themselves, the newest first. */
export const allJobs = async () => jobsAlone((await store()).database);

interface ListedJobs extends Required<Sought> {
  readonly jobs: readonly JobSummary[];
  readonly counts: Awaited<ReturnType<typeof countJobs>>;
}

/** The rows of a job; a page of no job is not found. */
export const jobRows = cache(async (jobId: string): Promise<JobRows> => {
  const isId = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i.test(jobId);
  return (isId ? await rowsAt((await store()).database, jobId) : undefined) ?? notFound();
});

/** A job and what a task makes of it, for a page. */
export async function jobAnd<Name extends TaskName>(
  jobId: string,
  task: Name,
  input: TaskInput<Name>,
): Promise<{ readonly rows: JobRows; readonly made: TaskResult<Name> }> {
  const rows = await jobRows(jobId);
  return { rows, made: await runTask(task, rows, input) };
}

/** A job's rows and one of its rounds; a page of no such round is not found. */
export async function roundRows({ job, round: roundId }: RoundParams): Promise<{ rows: JobRows; round: Round }> {
  const rows = await jobRows(job);
  const round = rows.rounds.find((each) => each.id === roundId);
  return round ? { rows, round } : notFound();
}

export interface RoundParams {
  readonly job: string;
  readonly round: string;
}

/** The same rows with the readings of some rounds only, and nothing that no round is judged by. */
export function ofRounds(rows: JobRows, roundIds: readonly string[]): JobRows {
  const readings = rows.readings.filter((reading) => roundIds.includes(reading.roundId));
  const ids = new Set(readings.map((reading) => reading.id));
  return {
    ...rows,
    readings,
    readingStrikes: rows.readingStrikes.filter((strike) => ids.has(strike.readingId)),
    signedRecords: [],
    photographs: [],
    changes: [],
    steps: [],
    stepEvents: [],
    stepNeeds: [],
    stepPeople: [],
    bookings: [],
    timers: [],
  };
}

/** The same packed: what a page sends to the browser. */
export const rowsForRounds = (rows: JobRows, roundIds: readonly string[]): PackedRows =>
  packRows(ofRounds(rows, roundIds));

/** The shop's instruments and all their versions, oldest first. */
export async function shopInstruments() {
  const { instruments, instrumentVersions: versions } = await shopRows((await store()).database);
  return { instruments, versions };
}

/** The shop's benches, each in its newest version. */
export const shopBenches = async (): Promise<ListedBench[]> => newestBenches(await shopRows((await store()).database));

/** Joints of the shop's other jobs of which somebody read what they shrank. */
export const elsewhere = async (jobId: string) => ({
  elsewhere: await weldedElsewhere((await store()).database, jobId),
});

/** Everybody in the shop, by name. */
export async function people(): Promise<string[]> {
  return (await peopleHere((await store()).database)).map(({ name }) => name);
}

/** The previews of some photographs, by their ids. */
export async function photographPreviews(ids: readonly string[]): Promise<Map<string, Uint8Array>> {
  const { database } = await store();
  const rows = await database.query<{ id: string; preview: Uint8Array }>(
    'select id, preview from photograph_content where id = any($1::uuid[])',
    [ids],
  );
  return new Map(rows.map((row) => [row.id, row.preview]));
}
