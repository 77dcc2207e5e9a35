import canonicalize from 'canonicalize';
import { z } from 'zod';
import type { SignedRecord } from '@/core/shell/job/entities';
import { parseJson, type Parsed } from './faults';

/**
 * A signed record as a file that can be brought back and checked: `vinkel.signed-record/1`, with the SHA-256 of what is
 * signed. See docs/formats.md.
 */
const FORMAT = 'vinkel.signed-record/1';

const file = z.looseObject({
  format: z.literal(FORMAT),
  id: z.uuid(),
  hash: z.string().regex(/^[0-9a-f]{64}$/),
});

type Signed = Omit<SignedRecord, 'hash'>;

/** What is signed, as text that is the same for the same content: JSON as RFC 8785 (JCS) has it. */
export const signedContent = ({ id, jobId, number, signedBy, personId, signedAt, snapshot }: Signed): string =>
  canonicalize({ format: FORMAT, id, jobId, number, signedBy, personId, signedAt, snapshot })!;

export const signedRecordFile = (record: SignedRecord): string =>
  `${JSON.stringify({ format: FORMAT, ...record }, null, 1)}\n`;

/** What a file brought back says, and what its hash is of, just as it stands there. */
export interface BroughtRecord {
  readonly id: string;
  readonly hash: string;
  readonly content: string;
}

export function readSignedRecord(text: string): Parsed<BroughtRecord> {
  const json = parseJson(text);
  if (!json.ok) return json;
  const read = file.safeParse(json.value);
  if (!read.success)
    return {
      ok: false,
      faults: [{ path: 'file', message: 'this is no signed record: take the file that “Signed record” gives' }],
    };
  const { hash, ...content } = read.data;
  return { ok: true, value: { id: content.id, hash, content: canonicalize(content)! } };
}

/** How many digits of a hash tell one record from all others. */
export const FEWEST_DIGITS = 12;

/** A hash in groups of eight, as people read it out. */
export const hashText = (hash: string): string => hash.match(/.{8}/g)!.join(' ');
