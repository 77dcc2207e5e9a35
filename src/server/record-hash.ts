import { createHash } from 'node:crypto';
import type { SignedRecord } from '@/core/shell/job/entities';
import { signedContent } from '@/formats/signed-record';

export const sha256 = (text: string): string => createHash('sha256').update(text).digest('hex');

/** What tells a signed record from every other: SHA-256 over its content. */
export const hashOfRecord = (record: Omit<SignedRecord, 'hash'>): string => sha256(signedContent(record));
