'use client';

import { useState } from 'react';
import type { Fault } from '@/formats/faults';
import type { Outcome } from '@/formats/outcome';
import { Button } from '../kit/button';
import { Faults } from '../kit/faults';
import { useFormat } from '../shell/preferences-context';

export interface DamageShown {
  readonly message: string;
  readonly folder: string;
  readonly hasJournal: boolean;
  /** Of the last proved backup, and the jobs in it. */
  readonly backupAt?: string;
  readonly jobs?: readonly string[];
}

/** In the place of every page while the database is damaged: what is left, and the one thing to do. */
export function DamagedData({ damage, rebuild }: { damage: DamageShown; rebuild: () => Promise<Outcome> }) {
  const format = useFormat();
  const [faults, setFaults] = useState<readonly Fault[]>([]);
  const [busy, setBusy] = useState(false);
  const { backupAt, jobs = [], hasJournal } = damage;
  return (
    <main className="mx-auto flex max-w-2xl flex-col gap-4 p-8">
      <h1 className="text-2xl">The data folder is damaged</h1>
      <p>{damage.message}</p>
      <p>What is left:</p>
      <ul className="list-disc pl-5">
        <li>
          {backupAt ? (
            <>
              a proved backup of {format.moment(backupAt)} with {jobs.join(', ') || 'no job'}
            </>
          ) : (
            'no proved backup'
          )}
        </li>
        <li>
          {hasJournal
            ? `the journal of every entry${backupAt ? ' since then' : ''}`
            : 'no journal: what was entered since is lost'}
        </li>
      </ul>
      <p>
        The database can be built anew from these. The damaged one is put aside in the same folder and stays as it is.
        If the folder lies on a disk that is failing, copy all of it to another disk first.
      </p>
      {!backupAt && !hasJournal ? (
        <p className="font-medium">There is nothing to build it from: it would begin empty.</p>
      ) : null}
      <Faults faults={faults} title="Not built" />
      <Button
        look="main"
        className="self-start"
        disabled={busy}
        onClick={async () => {
          setBusy(true);
          const outcome = await rebuild().catch((): Outcome => ({ ok: false, faults: [AWAY] }));
          setBusy(false);
          if (outcome.ok) window.location.reload();
          else setFaults(outcome.faults);
        }}
      >
        {busy ? 'Building it anew …' : 'Put the damaged database aside and build it anew'}
      </Button>
    </main>
  );
}

const AWAY: Fault = { path: 'server', message: 'it cannot be reached' };
