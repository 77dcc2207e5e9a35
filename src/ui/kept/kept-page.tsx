'use client';

import { Link } from '../kit/link';
import { useRouter } from 'next/navigation';
import { useState, type ReactNode } from 'react';
import { counted } from '@/core/report/vocabulary/words';
import type { BringAs } from '@/formats/inputs/jobs';
import type { BringBack } from '@/formats/inputs/kept';
import { HERE_ALREADY } from '@/formats/outcome';
import { Button } from '../kit/button';
import { Empty, Faults } from '../kit/faults';
import { useAction, type Action } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import { BringChoices } from './bring-choices';

export interface Kept {
  readonly folder: string;
  readonly backupsFolder: string;
  readonly provedAt?: string;
  /** Why the last backup did not come about. */
  readonly fault?: string;
  readonly behind: boolean;
  readonly stale: boolean;
  readonly full: boolean;
  readonly opening: {
    readonly restored: number;
    readonly rebuiltFrom?: string;
    readonly faults: readonly LineFault[];
  };
  readonly backups: readonly KeptBackup[];
}

interface LineFault {
  readonly file: string;
  readonly line: number;
  readonly reason: string;
  readonly harmless: boolean;
}

interface KeptBackup {
  readonly at: string;
  readonly proved: boolean;
  readonly jobs: readonly { readonly id: string; readonly name: string }[];
}

export interface KeptActions {
  readonly takeBackupNow: Action<undefined>;
  readonly bringBack: Action<BringBack, { jobId: string }>;
}

interface OnServer {
  readonly server: { readonly address: string; readonly shop: string };
  readonly folder: string;
}

/** Where the data lies that is on a server: who keeps it, and what that asks of whoever runs it. */
export function KeptOnServer({ server, folder }: OnServer) {
  return (
    <main className="mx-auto flex max-w-5xl flex-col gap-5 p-6">
      <h1 className="text-2xl">Kept data</h1>
      <dl className="grid gap-x-6 gap-y-1 sm:grid-cols-[max-content_1fr]">
        <Row name="Database server">{server.address}</Row>
        <Row name="Shop">{server.shop}</Row>
        <Row name="Folder of this program">{folder}</Row>
      </dl>
      <p>
        Every entry is in the server’s own log before it is acknowledged. Backups are the server’s own too: whoever runs
        it takes care of them, and tries now and then that they can be restored. In the folder lie this program’s
        certificates, the devices it let in, and jobs that another took the place of.
      </p>
      <p>
        Other shops on the same server see nothing of this one but what is shared with them:{' '}
        <Link className="underline" href="/shared">
          between shops
        </Link>
        .
      </p>
      <p className="text-soft">Single jobs can be taken along as archives from their own pages, here as anywhere.</p>
    </main>
  );
}

/** Where the data lies, how it is kept, and the way back from a backup. */
export function KeptPage({ kept, actions }: { kept: Kept; actions: KeptActions }) {
  const format = useFormat();
  const taking = useAction(actions.takeBackupNow);
  return (
    <main className="mx-auto flex max-w-5xl flex-col gap-5 p-6">
      <div className="flex flex-wrap items-center gap-3">
        <h1 className="text-2xl">Kept data</h1>
        <Button
          look="main"
          className="ml-auto"
          disabled={taking.pending}
          aria-busy={taking.pending}
          onClick={() => taking.run(undefined)}
        >
          {taking.pending ? 'Taking and proving a backup …' : 'Take a backup now'}
        </Button>
      </div>
      <Faults faults={taking.faults} title="No backup" />
      <dl className="grid gap-x-6 gap-y-1 sm:grid-cols-[max-content_1fr]">
        <Row name="Data">{kept.folder}</Row>
        <Row name="Backups">{kept.backupsFolder}</Row>
        <Row name="Last proved backup">
          {kept.provedAt ? format.moment(kept.provedAt) : 'none yet'}
          {kept.behind ? ' · something was written since' : ''}
        </Row>
      </dl>
      <p className="text-sm text-soft">
        Every entry is in a journal on the disk before it is acknowledged. Once a day all jobs are backed up beside the
        data, and each backup is proved: restored into an empty folder and taken out again, equal. Backups on the same
        disk do not help when that disk is lost: copy the folder above to another one now and then.
      </p>
      <Troubles kept={kept} />
      <h2 className="text-xl">Backups</h2>
      {kept.backups.length === 0 ? (
        <Empty title="No backup yet">The first one is taken a few minutes after something was written.</Empty>
      ) : (
        <ul className="flex flex-col border-t border-rule">
          {kept.backups.map((backup) => (
            <li key={backup.at} className="border-b border-rule">
              <Backup backup={backup} bringBack={actions.bringBack} />
            </li>
          ))}
        </ul>
      )}
    </main>
  );
}

const Row = ({ name, children }: { name: string; children: ReactNode }) => (
  <>
    <dt className="text-soft">{name}</dt>
    <dd className="break-all" data-typed>
      {children}
    </dd>
  </>
);

/** What is wrong, and what to do about it. */
function Troubles({ kept: { opening, full, stale, fault } }: { kept: Kept }) {
  const lost = opening.faults.filter(({ harmless }) => !harmless);
  const messages = [
    ...(full ? ['The disk is full: make room on it. Readings wait in the browsers until there is.'] : []),
    ...(stale
      ? ['No backup was proved for more than three days: take one now, and see below why the last failed.']
      : []),
    ...(fault ? [`The last backup failed: ${fault}`] : []),
    ...(opening.rebuiltFrom
      ? [`The database was gone at the start and was built anew from ${opening.rebuiltFrom} and the journal.`]
      : []),
    ...(opening.restored > 0 ? [`${counted(opening.restored, 'entry')} came back from the journal at the start.`] : []),
  ];
  if (messages.length === 0 && opening.faults.length === 0) return null;
  return (
    <section aria-label="What was found" className="flex flex-col gap-2 border-l-4 border-minus bg-sheet px-3 py-2">
      {messages.map((each) => (
        <p key={each}>{each}</p>
      ))}
      {opening.faults.length > 0 ? (
        <>
          <p>
            {counted(opening.faults.length, 'line')} of the journal cannot be read.{' '}
            {lost.length === 0
              ? 'The database has what they said: nothing is lost. The next backups let them go.'
              : 'What these said is lost where the database had it not yet: look at the jobs worked on last, compare them with the shell or the notebook, and bring a job back from a backup where something is missing.'}
          </p>
          <ul className="list-disc pl-5 text-sm" data-typed>
            {opening.faults.slice(0, 20).map(({ file, line, reason, harmless }) => (
              <li key={`${file} ${line}`}>
                {file}, line {line}: {reason}
                {harmless ? ' (in the database all the same)' : ''}
              </li>
            ))}
          </ul>
        </>
      ) : null}
    </section>
  );
}

function Backup({ backup, bringBack }: { backup: KeptBackup; bringBack: KeptActions['bringBack'] }) {
  const format = useFormat();
  return (
    <details>
      <summary className="flex min-h-11 cursor-pointer items-center gap-3">
        <span className="font-medium">{format.moment(backup.at)}</span>
        <span className="text-soft">
          {counted(backup.jobs.length, 'job')} · {backup.proved ? 'proved' : 'not proved'}
        </span>
      </summary>
      <ul className="pb-3 pl-4">
        {backup.jobs.map((job) => (
          <li key={job.id}>
            <BackedUpJob job={job} at={backup.at} bringBack={bringBack} />
          </li>
        ))}
      </ul>
    </details>
  );
}

function BackedUpJob({
  job,
  at,
  bringBack,
}: {
  job: KeptBackup['jobs'][number];
  at: string;
  bringBack: KeptActions['bringBack'];
}) {
  const router = useRouter();
  const { run, faults, pending } = useAction(bringBack);
  const [here, setHere] = useState(false);
  const bring = async (as: BringAs) => {
    const outcome = await run({ backupAt: at, jobId: job.id, as });
    if (outcome.ok) router.push(`/jobs/${outcome.value.jobId}`);
    else setHere(outcome.faults.some(({ path }) => path === HERE_ALREADY));
  };
  return (
    <div className="flex flex-wrap items-center gap-3">
      <span className="min-w-48" data-typed>
        {job.name}
      </span>
      <Button look="quiet" disabled={pending} onClick={() => bring('new')}>
        {pending ? 'Bringing it back …' : 'Bring it back'}
      </Button>
      {here ? <BringChoices bring={bring} /> : <Faults faults={faults} title="Not brought back" />}
    </div>
  );
}
