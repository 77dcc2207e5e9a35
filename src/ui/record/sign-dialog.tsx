import { Link } from '../kit/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { OPEN_WORD } from '@/core/report/vocabulary/words';
import { OPEN_KINDS, type RecordOpen } from '@/core/shell/record-document';
import { signing, type Signing } from '@/formats/inputs/log';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { TextField } from '../kit/field';
import type { Action } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';
import { useFormat, usePreferences } from '../shell/preferences-context';

/** How the record is signed. */
export interface RecordSigning {
  readonly signRecord: Action<Signing, { number: number }>;
  /** Whoever signs has a passphrase, and says it again. */
  readonly asksPassphrase: boolean;
}

interface Signer {
  readonly jobId: string;
  readonly open: readonly RecordOpen[];
  readonly signing: RecordSigning;
}

/** Shows what is open, and signs once each of it is settled or accepted with a reason. */
export function SignDialog(signer: Signer) {
  const [shown, setShown] = useState(false);
  const router = useRouter();
  return (
    <Dialog
      wide
      title="Sign the record"
      description="A snapshot of what is true now; it is kept as it is, whatever is measured later"
      open={shown}
      onOpenChange={setShown}
      trigger={
        <Button look="main" className="ml-auto">
          Sign …
        </Button>
      }
    >
      <SignForm
        {...signer}
        done={({ number }) => {
          setShown(false);
          router.push(`/jobs/${signer.jobId}/record?record=${number}`);
        }}
      />
    </Dialog>
  );
}

/** Where each kind of what is open is settled. */
const SETTLED_AT: Readonly<Record<RecordOpen['kind'], string>> = {
  openRound: 'measure',
  doubt: 'measure',
  undecided: 'measure',
  unmeasured: 'measure',
  loose: 'measure',
  plannedBrace: 'brace',
  braceIn: 'brace',
  closeOut: 'fit',
  unreadPull: 'pull',
  notSeen: 'log',
  otherSide: 'log',
  openStep: '',
};

const reasonField = (kind: RecordOpen['kind']) => `reason-${kind}` as const;

function SignForm({
  jobId,
  open,
  signing: { signRecord, asksPassphrase },
  done,
}: Signer & { done: (signed: { number: number }) => void }) {
  const { preferences } = usePreferences();
  const kinds = OPEN_KINDS.map((kind) => [kind, open.filter((each) => each.kind === kind)] as const).filter(
    ([, items]) => items.length > 0,
  );
  const form = useEntryForm({
    schema: signing,
    action: signRecord,
    defaults: {
      passphrase: '',
      ...(Object.fromEntries(kinds.map(([kind]) => [reasonField(kind), ''])) as Record<string, string>),
    },
    read: (values: Record<string, string | undefined>, faults, id) => {
      const reasonOf = (kind: RecordOpen['kind']) => values[reasonField(kind)]?.trim() ?? '';
      for (const [kind] of kinds)
        if (!reasonOf(kind))
          faults.push({ path: reasonField(kind), message: 'settle it, or say why it is signed all the same' });
      return {
        ...{ id, jobId, passphrase: values.passphrase ?? '' },
        accepted: open.map(({ kind, subject }) => ({ kind, subject, reason: reasonOf(kind) })),
      };
    },
    done,
  });
  const passphrase = form.field('passphrase');
  return (
    <form onSubmit={form.submit} className="flex flex-col gap-4" noValidate>
      {kinds.length === 0 ? <p>Nothing is open.</p> : null}
      {kinds.map(([kind, items]) => (
        <OpenKind key={kind} {...{ jobId, kind, items }} field={form.field(reasonField(kind))} />
      ))}
      <p>
        Signed by <span className="font-semibold">{preferences.person || 'whoever says so now'}</span>
      </p>
      {asksPassphrase || passphrase.error ? (
        <TextField label="Your passphrase again" type="password" autoComplete="current-password" {...passphrase} />
      ) : null}
      <Faults faults={form.faults} />
      <Button type="submit" look="main" className="self-start" disabled={form.pending}>
        Sign it
      </Button>
    </form>
  );
}

const MOST_NAMED = 14;

interface OfOneKind {
  readonly jobId: string;
  readonly kind: RecordOpen['kind'];
  readonly items: readonly RecordOpen[];
  readonly field: object;
}

/** What is open of one kind: named, with the way to settle it and the place for the reason. */
function OpenKind({ jobId, kind, items, field }: OfOneKind) {
  const format = useFormat();
  const named = items.slice(0, MOST_NAMED).map(({ subject }) => format.name(subject));
  return (
    <fieldset className="border-l-2 border-ink pl-3" data-open={kind}>
      <legend className="font-medium">
        {items.length} × {OPEN_WORD[kind]}
      </legend>
      <p className="text-sm">
        {named.join(' · ')}
        {items.length > MOST_NAMED ? ` · and ${items.length - MOST_NAMED} more` : ''}{' '}
        <Link className="underline" href={`/jobs/${jobId}/${SETTLED_AT[kind]}`}>
          Settle it
        </Link>
      </p>
      <TextField label="Or why it is signed all the same" {...field} />
    </fieldset>
  );
}
