'use client';

import type { RecordDocument } from '@/core/shell/record-document';
import { recordFacts, type Signature } from '@/formats/record-tables';
import { useFormat } from '../shell/preferences-context';
import { Changes, Final, Found, Gaps, Rounds } from './measured-parts';
import { Conformity, Log, Photographs, Statement, Told, Work } from './told-parts';
import type { RecordSigning } from './sign-dialog';
import { Toolbar } from './toolbar';

/** The record as a page that prints well on A4 and on Letter. */
export function RecordPage({
  jobId,
  record,
  signature,
  signatures,
  signing,
}: {
  jobId: string;
  record: RecordDocument;
  /** Present where a signed snapshot is shown, absent for the job as it stands. */
  signature?: Signature;
  signatures: readonly Signature[];
  signing: RecordSigning;
}) {
  const format = useFormat();
  const { job } = record;
  return (
    <article className="mx-auto flex max-w-4xl flex-col gap-6">
      <Toolbar {...{ jobId, signature, signatures, signing }} open={record.open ?? []} />
      <header className="border-b-2 border-ink pb-3">
        <p className="caps">Record of a car body</p>
        <h1 className="text-3xl">{job.name}</h1>
        <dl className="mt-2 grid grid-cols-2 gap-x-6 text-sm sm:grid-cols-3">
          {recordFacts(record, signature, format).map(([term, text]) => (
            <div key={term}>
              <dt className="caps">{term}</dt>
              <dd>{text}</dd>
            </div>
          ))}
        </dl>
      </header>
      <Conformity record={record} />
      <Rounds record={record} />
      <Found record={record} />
      <Final record={record} />
      <Changes record={record} />
      <Gaps record={record} />
      <Work record={record} />
      <Log record={record} />
      <Told record={record} signed={signature !== undefined} />
      <Photographs record={record} />
      <Statement record={record} signature={signature} />
    </article>
  );
}
