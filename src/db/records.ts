import type { SignedRecord } from '@/core/shell/job/entities';
import type { Queryable } from './database';

/** A signed record as it is found again, and the job it is of. */
export interface FoundRecord extends Omit<SignedRecord, 'snapshot'> {
  readonly jobName: string;
}

const FOUND = `
  select signed_record.id, signed_record.job_id, signed_record.number, signed_record.signed_by, signed_record.person_id,
    signed_record.signed_at, signed_record.hash, job.name as job_name
  from signed_record join job on job.id = signed_record.job_id`;

/** Records whose hash begins so. */
export const recordsByHash = (db: Queryable, digits: string): Promise<FoundRecord[]> =>
  db.query(`${FOUND} where starts_with(signed_record.hash, $1) order by signed_record.signed_at limit 2`, [digits]);

export async function recordById(db: Queryable, id: string): Promise<FoundRecord | undefined> {
  const [found] = await db.query<FoundRecord>(`${FOUND} where signed_record.id = $1`, [id]);
  return found;
}
