import type { SignedRecord } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { RecordDocument } from '@/core/shell/record-document';
import { buildRecord } from '@/core/report/record/record';

type Signature = Pick<SignedRecord, 'number' | 'signedBy' | 'signedAt'>;

/** A signed record by its number, or the job as it stands. */
export function recordOf(
  rows: JobRows,
  number: string | undefined | null,
): { record: RecordDocument; signature?: Signature; signatures: Signature[] } {
  const signatureOf = ({ number: n, signedBy, signedAt }: SignedRecord): Signature => ({
    number: n,
    signedBy,
    signedAt,
  });
  const signatures = rows.signedRecords.map(signatureOf);
  const signed = rows.signedRecords.find((each) => String(each.number) === number);
  if (signed) return { record: signed.snapshot, signature: signatureOf(signed), signatures };
  return { record: buildRecord(rows, new Date().toISOString()), signatures };
}
