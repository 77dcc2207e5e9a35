import { existsSync, rmSync } from 'node:fs';
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
if (fresh) await (await import('./demo-archive.mjs')).loadDemoJobs(address);
console.log(`\nVinkel, with the demo jobs: ${address}\n`);
