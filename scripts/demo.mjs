import { existsSync, readdirSync, rmSync } from 'node:fs';
import path from 'node:path';
import { ensureBuild, ensurePackages } from './ensure.mjs';

/** `npm run demo [-- --fresh]`: installs, builds, loads the demo jobs and serves them. */
const data = path.resolve(process.env.VINKEL_DEMO_DATA ?? '.demo');
ensurePackages();
ensureBuild();
if (process.argv.includes('--fresh')) rmSync(data, { recursive: true, force: true });
const fresh = !existsSync(path.join(data, 'database'));

const { serve } = await import('./serve.mjs');
const address = await serve({ port: Number(process.env.PORT ?? 3000), data });
if (fresh) await loadDemoJobs(address);
console.log(`\nVinkel, with the demo jobs: ${address}\n`);

/** Brings the demo jobs in through the same door as any exported job. */
async function loadDemoJobs(address) {
  const { ZipFile } = await import('yazl');
  const { buffer } = await import('node:stream/consumers');
  for (const name of readdirSync('demo/jobs').sort()) {
    const folder = path.join('demo/jobs', name);
    const zip = new ZipFile();
    for (const file of readdirSync(folder, { recursive: true, withFileTypes: true }))
      if (file.isFile()) {
        const full = path.join(file.parentPath, file.name);
        zip.addFile(full, path.relative(folder, full).split(path.sep).join('/'));
      }
    zip.end();
    const response = await fetch(`${address}/api/archive`, {
      method: 'POST',
      body: await buffer(zip.outputStream),
    });
    if (!response.ok) throw new Error(`the demo job ${name} was refused: ${await response.text()}`);
  }
}
