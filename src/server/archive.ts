import { createHash, randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import path from 'node:path';
import { Readable } from 'node:stream';
import type { ReadableStream as NodeReadableStream } from 'node:stream/web';
import { pipeline } from 'node:stream/promises';
import { text as readText } from 'node:stream/consumers';
import { promisify } from 'node:util';
import yauzl, { type Entry, type ZipFile } from 'yauzl';
import { ZipFile as ZipWriter } from 'yazl';
import { copyOf } from '@/core/shell/job/copy';
import { JOB_TABLE_NAMES, theJob, type JobRows } from '@/core/shell/job/job-rows';
import { loadJob } from '@/db/jobs';
import { contentOf, removeContent } from '@/db/photographs';
import type { Database } from '@/db/database';
import { insert } from '@/db/table';
import {
  archiveDocuments,
  JOB_PATH,
  photographPath,
  readArchiveDocuments,
  ROUND_PATH,
  type ArchiveDocument,
} from '@/formats/archive/documents';
import { fileName } from '@/formats/file-name';
import { done, failed, HERE_ALREADY, type Outcome } from '@/formats/outcome';
import { makePreview, storeContent } from './photographs';
import { store, type Store } from './store';

/** A whole job as one zip, written as it is read: its size does not matter to the memory. */
export async function exportJob(
  database: Database,
  jobId: string,
): Promise<{ name: string; zip: Readable } | undefined> {
  const rows = await loadJob(database, jobId);
  if (!rows) return undefined;
  const zip = new ZipWriter();
  for (const { path, text } of archiveDocuments(rows)) zip.addBuffer(Buffer.from(text), path);
  for (const photograph of rows.photographs)
    zip.addReadStreamLazy(photographPath(photograph), { compress: false, size: photograph.bytes }, (open) =>
      open(null, Readable.from(contentOf(database, photograph.id), { objectMode: false })),
    );
  zip.end();
  await database.query('insert into job_export (job_id, sha256, at) values ($1, $2, now())', [
    jobId,
    contentHash(rows),
  ]);
  return { name: fileName(theJob(rows).name), zip: zip.outputStream as Readable };
}

/** What a job's archive holds, in one figure: the same for the same rows. */
export const contentHash = (rows: JobRows): string =>
  createHash('sha256')
    .update(JSON.stringify(archiveDocuments(rows)))
    .digest('hex');

/** How a job that is here already is brought in again. */
export type BringAs = 'new' | 'copy' | 'missing';

/** Documents of a job are texts; one larger than this is not ours. */
const MOST_DOCUMENT_BYTES = 512 * 1024 * 1024;

/** Brings a job in from an archive on the disk, all of it or nothing. */
export async function importJob(
  { database, journal }: Store,
  zipPath: string,
  as: BringAs = 'new',
): Promise<Outcome<{ jobId: string }>> {
  let zip: ZipFile;
  try {
    zip = await open(zipPath, { lazyEntries: true, autoClose: false });
  } catch {
    return failed('file', 'this is not an exported job: the zip cannot be read');
  }
  const brought: string[] = [];
  try {
    const entries = await entriesOf(zip);
    const documents: ArchiveDocument[] = [];
    for (const [path, entry] of entries) {
      if (path !== JOB_PATH && !ROUND_PATH.test(path)) continue;
      if (entry.uncompressedSize > MOST_DOCUMENT_BYTES) return failed(path, 'is too large');
      documents.push({ path, text: await readText(await stream(zip, entry)) });
    }
    if (!entries.has(JOB_PATH)) return failed('file', `this is not an exported job: ${JOB_PATH} is missing`);
    const read = readArchiveDocuments(documents);
    if (!read.ok) return read;
    const { rows, former } = as === 'copy' ? copyOf(read.value, randomUUID) : { rows: read.value, former: new Map() };
    const job = theJob(rows);
    const [present] = await database.query('select id from job where id = $1', [job.id]);
    if (present && as !== 'missing') return failed(HERE_ALREADY, `the job "${job.name}" is here already`);
    const pathOf = (photograph: JobRows['photographs'][number]) =>
      photographPath({ ...photograph, id: former.get(photograph.id) ?? photograph.id });
    const there = new Set(
      (await database.query<{ id: string }>('select id from photograph_content')).map(({ id }) => id),
    );
    const wanted = rows.photographs.filter(({ id }) => !there.has(id));
    const lacking = wanted.filter((photograph) => !entries.has(pathOf(photograph)));
    if (lacking.length > 0)
      return {
        ok: false,
        faults: lacking.map((each) => ({ path: pathOf(each), message: 'is missing' })),
      };
    for (const photograph of wanted) {
      const fault = await bringPhotograph(database, zip, entries.get(pathOf(photograph))!, photograph, brought);
      if (fault) {
        await removeContent(database, brought);
        return failed(pathOf(photograph), fault);
      }
    }
    await database.transaction(async (tx) => {
      for (const table of JOB_TABLE_NAMES)
        await insert(tx, table, rows[table] as never[], {
          skipExisting: as === 'missing' || table === 'instruments' || table === 'instrumentVersions',
        });
      await journalRows(journal, rows);
    });
    return done({ jobId: job.id });
  } catch (error) {
    await removeContent(database, brought).catch(() => undefined);
    const { code, detail } = error as { code?: string; detail?: string };
    if (code?.startsWith('23')) return failed('job.json', `its rows contradict each other: ${detail ?? code}`);
    const unpacking = code?.startsWith('Z_') || /zip|central directory|compressed|crc/i.test(String(error));
    if (unpacking && error instanceof Error) return failed('file', `the zip is damaged: ${error.message}`);
    throw error;
  } finally {
    zip.close();
  }
}

/** The readings of an imported job go to the journal like typed ones. */
async function journalRows(journal: Store['journal'], rows: JobRows): Promise<void> {
  if (rows.readings.length === 0) return;
  const {
    jobs,
    instruments,
    instrumentVersions,
    points,
    seams,
    seamStations,
    shellStates,
    supports,
    rounds,
    pulls,
    readings,
    readingStrikes,
  } = rows;
  await journal.append({
    jobs,
    instruments,
    instrumentVersions,
    points,
    seams,
    seamStations,
    shellStates,
    supports,
    rounds,
    pulls,
    readings,
    readingStrikes,
  });
}

/** Stores one picture part by part; returns why not, where it is not what the job says. */
async function bringPhotograph(
  database: Database,
  zip: ZipFile,
  entry: Entry,
  photograph: JobRows['photographs'][number],
  brought: string[],
): Promise<string | undefined> {
  if (entry.uncompressedSize !== photograph.bytes)
    return `has ${entry.uncompressedSize} bytes, not ${photograph.bytes}`;
  const parts: Buffer[] = [];
  const hash = createHash('sha256');
  for await (const chunk of await stream(zip, entry)) {
    hash.update(chunk as Buffer);
    parts.push(chunk as Buffer);
  }
  if (hash.digest('hex') !== photograph.sha256) return 'is not the picture it was: its checksum differs';
  const content = Buffer.concat(parts);
  const preview = await makePreview(content).catch(() => undefined);
  if (!preview) return 'is not a picture';
  await database.transaction((tx) => storeContent(tx, photograph.id, preview, content));
  brought.push(photograph.id);
  return undefined;
}

const open = promisify<string, yauzl.Options, ZipFile>(yauzl.open);

function entriesOf(zip: ZipFile): Promise<Map<string, Entry>> {
  return new Promise((resolve, reject) => {
    const entries = new Map<string, Entry>();
    zip.on('entry', (entry: Entry) => {
      entries.set(entry.fileName, entry);
      zip.readEntry();
    });
    zip.once('end', () => resolve(entries));
    zip.once('error', reject);
    zip.readEntry();
  });
}

const stream = (zip: ZipFile, entry: Entry): Promise<Readable> =>
  new Promise((resolve, reject) =>
    zip.openReadStream(entry, (error, opened) => (error ? reject(error) : resolve(opened))),
  );

/** Writes an upload to the data folder's disk, brings the job in, and tidies up. */
export async function importUpload(body: ReadableStream<Uint8Array>, as: BringAs): Promise<Outcome<{ jobId: string }>> {
  const opened = await store();
  const folder = await mkdtemp(path.join(opened.folder, 'import-'));
  try {
    const zipPath = path.join(folder, 'job.zip');
    await pipeline(Readable.fromWeb(body as NodeReadableStream), createWriteStream(zipPath));
    return await importJob(opened, zipPath, as);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
