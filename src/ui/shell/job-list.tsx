'use client';

import { Plus } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Job } from '@/core/shell/job/entities';
import { counted } from '@/core/report/vocabulary/words';
import type { Fault } from '@/formats/faults';
import { buttonClass } from '../kit/button';
import { Empty, Faults } from '../kit/faults';
import { useFormat } from './preferences-context';

export interface ListedJob extends Job {
  readonly pointCount: number;
  readonly roundCount: number;
  readonly readingCount: number;
  readonly lastReadingAt: string | null;
  readonly recordCount: number;
}

/** All jobs of the shop, the one last measured first. */
export function JobList({ jobs }: { jobs: readonly ListedJob[] }) {
  const format = useFormat();
  return (
    <main className="mx-auto flex max-w-6xl flex-col gap-5 p-6">
      <div className="flex flex-wrap items-center gap-3">
        <h1 className="text-2xl">Jobs</h1>
        <div className="ml-auto flex flex-wrap gap-2">
          <ImportJob />
          <Link prefetch={false} href="/jobs/new" className={buttonClass('main')}>
            <Plus size={18} aria-hidden /> New job
          </Link>
        </div>
      </div>
      {jobs.length === 0 ? (
        <Empty title="No shell is on the bench yet">
          Start a job by hand, or bring one in that was exported elsewhere.
        </Empty>
      ) : (
        <ul className="border-t-2 border-ink">
          {jobs.map((job) => (
            <li key={job.id} className="border-b border-rule">
              <Link
                prefetch={false}
                href={`/jobs/${job.id}`}
                className="grid gap-x-6 px-2 py-3 hover:bg-faint md:grid-cols-[1.5fr_1fr_auto]"
              >
                <span>
                  <span className="block font-cond text-xl font-semibold">{job.name}</span>
                  <span className="text-soft">{[job.owner, job.identityNumber].filter(Boolean).join(' · ')}</span>
                </span>
                <span className="text-sm text-soft">
                  {job.bench}
                  <br />
                  {counted(job.pointCount, 'point')}, {counted(job.roundCount, 'round')}, {job.readingCount} readings
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
            </li>
          ))}
        </ul>
      )}
    </main>
  );
}

/** Brings in a job from its exported zip; the file goes straight to the server's disk. */
function ImportJob() {
  const router = useRouter();
  const [faults, setFaults] = useState<readonly Fault[]>([]);
  const [busy, setBusy] = useState(false);
  const bring = async (file: File) => {
    setBusy(true);
    const outcome = await fetch('/api/archive', { method: 'POST', body: file })
      .then((response) => response.json() as Promise<{ jobId?: string; faults?: Fault[] }>)
      .catch(() => ({
        jobId: undefined,
        faults: [{ path: 'server', message: 'it cannot be reached' }],
      }));
    setBusy(false);
    setFaults(outcome.faults ?? []);
    if (outcome.jobId) router.push(`/jobs/${outcome.jobId}`);
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
            const file = event.target.files?.[0];
            event.target.value = '';
            if (file) void bring(file);
          }}
        />
      </label>
      <Faults faults={faults} title="Not brought in" />
    </div>
  );
}
