import type { Job } from '@/core/shell/job/entities';
import { JOB_TABLE_NAMES, type JobRows, type JobTable, type RowOf } from '@/core/shell/job/job-rows';
import type { Queryable } from './database';
import { columns } from './table';

/** One line of the job list. */
export interface JobSummary extends Job {
  readonly pointCount: number;
  readonly roundCount: number;
  readonly readingCount: number;
  readonly lastReadingAt: string | null;
  readonly recordCount: number;
}

export const listJobs = (db: Queryable): Promise<JobSummary[]> =>
  db.query(
    `select ${columns('jobs')},
       (select count(*)::int from point where point.job_id = job.id) as point_count,
       (select count(*)::int from round where round.job_id = job.id) as round_count,
       count(reading.id)::int as reading_count,
       max(reading.taken_at) as last_reading_at,
       (select count(*)::int from signed_record where signed_record.job_id = job.id) as record_count
     from job
     left join round on round.job_id = job.id
     left join reading on reading.round_id = round.id
     group by job.id
     order by max(reading.taken_at) desc nulls first, job.started_at desc`,
  );

/** How the rows of each table are found from the job: the `from … where` part, `$1` the job. */
const OF_JOB: Readonly<Record<JobTable, string>> = {
  jobs: 'job where job.id = $1',
  instruments: 'instrument where true or $1::uuid is null order by name',
  instrumentVersions: 'instrument_version where true or $1::uuid is null order by number',
  points: 'point where point.job_id = $1 order by code',
  dimensions: 'dimension where dimension.job_id = $1 order by code',
  memberLines: 'member_line where member_line.job_id = $1',
  seams: 'seam where seam.job_id = $1 order by code',
  seamStations:
    'seam_station join seam on seam.id = seam_station.seam_id where seam.job_id = $1 order by seam.code, seam_station.number',
  features: 'feature where feature.job_id = $1 order by code',
  shellStates: 'shell_state where shell_state.job_id = $1 order by reached_at',
  supports: 'support where support.job_id = $1',
  rounds: 'round where round.job_id = $1 order by number',
  roundControls: 'round_control join round on round.id = round_control.round_id where round.job_id = $1',
  references: 'reference where reference.job_id = $1 order by rank, created_at',
  referencePoints:
    'reference_point join reference on reference.id = reference_point.reference_id where reference.job_id = $1',
  referenceDimensions:
    'reference_dimension join reference on reference.id = reference_dimension.reference_id where reference.job_id = $1',
  referenceStations:
    'reference_station join reference on reference.id = reference_station.reference_id where reference.job_id = $1',
  referenceRounds:
    'reference_round join reference on reference.id = reference_round.reference_id where reference.job_id = $1',
  referenceChoices: 'reference_choice where reference_choice.job_id = $1 order by at',
  pulls: 'pull where pull.job_id = $1 order by code',
  pullEvents: 'pull_event join pull on pull.id = pull_event.pull_id where pull.job_id = $1 order by at',
  readings:
    'reading join round on round.id = reading.round_id where round.job_id = $1 order by round.number, reading.sequence',
  readingStrikes:
    'reading_strike join reading on reading.id = reading_strike.reading_id join round on round.id = reading.round_id where round.job_id = $1 order by struck_at',
  readingKeeps:
    'reading_keep join reading on reading.id = reading_keep.reading_id join round on round.id = reading.round_id where round.job_id = $1 order by at',
  pointConditions:
    'point_condition join round on round.id = point_condition.round_id where round.job_id = $1 order by at',
  braces: 'brace where brace.job_id = $1 order by code',
  braceDimensions: 'brace_dimension join brace on brace.id = brace_dimension.brace_id where brace.job_id = $1',
  braceEvents: 'brace_event join brace on brace.id = brace_event.brace_id where brace.job_id = $1 order by at',
  steps: 'step where step.job_id = $1 order by ordinal',
  stepEvents: 'step_event join step on step.id = step_event.step_id where step.job_id = $1 order by at',
  logEntries: 'log_entry where log_entry.job_id = $1 order by at',
  logSubjects: 'log_subject join log_entry on log_entry.id = log_subject.entry_id where log_entry.job_id = $1',
  photographs: 'photograph where photograph.job_id = $1 order by at',
  signedRecords: 'signed_record where signed_record.job_id = $1 order by number',
};

const rowsOfJob = <T extends JobTable>(db: Queryable, table: T, jobId: string): Promise<RowOf<T>[]> =>
  db.query(`select ${columns(table)} from ${OF_JOB[table]}`, [jobId]);

/** Everything a job consists of, except the pictures themselves; undefined where there is no such job. */
export async function loadJob(db: Queryable, jobId: string): Promise<JobRows | undefined> {
  const rows: Record<string, unknown> = {};
  for (const table of JOB_TABLE_NAMES) {
    rows[table] = await rowsOfJob(db, table, jobId);
    if (table === 'jobs' && (rows[table] as unknown[]).length === 0) return undefined;
  }
  return rows as unknown as JobRows;
}
