import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import type { JobRows } from '@/core/shell/job/job-rows';
import { readArchiveDocuments } from '@/formats/archive/documents';

/** A demo job as its files say. */
export function demoRows(folder: 'solbris' | 'kvist' | 'lodd' | 'maake'): JobRows {
  const root = path.join(process.cwd(), 'demo/jobs', folder);
  const paths = ['job.json', ...readdirSync(path.join(root, 'rounds')).map((name) => `rounds/${name}`)];
  const read = readArchiveDocuments(
    paths.map((name) => ({ path: name, text: readFileSync(path.join(root, name), 'utf8') })),
  );
  if (!read.ok) throw new Error(JSON.stringify(read.faults.slice(0, 5)));
  return read.value;
}
