import { readdirSync } from 'node:fs';
import path from 'node:path';
import { buffer } from 'node:stream/consumers';
import { ZipFile } from 'yazl';

export const DEMO_JOBS = 'demo/jobs';

/** A demo job's files as the zip an export would be. */
export function demoArchive(name) {
  const folder = path.join(DEMO_JOBS, name);
  const zip = new ZipFile();
  for (const file of readdirSync(folder, { recursive: true, withFileTypes: true }))
    if (file.isFile()) {
      const full = path.join(file.parentPath, file.name);
      zip.addFile(full, path.relative(folder, full).split(path.sep).join('/'));
    }
  zip.end();
  return buffer(zip.outputStream);
}

/** Brings the demo jobs in through the same door as any exported job. */
export async function loadDemoJobs(address) {
  for (const name of readdirSync(DEMO_JOBS).sort()) {
    const response = await fetch(`${address}/api/archive`, {
      method: 'POST',
      headers: { origin: address, 'content-type': 'application/zip' },
      body: await demoArchive(name),
    });
    if (!response.ok) throw new Error(`the demo job ${name} was refused: ${await response.text()}`);
  }
}
