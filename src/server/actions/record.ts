'use server';

import { insert } from '@/db/table';
import { signing } from '@/formats/inputs/log';
import { done, failed } from '@/formats/outcome';
import { rowsAt } from '../rows-at';
import { runTask } from '../tasks';
import { useCase } from '../use-case';

/** Signs the record: a snapshot of what is true now, kept as it is for good. */
export const signRecord = useCase(signing, ({ id, jobId, signedBy }, { database, now }) =>
  // Read and written in one transaction: nothing can be typed between what is read and what is signed.
  database.transaction(async (tx) => {
    const at = await rowsAt({ query: tx.query, revision: database.revision }, jobId);
    if (!at) return failed('job', 'this job is not here any more');
    const number = Math.max(0, ...at.rows.signedRecords.map((record) => record.number)) + 1;
    const snapshot = { ...(await runTask('record', at, { madeAt: '' })), madeAt: now };
    await insert(tx, 'signedRecords', [{ id, jobId, number, signedBy, signedAt: now, snapshot }]);
    return done({ number });
  }),
);
