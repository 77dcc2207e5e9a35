'use client';

import { Plus } from 'lucide-react';
import { Link } from '../kit/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Job } from '@/core/shell/job/entities';
import { counted } from '@/core/report/vocabulary/words';
import type { Fault } from '@/formats/faults';
import { JOBS_SHOWN, type BringAs, type PuttingAway } from '@/formats/inputs/jobs';
import { HERE_ALREADY } from '@/formats/outcome';
import { BringChoices } from '../kept/bring-choices';
import { Button, buttonClass } from '../kit/button';
import { Confirm } from '../kit/dialog';
import { Empty, Faults } from '../kit/faults';
import { TextField } from '../kit/field';
import { useAction, type Action } from '../kit/use-action';
import { useFormat } from './preferences-context';

export interface ListedJob extends Job {
  readonly pointCount: number;
  readonly roundCount: number;
  readonly readingCount: number;
  readonly lastReadingAt: string | null;
  readonly recordCount: number;
}

export interface JobListActions {
  readonly putAwayJob: Action<PuttingAway>;
  readonly removeJob: Action<string>;
}

interface JobListProps {
  readonly jobs: readonly ListedJob[];
  /** How many there are in all, and of those found how many are in hand and put away. */
  readonly counts: { readonly all: number; readonly inHand: number; readonly away: number };
  readonly find: string;
  /** So many are shown of each, at the most. */
  readonly most: number;
  readonly actions: JobListActions;
}

/** From so many jobs on one looks for them. */
const MANY = 12;

/** The shop's jobs, the one last measured first; those put away below. */
export function JobList({ jobs, counts, find, most, actions }: JobListProps) {
  const inHand = jobs.filter(({ putAwayAt }) => putAwayAt === null);
  const away = jobs.filter(({ putAwayAt }) => putAwayAt !== null);
  return (
    <main className="mx-auto flex max-w-6xl flex-col gap-5 p-6">
      <div className="flex flex-wrap items-center gap-3">
        <h1 className="text-2xl">Jobs</h1>
        <div className="ml-auto flex flex-wrap gap-2">
          <Link href="/kept" className={buttonClass('quiet')}>
            Kept data
          </Link>
          <ImportJob />
          <Link href="/jobs/new" className={buttonClass('main')}>
            <Plus size={18} aria-hidden /> New job
          </Link>
        </div>
      </div>
      {counts.all > MANY || find !== '' ? <FindJob find={find} found={counts.inHand + counts.away} /> : null}
      {counts.all === 0 ? (
        <Empty title="No shell is on the bench yet">
          Start a job by hand, or bring one in that was exported elsewhere.
        </Empty>
      ) : (
        <Jobs jobs={inHand} of={counts.inHand} {...{ find, most, actions }} />
      )}
      {counts.away > 0 ? (
        <details>
          <summary className="min-h-11 cursor-pointer content-center">{counted(counts.away, 'job')} put away</summary>
          <Jobs jobs={away} of={counts.away} {...{ find, most, actions }} />
        </details>
      ) : null}
    </main>
  );
}

/** Looks for jobs by a word of theirs; the address says what was looked for. */
function FindJob({ find, found }: { find: string; found: number }) {
  return (
    <search>
      <form action="/" className="flex flex-wrap items-end gap-3">
        <TextField
          label="Look for a job"
          name="find"
          placeholder="name, owner or number"
          defaultValue={find}
          data-main-field
        />
        <Button type="submit">Look</Button>
        {find === '' ? null : (
          <>
            <span role="status" className="min-h-11 content-center">
              {counted(found, 'job')} with “<span data-typed>{find}</span>”
            </span>
            <Link href="/" className="min-h-11 content-center underline">
              All jobs
            </Link>
          </>
        )}
      </form>
    </search>
  );
}

interface JobsProps extends Pick<JobListProps, 'jobs' | 'find' | 'most' | 'actions'> {
  /** How many there are; more than are shown, it may be. */
  readonly of: number;
}

function Jobs({ jobs, of, find, most, actions }: JobsProps) {
  const more = new URLSearchParams({ ...(find ? { find } : {}), show: String(most + JOBS_SHOWN) });
  return (
    <>
      <ul className="border-t-2 border-ink">
        {jobs.map((job) => (
          <li key={job.id} className="flex flex-wrap items-center border-b border-rule">
            <JobLink job={job} />
            <JobTools job={job} actions={actions} />
          </li>
        ))}
      </ul>
      {jobs.length < of ? (
        <p className="flex flex-wrap items-center gap-3">
          {jobs.length} of {counted(of, 'job')}, those last measured.{' '}
          <Link scroll={false} href={`/?${more}`} className={buttonClass()}>
            Show {Math.min(JOBS_SHOWN, of - jobs.length)} more
          </Link>
        </p>
      ) : null}
    </>
  );
}

function JobLink({ job }: { job: ListedJob }) {
  const format = useFormat();
  return (
    <Link
      href={`/jobs/${job.id}`}
      className="grid min-w-64 grow gap-x-6 px-2 py-3 hover:bg-faint md:grid-cols-[1.5fr_1fr_11rem]"
    >
      <span>
        <span className="block font-cond text-xl font-semibold">{job.name}</span>
        <span className="text-soft">{[job.owner, job.identityNumber].filter(Boolean).join(' · ')}</span>
      </span>
      <span className="text-sm text-soft">
        {job.bench}
        <br />
        {counted(job.pointCount, 'point')}, {counted(job.roundCount, 'round')}, {counted(job.readingCount, 'reading')}
      </span>
      <span className="text-sm md:text-right">
        {job.recordCount > 0 ? (
          <strong>record signed</strong>
        ) : job.lastReadingAt ? (
          `last reading ${format.day(job.lastReadingAt)}`
        ) : (
          'nothing measured yet'
        )}
      </span>
    </Link>
  );
}

/** Puts a job away and takes it out again; one that is away can be removed, once it was exported. */
function JobTools({ job, actions }: { job: ListedJob; actions: JobListActions }) {
  const putting = useAction(actions.putAwayJob);
  const removing = useAction(actions.removeJob);
  const away = job.putAwayAt !== null;
  return (
    <div className="flex flex-wrap items-center">
      <Faults faults={[...putting.faults, ...removing.faults]} />
      {away ? null : (
        <Link
          href={`/jobs/new?after=${job.id}`}
          className={buttonClass('quiet')}
          aria-label={`Next car, begun from ${job.name}`}
        >
          Next car
        </Link>
      )}
      <Button look="quiet" onClick={() => putting.run({ jobId: job.id, away: !away })}>
        {away ? 'Take out again' : 'Put away'}
      </Button>
      {away ? (
        <Confirm
          title={`Remove ${job.name}?`}
          trigger={<Button look="quiet">Remove …</Button>}
          yes="Remove it for good"
          caution={
            <>
              Everything of it goes: readings, photographs, log and signed records. Take it out whole first:{' '}
              <a className="underline" href={`/api/jobs/${job.id}/archive`}>
                the job as a zip
              </a>
              . Without a zip of it as it is now it is not removed.
            </>
          }
          onYes={() => removing.run(job.id)}
        />
      ) : null}
    </div>
  );
}

type Brought = { readonly jobId?: string; readonly faults?: readonly Fault[] };
const NOT_REACHED: Brought = { faults: [{ path: 'server', message: 'it cannot be reached' }] };

/** Brings in a job from its exported zip; the file goes straight to the server's disk. */
function ImportJob() {
  const router = useRouter();
  const [faults, setFaults] = useState<readonly Fault[]>([]);
  const [busy, setBusy] = useState(false);
  const [file, setFile] = useState<File | undefined>();
  const bring = async (chosen: File, as: BringAs) => {
    setFile(chosen);
    setBusy(true);
    const brought = await fetch(`/api/archive?as=${as}`, {
      method: 'POST',
      headers: { 'content-type': 'application/zip' },
      body: chosen,
    })
      .then((response) => response.json() as Promise<Brought>)
      .catch(() => NOT_REACHED);
    setBusy(false);
    setFaults(brought.faults ?? []);
    if (brought.jobId) router.push(`/jobs/${brought.jobId}`);
  };
  return (
    <div className="flex flex-col gap-2">
      <label className={`${buttonClass()} cursor-pointer`}>
        {busy ? 'Bringing it in …' : 'Bring in an exported job'}
        <input
          type="file"
          accept=".zip,application/zip"
          className="sr-only"
          onChange={(event) => {
            const chosen = event.target.files?.[0];
            event.target.value = '';
            if (chosen) void bring(chosen, 'new');
          }}
        />
      </label>
      <Faults faults={faults} title="Not brought in" />
      {file && faults.some(({ path }) => path === HERE_ALREADY) ? (
        <BringChoices bring={(as) => bring(file, as)} />
      ) : null}
    </div>
  );
}
