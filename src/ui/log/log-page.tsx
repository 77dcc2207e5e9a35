'use client';

import { Camera } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { LogEntry, LogSubject, Photograph } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { Fault } from '@/formats/faults';
import type { Outcome } from '@/formats/outcome';
import { Button } from '../kit/button';
import { ClientOnly } from '../kit/client-only';
import { Empty, Faults } from '../kit/faults';
import { TextArea, TextField } from '../kit/field';
import { useFormat } from '../shell/preferences-context';

/** A deviation somebody is about to accept, brought here from the sheet. */
export interface Acceptance {
  readonly roundId: string;
  readonly code: string;
  readonly pointId: string | null;
  readonly dimensionId: string | null;
  readonly deviation: number;
  readonly referenceId: string;
}

const MOST_MB = 15;

/** Findings and decisions with their reasons and photographs, the newest first. */
export function LogPage({
  rows,
  acceptance,
  writeLogEntry,
}: {
  rows: JobRows;
  acceptance?: Acceptance;
  writeLogEntry: (form: FormData) => Promise<Outcome>;
}) {
  return (
    <div className="grid grid-cols-1 gap-6 xl:grid-cols-[minmax(20rem,26rem)_1fr]">
      <ClientOnly waiting={<div />}>
        <EntryForm rows={rows} acceptance={acceptance} writeLogEntry={writeLogEntry} />
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
  rows: JobRows;
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

const draftKey = (jobId: string) => `vinkel.log.${jobId}`;

function EntryForm({ rows, acceptance, writeLogEntry }: Parameters<typeof LogPage>[0]) {
  const format = useFormat();
  const router = useRouter();
  const jobId = rows.jobs[0]!.id;
  const [kind, setKind] = useState<LogEntry['kind']>(acceptance ? 'decision' : 'finding');
  const [text, setText] = useState(() =>
    acceptance
      ? `${acceptance.code} deviates by ${format.difference(acceptance.deviation)} ${format.unit}: accepted.`
      : (localStorage.getItem(draftKey(jobId)) ?? ''),
  );
  const [reason, setReason] = useState('');
  const [about, setAbout] = useState(acceptance?.code ?? '');
  const [files, setFiles] = useState<readonly File[]>([]);
  const [faults, setFaults] = useState<readonly Fault[]>([]);
  const [busy, setBusy] = useState(false);
  const editText = (value: string) => {
    setText(value);
    if (!acceptance) localStorage.setItem(draftKey(jobId), value);
  };
  const error = (path: string) => faults.find((fault) => fault.path === path)?.message;

  const submit = async () => {
    const subjects = subjectsOf(rows, about, acceptance);
    const found: Fault[] = [...subjects.faults];
    if (!text.trim()) found.push({ path: 'text', message: 'write what was found or decided' });
    if (kind === 'decision' && !reason.trim()) found.push({ path: 'reason', message: 'a decision needs its reason' });
    for (const file of files)
      if (file.size > MOST_MB * 1024 * 1024)
        found.push({
          path: 'photograph',
          message: `${file.name} has ${(file.size / 1024 / 1024).toFixed(1)} MB; at most ${MOST_MB} MB are kept`,
        });
    setFaults(found);
    if (found.length > 0) return;
    const form = new FormData();
    const entry = {
      id: crypto.randomUUID(),
      jobId,
      kind,
      text,
      reason,
      roundId: acceptance?.roundId ?? null,
      supersedes: null,
    };
    form.set('entry', JSON.stringify({ entry, subjects: subjects.rows }));
    for (const file of files) form.append('photograph', file);
    setBusy(true);
    const outcome = await writeLogEntry(form).catch((): Outcome => ({
      ok: false,
      faults: [{ path: 'server', message: 'it cannot be reached; what you typed is still here' }],
    }));
    setBusy(false);
    if (!outcome.ok) return setFaults(outcome.faults);
    setText('');
    setReason('');
    setAbout('');
    setFiles([]);
    localStorage.removeItem(draftKey(jobId));
    router.replace(`/jobs/${jobId}/log`);
    router.refresh();
  };

  return (
    <form
      aria-label="New entry"
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      <h1 className="text-2xl">{acceptance ? `Accept ${acceptance.code}` : 'Write it down'}</h1>
      <div role="radiogroup" aria-label="Kind" className="flex">
        {(['finding', 'decision'] as const).map((each) => (
          <label
            key={each}
            className="flex min-h-11 grow cursor-pointer items-center justify-center border border-rule has-checked:bg-ink has-checked:text-paper has-focus-visible:outline-3"
          >
            <input
              type="radio"
              name="kind"
              className="sr-only"
              checked={kind === each}
              onChange={() => setKind(each)}
            />
            {each}
          </label>
        ))}
      </div>
      <TextArea
        label={kind === 'finding' ? 'What was found' : 'What was decided'}
        value={text}
        onChange={(event) => editText(event.target.value)}
        error={error('text') ?? error('entry.text')}
      />
      <TextArea
        label={kind === 'decision' ? 'Reason' : 'Reason, if any'}
        value={reason}
        onChange={(event) => setReason(event.target.value)}
        error={error('reason')}
      />
      <TextField
        label="Points or dimensions it is about"
        value={about}
        onChange={(event) => setAbout(event.target.value)}
        placeholder="R4L RD2"
        error={error('about')}
        disabled={Boolean(acceptance)}
      />
      <label className="flex min-h-11 cursor-pointer items-center gap-2 border border-dashed border-rule px-3">
        <Camera size={18} aria-hidden />
        <span>
          {files.length > 0 ? files.map((file) => file.name).join(', ') : `Photographs, at most ${MOST_MB} MB each`}
        </span>
        <input
          type="file"
          multiple
          accept="image/*"
          className="sr-only"
          onChange={(event) => setFiles([...(event.target.files ?? [])])}
        />
      </label>
      <Faults faults={faults.filter((fault) => !['text', 'reason', 'about', 'entry.text'].includes(fault.path))} />
      <Button type="submit" look="main" disabled={busy}>
        {busy ? 'Writing …' : 'Write it into the log'}
      </Button>
    </form>
  );
}

/** The codes typed, as subjects; one that is neither a point nor a dimension is a fault. */
function subjectsOf(rows: JobRows, about: string, acceptance?: Acceptance) {
  const faults: Fault[] = [];
  if (acceptance) {
    const { pointId, dimensionId, deviation, referenceId } = acceptance;
    return {
      faults,
      rows: [
        {
          id: crypto.randomUUID(),
          pointId,
          dimensionId,
          acceptedDeviation: deviation,
          referenceId,
        },
      ],
    };
  }
  const codes = about.split(/[\s,;]+/).filter(Boolean);
  const subjects = codes.map((code) => {
    const same = (each: { code: string }) => each.code.toLowerCase() === code.toLowerCase();
    const pointId = rows.points.find(same)?.id ?? null;
    const dimensionId = pointId ? null : (rows.dimensions.find(same)?.id ?? null);
    if (!pointId && !dimensionId) faults.push({ path: 'about', message: `no point or dimension "${code}"` });
    return {
      id: crypto.randomUUID(),
      pointId,
      dimensionId,
      acceptedDeviation: null,
      referenceId: null,
    };
  });
  return { faults, rows: subjects };
}
