'use client';

import { Link } from '../kit/link';
import { useState, type FormEvent } from 'react';
import type { BroughtInput, Checked, KnownRecord } from '@/formats/inputs/check';
import { Button } from '../kit/button';
import { TextField } from '../kit/field';
import { useAction, type Action } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';

/** Holds a record somebody brings back against what was signed here: its file, or the digits printed under it. */
export function CheckPage({ checkRecord }: { readonly checkRecord: Action<BroughtInput, Checked> }) {
  const { run, faults, pending } = useAction(checkRecord);
  const [found, setFound] = useState<Checked>();
  const check = async (brought: BroughtInput) => {
    setFound(undefined);
    const outcome = await run(brought);
    if (outcome.ok) setFound(outcome.value);
  };
  const faultAt = (path: string) => faults.find((each) => each.path === path)?.message;
  const elsewhere = faults.filter(({ path }) => path !== 'file' && path !== 'digits');
  return (
    <main className="mx-auto flex max-w-3xl flex-col gap-6 p-6">
      <h1 className="text-2xl">Check a record</h1>
      <p>
        A record that was signed here bears digits of its own: SHA-256 over everything in it. If one figure of it is
        another, so are they.
      </p>
      <TextField
        label="The file “Signed record” gave"
        type="file"
        accept=".json,application/json"
        disabled={pending}
        error={faultAt('file')}
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) void file.text().then((text) => check({ file: text }));
        }}
      />
      <Digits check={check} pending={pending} error={faultAt('digits')} />
      {elsewhere.length > 0 ? <p role="alert">{elsewhere.map(({ message }) => message).join(' ')}</p> : null}
      {found ? <Found found={found} /> : null}
    </main>
  );
}

interface DigitsProps {
  readonly check: (brought: BroughtInput) => Promise<void>;
  readonly pending: boolean;
  readonly error: string | undefined;
}

function Digits({ check, pending, error }: DigitsProps) {
  const [digits, setDigits] = useState('');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void check({ digits });
  };
  return (
    <form onSubmit={submit} className="flex flex-wrap items-start gap-3">
      <div className="grow">
        <TextField
          label="Or the digits printed under it"
          value={digits}
          maxLength={200}
          error={error}
          onChange={(event) => setDigits(event.target.value)}
        />
      </div>
      <Button type="submit" disabled={pending} className="mt-6">
        Look it up
      </Button>
    </form>
  );
}

function Found({ found }: { readonly found: Checked }) {
  const sign = { same: '○', digits: '○', altered: '●', elsewhere: '◐' }[found.kind];
  return (
    <section aria-label="What was found" role="status" className="border-l-4 border-ink pl-4" data-checked={found.kind}>
      <h2 className="text-xl">
        <span aria-hidden>{sign}</span> {TITLE[found.kind]}
      </h2>
      {'record' in found && found.record ? <Known record={found.record} /> : null}
      <p>{SAYS[found.kind]}</p>
    </section>
  );
}

const TITLE: Readonly<Record<Checked['kind'], string>> = {
  same: 'Signed here, just as it is',
  digits: 'A record with these digits was signed here',
  altered: 'Not as it was signed',
  elsewhere: 'Not signed here',
};

const SAYS: Readonly<Record<Checked['kind'], string>> = {
  same: 'Every figure and every word of the file is as it was when it was signed.',
  digits:
    'Open it and lay the paper beside it: if all the digits under both are the same, what is in the record is too.',
  altered: 'Something in the file is not what was signed. What was signed stands in the job.',
  elsewhere:
    'The file is whole in itself, but no such record was signed in this shop, or the job is not here any more.',
};

function Known({ record }: { readonly record: KnownRecord }) {
  const format = useFormat();
  return (
    <p>
      <Link className="underline" href={`/jobs/${record.jobId}/record?record=${record.number}`}>
        Record {record.number} of {format.name(record.jobName)}
      </Link>
      , signed by {format.name(record.signedBy)} on {format.day(record.signedAt)}
    </p>
  );
}
