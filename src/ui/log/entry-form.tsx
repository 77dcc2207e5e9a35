'use client';

import { Camera } from 'lucide-react';
import { useState } from 'react';
import type { JobRows } from '@/core/shell/job/job-rows';
import { ENTRY_KINDS, type LogEntry } from '@/core/shell/job/entities';
import type { Fault } from '@/formats/faults';
import { newEntry, type NewEntry } from '@/formats/inputs/log';
import type { Outcome } from '@/formats/outcome';
import { Button } from '../kit/button';
import { Faults } from '../kit/faults';
import { FieldError, TextArea, TextField } from '../kit/field';
import { useEntryForm, wordsOf } from '../kit/use-entry-form';
import { typedUnit } from '@/formats/preferences';
import { useFormat, usePreferences } from '../shell/preferences-context';
import { DetailFields, detailDefaults, readDetails, type Corrected } from './entry-details';

/** A deviation somebody is about to accept, brought here from the sheet. */
export interface Acceptance {
  readonly roundId: string;
  readonly code: string;
  readonly pointId: string | null;
  readonly dimensionId: string | null;
  readonly deviation: number;
  readonly referenceId: string;
}

/** Writes an entry: its JSON in the field `entry`, and any number of photographs. */
export type WriteLogEntry = (form: FormData) => Promise<Outcome>;

export interface Writing {
  readonly rows: Pick<JobRows, 'jobs' | 'points' | 'dimensions'>;
  readonly acceptance?: Acceptance;
  /** An entry that is written anew: the old one stays, struck out. */
  readonly corrects?: Corrected;
  readonly writeLogEntry: WriteLogEntry;
}

const MOST_MB = 15;
/** What the text of each kind says. */
const TEXT_LABEL: Readonly<Record<LogEntry['kind'], string>> = {
  finding: 'What was found',
  decision: 'What was decided',
  assumption: 'What is assumed',
};
const REASON_LABEL: Readonly<Record<LogEntry['kind'], string>> = {
  finding: 'Reason, if any',
  decision: 'Reason',
  assumption: 'Because',
};
const draftKey = (jobId: string) => `vinkel.log.${jobId}`;

const emptied = (acceptance: Acceptance | undefined, corrects: Corrected | undefined, draft: string) => ({
  kind: corrects?.entry.kind ?? (acceptance ? 'decision' : 'finding'),
  text: corrects?.entry.text ?? draft,
  reason: corrects?.entry.reason ?? '',
  overturnedBy: corrects?.entry.overturnedBy ?? '',
  about: corrects?.about ?? acceptance?.code ?? '',
  photograph: '',
});

/** A finding, a decision or an assumption being written; what is typed is kept until it is in the log. */
export function EntryForm({ rows, acceptance, corrects, writeLogEntry, done }: Writing & { done: () => void }) {
  const format = useFormat();
  const { preferences } = usePreferences();
  const jobId = rows.jobs[0]!.id;
  const [files, setFiles] = useState<readonly File[]>([]);
  const draft = acceptance
    ? `${acceptance.code} deviates by ${format.difference(acceptance.deviation)} ${format.unit}: accepted.`
    : (localStorage.getItem(draftKey(jobId)) ?? '');
  const form = useEntryForm({
    schema: newEntry,
    action: (input: NewEntry) => writeLogEntry(formOf(input, files)),
    defaults: {
      ...emptied(acceptance, corrects, draft),
      ...detailDefaults(corrects, format),
    },
    read: ({ kind, text = '', reason = '', overturnedBy = '', about = '', ...details }, faults, identity) => {
      if (!text.trim()) faults.push({ path: 'text', message: 'write what was found or decided' });
      if (kind === 'decision' && !reason.trim())
        faults.push({ path: 'reason', message: 'a decision needs its reason' });
      if (kind === 'assumption' && !overturnedBy.trim())
        faults.push({ path: 'overturnedBy', message: 'say what would overturn it' });
      faults.push(...tooLarge(files));
      return {
        entry: {
          ...{ id: identity, jobId, kind: kind as LogEntry['kind'], text, reason },
          overturnedBy: kind === 'assumption' ? overturnedBy : '',
          roundId: acceptance?.roundId ?? corrects?.entry.roundId ?? null,
          supersedes: corrects?.entry.id ?? null,
        },
        subjects: acceptance ? [accepted(acceptance)] : subjectsOf(rows, about, faults),
        ...readDetails(kind, details, typedUnit(preferences), format, faults),
      };
    },
    done: () => {
      localStorage.removeItem(draftKey(jobId));
      done();
    },
  });
  const text = form.field('text');
  const kind = form.watch('kind') as LogEntry['kind'];
  return (
    <form
      aria-label={corrects ? 'Corrected entry' : 'New entry'}
      className="flex flex-col gap-3"
      onSubmit={form.submit}
      noValidate
    >
      <Heading acceptance={acceptance} corrects={corrects} />
      <KindChoice register={form.register} />
      <TextArea
        label={TEXT_LABEL[kind]}
        {...text}
        onChange={(event) => {
          if (!acceptance && !corrects) localStorage.setItem(draftKey(jobId), event.target.value);
          return text.onChange(event);
        }}
      />
      <TextArea label={REASON_LABEL[kind]} {...form.field('reason')} />
      <DetailFields kind={kind} sort={form.watch('sort')} ownerSays={form.watch('ownerSays')} form={form} />
      <TextField
        label="Points or dimensions it is about"
        placeholder="R4L RD2"
        readOnly={Boolean(acceptance)}
        {...form.field('about')}
      />
      <Photographs files={files} choose={setFiles} error={form.field('photograph').error} />
      <Faults faults={form.faults} />
      <Button type="submit" look="main" disabled={form.pending}>
        {form.pending ? 'Writing …' : 'Write it into the log'}
      </Button>
    </form>
  );
}

const Heading = ({ acceptance, corrects }: Pick<Writing, 'acceptance' | 'corrects'>) =>
  corrects ? (
    <p className="text-soft">The entry as it was stays in the log, struck out.</p>
  ) : (
    <h1 className="text-2xl">{acceptance ? `Accept ${acceptance.code}` : 'Write it down'}</h1>
  );

const KindChoice = ({ register }: { register: (name: 'kind') => object }) => (
  <div role="radiogroup" aria-label="Kind" className="flex">
    {ENTRY_KINDS.map((kind) => (
      <label
        key={kind}
        className="flex min-h-11 grow cursor-pointer items-center justify-center border border-rule has-checked:bg-ink has-checked:text-paper has-focus-visible:outline-3"
      >
        <input type="radio" value={kind} className="sr-only" {...register('kind')} />
        {kind}
      </label>
    ))}
  </div>
);

interface Choosing {
  readonly files: readonly File[];
  readonly choose: (files: readonly File[]) => void;
  readonly error?: string;
}

const Photographs = ({ files, choose, error }: Choosing) => (
  <div>
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
        onChange={(event) => choose([...(event.target.files ?? [])])}
      />
    </label>
    <FieldError error={error} />
  </div>
);

function formOf(input: NewEntry, files: readonly File[]): FormData {
  const form = new FormData();
  form.set('entry', JSON.stringify(input));
  for (const file of files) form.append('photograph', file);
  return form;
}

const tooLarge = (files: readonly File[]): Fault[] =>
  files
    .filter(({ size }) => size > MOST_MB * 1024 * 1024)
    .map(({ name, size }) => ({
      path: 'photograph',
      message: `${name} has ${(size / 1024 / 1024).toFixed(1)} MB; at most ${MOST_MB} MB are kept`,
    }));

const accepted = ({ pointId, dimensionId, deviation, referenceId }: Acceptance) => ({
  ...{ id: crypto.randomUUID(), pointId, dimensionId, referenceId },
  acceptedDeviation: deviation,
});

/** The codes typed, as subjects; one that is neither a point nor a dimension is a fault. */
function subjectsOf({ points, dimensions }: Writing['rows'], about: string, faults: Fault[]): NewEntry['subjects'] {
  return wordsOf(about).map((code) => {
    const same = (each: { code: string }) => each.code.toLowerCase() === code.toLowerCase();
    const pointId = points.find(same)?.id ?? null;
    const dimensionId = pointId ? null : (dimensions.find(same)?.id ?? null);
    if (!pointId && !dimensionId) faults.push({ path: 'about', message: `no point or dimension "${code}"` });
    return { id: crypto.randomUUID(), pointId, dimensionId, acceptedDeviation: null, referenceId: null };
  });
}
