'use server';

import { recordById, recordsByHash, type FoundRecord } from '@/db/records';
import { broughtRecord, type Checked, type KnownRecord } from '@/formats/inputs/check';
import { FEWEST_DIGITS, readSignedRecord } from '@/formats/signed-record';
import { done, failed } from '@/formats/outcome';
import { sha256 } from '../record-hash';
import { ownCase } from '../use-case';

/** Holds a record that is brought back against what was signed here. */
export const checkRecord = ownCase<typeof broughtRecord, Checked>(broughtRecord, async (brought, { database }) => {
  if ('digits' in brought) {
    const digits = brought.digits.replace(/[\s:.-]/g, '').toLowerCase();
    if (!/^[0-9a-f]{1,64}$/.test(digits) || digits.length < FEWEST_DIGITS)
      return failed('digits', `the digits after SHA-256 under the record: ${FEWEST_DIGITS} of them at least`);
    const [found, another] = await recordsByHash(database, digits);
    if (!found) return failed('digits', 'no record signed here begins so: look again, digit by digit');
    if (another) return failed('digits', 'more than one record begins so: type more of the digits');
    return done({ kind: 'digits', record: told(found) });
  }
  const read = readSignedRecord(brought.file);
  if (!read.ok) return { ok: false, faults: read.faults.map((fault) => ({ ...fault, path: 'file' })) };
  const { id, hash, content } = read.value;
  const known = await recordById(database, id);
  if (sha256(content) !== hash || (known && known.hash !== hash))
    return done({ kind: 'altered', record: known && told(known) });
  return done(known ? { kind: 'same', record: told(known) } : { kind: 'elsewhere' });
});

const told = ({ jobId, jobName, number, signedBy, signedAt }: FoundRecord): KnownRecord => ({
  ...{ jobId, jobName, number, signedBy, signedAt },
});
