'use client';

import type { ReactNode } from 'react';
import type { RecordDocument } from '@/core/shell/record-document';
import { referenceText } from '@/core/report/vocabulary/words';
import type { Signing } from '@/formats/inputs/log';
import type { Action } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import { Changes, Final, Found, Gaps, Rounds } from './measured-parts';
import type { Signature } from './part';
import { Log, Photographs, Statement, Work } from './told-parts';
import { Toolbar } from './toolbar';

/** The record as a page that prints well on A4 and on Letter. */
export function RecordPage({
  jobId,
  record,
  signature,
  signatures,
  signRecord,
}: {
  jobId: string;
  record: RecordDocument;
  /** Present where a signed snapshot is shown, absent for the job as it stands. */
  signature?: Signature;
  signatures: readonly Signature[];
  signRecord: Action<Signing, { number: number }>;
}) {
  const format = useFormat();
  const { job } = record;
  return (
    <article className="mx-auto flex max-w-4xl flex-col gap-6">
      <Toolbar jobId={jobId} signature={signature} signatures={signatures} signRecord={signRecord} />
      <header className="border-b-2 border-ink pb-3">
        <p className="caps">Record of a car body</p>
        <h1 className="text-3xl">{job.name}</h1>
        <dl className="mt-2 grid grid-cols-2 gap-x-6 text-sm sm:grid-cols-3">
          <Fact term="Shell">{job.shell}</Fact>
          <Fact term="Identity number">{job.identityNumber || '–'}</Fact>
          <Fact term="Owner">{job.owner || '–'}</Fact>
          <Fact term="Shop">{job.shop || '–'}</Fact>
          <Fact term="Bench">{job.bench || '–'}</Fact>
          <Fact term="Driver sits on the">{job.driverSide}</Fact>
          <Fact term="Begun">{format.day(job.startedAt)}</Fact>
          <Fact term={signature ? `Record ${signature.number}, signed` : 'As it stands on'}>
            {format.day(record.madeAt)}
          </Fact>
          <Fact term="Judged by">{record.references.map(referenceText).join('; ')}</Fact>
        </dl>
      </header>
      <Rounds record={record} />
      <Found record={record} />
      <Final record={record} />
      <Changes record={record} />
      <Gaps record={record} />
      <Work record={record} />
      <Log record={record} />
      <Photographs record={record} />
      <Statement record={record} signature={signature} />
    </article>
  );
}

const Fact = ({ term, children }: { term: string; children: ReactNode }) => (
  <div>
    <dt className="caps">{term}</dt>
    <dd>{children}</dd>
  </div>
);
