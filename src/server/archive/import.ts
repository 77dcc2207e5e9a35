import { createHash, randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdir } from 'node:fs/promises';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import type { Entry, ZipFile } from 'yauzl';
import { copyOf } from '@/core/shell/job/copy';
import { isShopTable, JOB_TABLE_NAMES, theJob, type JobRows } from '@/core/shell/job/job-rows';
import type { Database } from '@/db/database';
import { loadJob, removeJob } from '@/db/jobs';
import { contentIds, removeContent } from '@/db/photographs';
import { insert } from '@/db/table';
import { photographPath } from '@/formats/archive/documents';
import type { BringAs } from '@/formats/inputs/jobs';
import { fileName } from '@/formats/file-name';
import { done, failed, HERE_ALREADY, type Outcome } from '@/formats/outcome';
import type { PictureKeeper } from '../kept-pictures';
import { makePreview, storeContent } from '../photographs';
import { inThread } from '../thread';
import { zipOfJob } from './export';
import { openZip, readRows, streamOf } from './read-zip';

/** Where a job is brought in. */
interface Into {
  readonly database: Database;
  /** Keeps the pictures for the journal, where there is one. */
  readonly pictures?: PictureKeeper;
  /** Where the present job is put as an archive before another takes its place. */
  readonly replaced?: string;
}

/** Brings a job in from an archive on the disk, all of it or nothing. */
export async function importJob(into: Into, zipPath: string, as: BringAs = 'new'): Promise<Outcome<{ jobId: string }>> {
  const { database } = into;
  const read = await inThread('archive-thread', zipPath, readRows);
  if (!read.ok) return read;
  const { rows, former } = as === 'copy' ? copyOf(read.value, randomUUID) : { rows: read.value, former: new Map() };
  const job = theJob(rows);
  const present = await loadJob(database, job.id);
  if (present && as === 'new') return failed(HERE_ALREADY, `the job "${job.name}" is here already`);
  const pathOf = (photograph: JobRows['photographs'][number]) =>
    photographPath({ ...photograph, id: former.get(photograph.id) ?? photograph.id });
  const brought: string[] = [];
  try {
    const missing = await bringPictures(into, zipPath, rows.photographs, pathOf, brought);
    if (missing.length > 0) {
      await letGo(into, brought);
      return { ok: false, faults: missing };
    }
    if (present && as === 'replace') await putAside(into, present);
    await database.transaction(async (tx) => {
      if (as === 'replace') await removeJob(tx, job.id);
      for (const table of JOB_TABLE_NAMES)
        await insert(tx, table, (table === 'people' ? strangers(rows) : rows[table]) as never[], {
          skipExisting: as === 'missing' || isShopTable(table),
        });
      if (present && as === 'replace') await removeContent(tx, onlyIn(present, rows));
    });
    return done({ jobId: job.id });
  } catch (error) {
    await letGo(into, brought).catch(() => undefined);
    const { code, detail } = error as { code?: string; detail?: string };
    if (code?.startsWith('23')) return failed('job.json', `its rows contradict each other: ${detail ?? code}`);
    throw error;
  }
}

/** People who come with a job may do nothing here until the owner of this shop says so. */
const strangers = ({ people }: JobRows): JobRows['people'] =>
  people.map((each) => ({ ...each, roles: [], owner: false }));

/** Takes back the pictures of an import that came to nothing. */
async function letGo({ database, pictures }: Into, brought: readonly string[]): Promise<void> {
  await removeContent(database, brought);
  await pictures?.forget(brought);
}

/** The pictures of one state of a job that another has not. */
function onlyIn(before: JobRows, after: JobRows): string[] {
  const still = new Set(after.photographs.map(({ id }) => id));
  return before.photographs.map(({ id }) => id).filter((id) => !still.has(id));
}

/** Writes the present job as an archive to the disk before another takes its place. */
async function putAside({ database, replaced }: Into, present: JobRows): Promise<void> {
  if (replaced === undefined) throw new Error('nowhere to put the present job');
  await mkdir(replaced, { recursive: true });
  const { name, id } = theJob(present);
  const place = path.join(
    replaced,
    `${fileName(name)}-${id.slice(0, 8)}-${new Date().toISOString().replace(/[:.]/g, '-')}.zip`,
  );
  await pipeline(zipOfJob(database, present), createWriteStream(place, { flush: true } as object));
}

/** Stores the pictures that are not here yet; what is wrong with them, in words. `brought` are those it stored. */
async function bringPictures(
  into: Into,
  zipPath: string,
  photographs: JobRows['photographs'],
  pathOf: (photograph: JobRows['photographs'][number]) => string,
  brought: string[],
): Promise<{ path: string; message: string }[]> {
  const there = await contentIds(into.database);
  const wanted = photographs.filter(({ id }) => !there.has(id));
  if (wanted.length === 0) return [];
  const opened = await openZip(zipPath);
  if (!opened.ok) return [...opened.faults];
  const { zip, entries } = opened.value;
  try {
    const lacking = wanted.filter((photograph) => !entries.has(pathOf(photograph)));
    if (lacking.length > 0) return lacking.map((each) => ({ path: pathOf(each), message: 'is missing' }));
    for (const photograph of wanted) {
      const message = await bringPicture(into, zip, entries.get(pathOf(photograph))!, photograph);
      if (message) return [{ path: pathOf(photograph), message }];
      brought.push(photograph.id);
    }
    return [];
  } catch (error) {
    return [{ path: 'file', message: `the zip is damaged: ${(error as Error).message}` }];
  } finally {
    zip.close();
  }
}

/** Stores one picture part by part; returns why not, where it is not what the job says. */
async function bringPicture(
  { database, pictures }: Into,
  zip: ZipFile,
  entry: Entry,
  photograph: JobRows['photographs'][number],
): Promise<string | undefined> {
  if (entry.uncompressedSize !== photograph.bytes)
    return `has ${entry.uncompressedSize} bytes, not ${photograph.bytes}`;
  const parts: Buffer[] = [];
  const hash = createHash('sha256');
  for await (const chunk of await streamOf(zip, entry)) {
    hash.update(chunk as Buffer);
    parts.push(chunk as Buffer);
  }
  if (hash.digest('hex') !== photograph.sha256) return 'is not the picture it was: its checksum differs';
  const content = Buffer.concat(parts);
  const preview = await makePreview(content).catch(() => undefined);
  if (!preview) return 'is not a picture';
  await pictures?.keep(photograph.id, content);
  await database.transaction((tx) => storeContent(tx, photograph.id, preview, content));
  return undefined;
}
