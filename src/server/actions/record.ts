'use server';

import { ladderOf } from '@/core/days/ladder';
import { signedWith } from '@/core/report/record/signed';
import { Job } from '@/core/shell/job/job';
import type { RecordOpen } from '@/core/shell/record-document';
import { insert } from '@/db/table';
import { signing } from '@/formats/inputs/log';
import { done, failed } from '@/formats/outcome';
import { saidAgain } from '../people/said-again';
import { hashOfRecord } from '../record-hash';
import { rowsWithin } from '../rows-at';
import { runTask } from '../tasks';
import { signingCase } from '../use-case';

/**
 * Signs the record: a snapshot of what is true now, kept as it is for good. What is open is in it with the reason why it
 * was signed all the same; the step that signing does is done with it. Signed twice with one identity it is signed once.
 */
export const signRecord = signingCase(signing, async ({ id, jobId, passphrase, accepted }, context) => {
  const { database, actor, signature, now, newId } = context;
  const proved = await saidAgain(database, actor, passphrase);
  if (!proved.ok) return proved;
  // Read and written in one transaction: nothing can be typed between what is read and what is signed.
  return database.transaction(async (tx) => {
    const rows = await rowsWithin(tx, jobId);
    if (!rows) return failed('job', 'this job is not here any more');
    const { signedRecords } = rows;
    const known = signedRecords.find((record) => record.id === id);
    if (known) return done({ number: known.number });
    const record = await runTask('record', rows, { madeAt: '' });
    const reasons = new Map(accepted.map((each) => [keyOf(each), each.reason.trim()]));
    const snapshot = { ...signedWith(record, (each) => reasons.get(keyOf(each)) ?? ''), madeAt: now };
    const bare = (snapshot.open ?? []).filter(({ reason }) => reason === '');
    if (bare.length > 0)
      return failed('accepted', `${bare[0]!.subject} is open: settle it, or say why it is signed all the same`);
    const number = Math.max(0, ...signedRecords.map((each) => each.number)) + 1;
    const signed = { id, jobId, number, signedBy: actor.name, personId: actor.personId, signedAt: now, snapshot };
    await insert(tx, 'signedRecords', [{ ...signed, hash: hashOfRecord(signed) }]);
    const steps = ladderOf(Job.of(rows)).rungs.flatMap(({ steps: own }) => own);
    await insert(
      tx,
      'stepEvents',
      steps
        .filter(({ step, state }) => step.doneBy === 'signing' && state !== 'done')
        .map(({ step }) => ({
          ...{ id: newId(), stepId: step.id, kind: 'done' as const, until: null },
          ...{ ...signature, note: `record ${number}` },
        })),
    );
    return done({ number });
  });
});

const keyOf = ({ kind, subject }: Pick<RecordOpen, 'kind' | 'subject'>) => `${kind} ${subject}`;
