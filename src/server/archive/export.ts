import { createHash } from 'node:crypto';
import { Readable } from 'node:stream';
import { ZipFile as ZipWriter } from 'yazl';
import { JOB_TABLE_NAMES, theJob, type JobRows } from '@/core/shell/job/job-rows';
import type { Database } from '@/db/database';
import { loadJob } from '@/db/jobs';
import { isFull } from '@/db/journal/journal';
import { contentOf } from '@/db/photographs';
import { archiveDocuments, carried, photographPath } from '@/formats/archive/documents';
import { fileName } from '@/formats/file-name';

/** A whole job as one zip, written as it is read: its size does not matter to the memory. */
export async function exportJob(
  database: Database,
  jobId: string,
): Promise<{ name: string; zip: Readable } | undefined> {
  const rows = await loadJob(database, jobId);
  if (!rows) return undefined;
  const zip = zipOfJob(database, rows);
  await database
    .query('insert into job_export (job_id, sha256, at) values ($1, $2, now())', [jobId, contentHash(rows)])
    // A full disk is no reason not to take a job out: it is only not removed on the strength of it.
    .catch((error: unknown) => {
      if (!isFull(error)) throw error;
    });
  return { name: fileName(theJob(rows).name), zip };
}

/** The archive of a job's rows, its pictures read as it is written. */
export function zipOfJob(database: Database, rows: JobRows): Readable {
  const zip = new ZipWriter();
  for (const { path, text } of archiveDocuments(rows)) zip.addBuffer(Buffer.from(text), path);
  for (const photograph of rows.photographs)
    zip.addReadStreamLazy(photographPath(photograph), { compress: false, size: photograph.bytes }, (open) =>
      open(null, Readable.from(contentOf(database, photograph.id), { objectMode: false })),
    );
  zip.end();
  return zip.outputStream as Readable;
}

/** What a job's archive holds, in one figure: the same for the same rows, in whatever order they were read. */
export function contentHash(rows: JobRows): string {
  const hash = createHash('sha256');
  const told = carried(rows);
  for (const table of JOB_TABLE_NAMES) {
    hash.update(table);
    for (const row of told[table].map((each) => JSON.stringify(each)).sort()) hash.update(row);
  }
  return hash.digest('hex');
}
