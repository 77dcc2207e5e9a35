'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import type { Round } from '@/core/shell/job/entities';
import { counted, listedUpTo } from '@/core/report/vocabulary/words';
import { roundEvent, type OpenInRound, type RoundEventInput } from '@/formats/inputs/rounds';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { TextArea } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { useAction, type Action } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';
import { useTyped, useWaiting } from '../tape/use-waiting';

export interface RoundActions {
  readonly recordRoundEvent: Action<RoundEventInput>;
  readonly openInRound: Action<string, OpenInRound>;
}

type Closing = RoundActions & { readonly round: Pick<Round, 'id' | 'name'> };

/** Closes a round once what is open in it has been seen. */
export const CloseRound = (closing: Closing) => (
  <FormDialog
    title={`Close the round ${closing.round.name}`}
    description="Nothing more is read, struck or kept in a closed round. It can be opened again, with a reason."
    trigger={<Button look="quiet">Close the round</Button>}
  >
    {(close) => <CloseForm {...closing} done={close} />}
  </FormDialog>
);

function CloseForm({ round, openInRound, recordRoundEvent, done }: Closing & { done: () => void }) {
  const [open, setOpen] = useState<OpenInRound | undefined>();
  const { run, faults, pending } = useAction(recordRoundEvent);
  // One identity for this closing, however often it is pressed.
  const [id] = useState(() => crypto.randomUUID());
  const waiting = useWaiting(round.id);
  useEffect(() => {
    if (waiting > 0) return;
    void openInRound(round.id).then((outcome) => setOpen(outcome.ok ? outcome.value : NOTHING_OPEN));
  }, [openInRound, round.id, waiting]);
  if (waiting > 0)
    return (
      <p role="status">
        {counted(waiting, 'line')} of this round {waiting === 1 ? 'is' : 'are'} still on the way to the program. The
        round can be closed when {waiting === 1 ? 'it has' : 'they have'} arrived.
      </p>
    );
  if (!open) return <p role="status">Looking what is still open …</p>;
  const left = sentencesOf(open);
  return (
    <>
      {left.length > 0 ? (
        <ul className="list-disc pl-5" aria-label="Still open">
          {left.map((each) => (
            <li key={each}>{each}</li>
          ))}
        </ul>
      ) : (
        <p>Nothing is doubtful, and everything the chart judges is measured.</p>
      )}
      <Faults faults={faults} />
      <div className="flex gap-2">
        <Button
          look="main"
          disabled={pending}
          onClick={async () => {
            const reason = left.join(' ');
            const outcome = await run({ id, roundId: round.id, kind: 'closed', reason });
            if (outcome.ok) done();
          }}
        >
          {left.length > 0 ? 'Close it all the same' : 'Close it'}
        </Button>
        <Button look="quiet" onClick={done}>
          Go on measuring
        </Button>
      </div>
    </>
  );
}

const NOTHING_OPEN: OpenInRound = { doubtful: 0, loose: [], unmeasured: [], undecided: 0 };
const MOST = 12;

/** What is open in a round, a sentence each. */
export function sentencesOf({ doubtful, loose, unmeasured, undecided }: OpenInRound): string[] {
  const named = (codes: readonly string[]) => listedUpTo(MOST, codes);
  return [
    ...(doubtful > 0
      ? [`${counted(doubtful, 'reading')} ${doubtful === 1 ? 'is' : 'are'} doubtful and left out.`]
      : []),
    ...(unmeasured.length > 0 ? [`The chart judges what nobody measured: ${named(unmeasured)}.`] : []),
    ...(loose.length > 0 ? [`Still loose: ${named(loose)}.`] : []),
    ...(undecided > 0 ? [`${counted(undecided, 'figure')} ${undecided === 1 ? 'is' : 'are'} undecided.`] : []),
  ];
}

/** Takes a round away in which nothing was read. */
export function DropRound({ round, dropRound }: { round: Pick<Round, 'id' | 'jobId'>; dropRound: Action<string> }) {
  const router = useRouter();
  const { run, faults, pending } = useAction(dropRound);
  const typed = useTyped(round.id);
  if (typed) return null;
  return (
    <>
      <Button
        look="quiet"
        disabled={pending}
        onClick={async () => {
          if ((await run(round.id)).ok) router.push(`/jobs/${round.jobId}/measure`);
        }}
      >
        Drop this empty round
      </Button>
      <Faults faults={faults} />
    </>
  );
}

/** Opens a closed round again, for a reason that is kept. */
export const OpenAgain = (closing: Closing) => (
  <FormDialog
    title={`Open the round ${closing.round.name} again`}
    trigger={<Button look="quiet">Open the round again</Button>}
  >
    {(close) => <OpenForm {...closing} done={close} />}
  </FormDialog>
);

function OpenForm({ round, recordRoundEvent, done }: Closing & { done: () => void }) {
  const form = useEntryForm({
    schema: roundEvent,
    action: recordRoundEvent,
    defaults: { reason: '' },
    read: ({ reason = '' }, faults) => {
      if (!reason.trim()) faults.push({ path: 'reason', message: 'opening a closed round needs its reason' });
      return { id: crypto.randomUUID(), roundId: round.id, kind: 'opened' as const, reason };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Open it again">
      <TextArea label="Why it is opened again" {...form.field('reason')} />
    </FormFields>
  );
}
