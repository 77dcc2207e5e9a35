'use server';

import { z } from 'zod';
import { signedRecord } from '@/core/shell/job/entities';
import { insert } from '@/db/table';
import { done, failed, type Outcome } from '@/formats/outcome';
import { rowsAt } from '../rows-at';
import { runTask } from '../tasks';
import { runUseCase } from '../use-case';

const signing = z.strictObject({
  id: z.uuid(),
  jobId: z.uuid(),
  signedBy: signedRecord.shape.signedBy,
});

/** Signs the record: a snapshot of what is true now, kept as it is for good. */
export async function signRecord(input: unknown): Promise<Outcome<{ number: number }>> {
  return runUseCase(signing, input, async ({ id, jobId, signedBy }, { database }) => {
    const at = await rowsAt(database, jobId);
    if (!at) return failed('job', 'this job is not here any more');
    const { rows } = at;
    const signedAt = new Date().toISOString();
    const number = Math.max(0, ...rows.signedRecords.map((record) => record.number)) + 1;
    const snapshot = { ...(await runTask('record', at, { madeAt: '' })), madeAt: signedAt };
    await insert(database, 'signedRecords', [{ id, jobId, number, signedBy, signedAt, snapshot }]);
    return done({ number });
  });
}
