import type { SignedRecord } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { RecordDocument } from '@/core/shell/record-document';
import { runTask } from './tasks';

type Signature = Pick<SignedRecord, 'number' | 'signedBy' | 'signedAt' | 'hash'>;

/** A signed record by its number, the last signed one where none is named, or the job as it stands (`now`). */
export async function recordOf(
  rows: JobRows,
  number: string | undefined | null,
): Promise<{ record: RecordDocument; signature?: Signature; signatures: Signature[] }> {
  const signatureOf = ({ number: n, signedBy, signedAt, hash }: SignedRecord): Signature => ({
    number: n,
    signedBy,
    signedAt,
    hash,
  });
  const { signedRecords } = rows;
  const signatures = signedRecords.map(signatureOf);
  const signed =
    signedRecords.find((each) => String(each.number) === number) ??
    (number === 'now' ? undefined : signedRecords.at(-1));
  if (signed) return { record: signed.snapshot, signature: signatureOf(signed), signatures };
  const madeAt = new Date().toISOString();
  // The same page asked again on the same state is the same record, but for the time printed on it.
  const record = await runTask('record', rows, { madeAt: '' });
  return { record: { ...record, madeAt }, signatures };
}
