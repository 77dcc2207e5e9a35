import { text as readText } from 'node:stream/consumers';
import type { Readable } from 'node:stream';
import { promisify } from 'node:util';
import yauzl, { type Entry, type ZipFile } from 'yauzl';
import type { JobRows } from '@/core/shell/job/job-rows';
import { JOB_PATH, readArchiveDocuments, ROUND_PATH, type ArchiveDocument } from '@/formats/archive/documents';
import { failed, type Outcome } from '@/formats/outcome';

/** Entries an archive may have, the bytes all its documents may unpack to, and one of them. */
const MOST_ENTRIES = 5000;
const MOST_BYTES = 384 * 1024 * 1024;
const MOST_DOCUMENT_BYTES = 128 * 1024 * 1024;
/** Rows repeat themselves and pack to a tenth, at best a thirtieth; what packs further is no job. */
const MOST_RATIO = 100;
/** Below this nobody minds how far it packs. */
const SMALL_BYTES = 1024 * 1024;

export interface OpenedZip {
  readonly zip: ZipFile;
  readonly entries: ReadonlyMap<string, Entry>;
}

/** Opens a zip and reads its table of contents; refused, in words, where it is none or too much. */
export async function openZip(path: string): Promise<Outcome<OpenedZip>> {
  let zip: ZipFile;
  try {
    zip = await open(path, { lazyEntries: true, autoClose: false });
  } catch {
    return failed('file', 'this is not an exported job: the zip cannot be read');
  }
  try {
    if (zip.entryCount > MOST_ENTRIES)
      return refuse(zip, 'file', `the zip has ${zip.entryCount} files; at most ${MOST_ENTRIES} are read`);
    const entries = await entriesOf(zip);
    if (!entries.has(JOB_PATH)) return refuse(zip, 'file', `this is not an exported job: ${JOB_PATH} is missing`);
    return { ok: true, value: { zip, entries } };
  } catch (error) {
    return refuse(zip, 'file', `the zip is damaged: ${(error as Error).message}`);
  }
}

function refuse(zip: ZipFile, path: string, message: string): Outcome<never> {
  zip.close();
  return failed(path, message);
}

/** Whether an entry is a document of a job; its pictures are not. */
const isDocument = (path: string): boolean => path === JOB_PATH || ROUND_PATH.test(path);

/** Reads the rows of the job an archive holds; every fault names its file and place. Pictures stay where they are. */
export async function readRows(path: string): Promise<Outcome<JobRows>> {
  const opened = await openZip(path);
  if (!opened.ok) return opened;
  const { zip, entries } = opened.value;
  try {
    const documents: ArchiveDocument[] = [];
    let bytes = 0;
    for (const [name, entry] of entries) {
      if (!isDocument(name)) continue;
      bytes += entry.uncompressedSize;
      const { uncompressedSize: size, compressedSize } = entry;
      if (size > MOST_DOCUMENT_BYTES || bytes > MOST_BYTES) return failed(name, 'is larger than any job is');
      if (size > SMALL_BYTES && size > MOST_RATIO * compressedSize)
        return failed(name, 'unpacks to so much more than it is that it cannot be a job');
      documents.push({ path: name, text: await readText(await streamOf(zip, entry)) });
    }
    return readArchiveDocuments(documents);
  } catch (error) {
    return failed('file', `the zip is damaged: ${(error as Error).message}`);
  } finally {
    zip.close();
  }
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

/** The bytes of an entry, unpacked as they are read; more of them than it said end the stream with an error. */
export const streamOf = (zip: ZipFile, entry: Entry): Promise<Readable> =>
  new Promise((resolve, reject) =>
    zip.openReadStream(entry, (error, opened) => (error ? reject(error) : resolve(opened))),
  );
