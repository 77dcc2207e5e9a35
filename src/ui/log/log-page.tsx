'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { LogEntry, LogSubject, Photograph } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { ClientOnly } from '../kit/client-only';
import { Empty } from '../kit/faults';
import { useFormat } from '../shell/preferences-context';
import { EntryForm, type Writing } from './entry-form';

type LogRows = Pick<JobRows, 'jobs' | 'points' | 'dimensions' | 'logEntries' | 'logSubjects' | 'photographs'>;

/** Findings and decisions with their reasons and photographs, the newest first. */
export function LogPage({ rows, ...writing }: Omit<Writing, 'rows'> & { rows: LogRows }) {
  const router = useRouter();
  const [written, setWritten] = useState(0);
  const done = () => {
    setWritten(written + 1);
    router.replace(`/jobs/${rows.jobs[0]!.id}/log`);
  };
  return (
    <div className="grid grid-cols-1 gap-6 xl:grid-cols-[minmax(20rem,26rem)_1fr]">
      <ClientOnly waiting={<div />}>
        <EntryForm key={written} rows={rows} {...writing} done={done} />
      </ClientOnly>
      <section aria-label="Entries">
        <h2 className="mb-2 text-lg">The log</h2>
        {rows.logEntries.length === 0 ? (
          <Empty title="Nothing is written down yet">Findings keep being added: write each where it was found.</Empty>
        ) : (
          <ol className="border-t-2 border-ink">
            {[...rows.logEntries].reverse().map((entry) => (
              <Entry
                key={entry.id}
                entry={entry}
                rows={rows}
                subjects={rows.logSubjects.filter((subject) => subject.entryId === entry.id)}
                photographs={rows.photographs.filter((photograph) => photograph.entryId === entry.id)}
              />
            ))}
          </ol>
        )}
      </section>
    </div>
  );
}

function Entry({
  entry,
  rows,
  subjects,
  photographs,
}: {
  entry: LogEntry;
  rows: LogRows;
  subjects: readonly LogSubject[];
  photographs: readonly Photograph[];
}) {
  const format = useFormat();
  const codeOf = (subject: LogSubject) =>
    [...rows.points, ...rows.dimensions].find((each) => each.id === (subject.pointId ?? subject.dimensionId))?.code;
  return (
    <li className="grid gap-x-4 border-b border-rule py-3 sm:grid-cols-[8.5rem_1fr]">
      <p className="text-sm text-soft">
        <span className="caps block text-ink">{entry.kind}</span>
        {format.day(entry.at)} {format.time(entry.at)}
        <br />
        {entry.author}
      </p>
      <div className="min-w-0">
        <p className="whitespace-pre-wrap">{format.name(entry.text)}</p>
        {entry.reason ? <p className="whitespace-pre-wrap text-soft">Because: {format.name(entry.reason)}</p> : null}
        {subjects.length > 0 ? (
          <p className="text-sm">
            {subjects.map((subject) => (
              <span key={subject.id} className="mr-3">
                <span className="font-mono">{codeOf(subject)}</span>
                {subject.acceptedDeviation === null
                  ? ''
                  : ` accepted at ${format.difference(subject.acceptedDeviation)} ${format.unit}`}
              </span>
            ))}
          </p>
        ) : null}
        <div className="mt-1 flex flex-wrap gap-2">
          {photographs.map((photograph) => (
            <a key={photograph.id} href={`/api/photographs/${photograph.id}`}>
              <img
                src={`/api/photographs/${photograph.id}?preview`}
                alt={photograph.name}
                className="h-32 border border-rule"
              />
            </a>
          ))}
        </div>
      </div>
    </li>
  );
}
