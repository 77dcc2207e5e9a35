import { existsSync } from 'node:fs';
import path from 'node:path';
import { clearFolder, giveUp, refuseIfTaken } from './data-folder.mjs';
import { ensureBuild, ensurePackages } from './ensure.mjs';

/** `npm run demo [-- --fresh]`: installs, builds, loads the demo jobs and serves them. */
const data = path.resolve(process.env.VINKEL_DEMO_DATA ?? '.demo');
// Made-up jobs never go to a shop's server.
delete process.env.VINKEL_DATABASE;
ensurePackages();
await (process.argv.includes('--fresh') ? clearFolder(data) : refuseIfTaken(data)).catch(giveUp);
ensureBuild();
const fresh = !existsSync(path.join(data, 'database'));

const { serve } = await import('./serve.mjs');
const address = await serve({ port: Number(process.env.PORT ?? 3000), data });
if (fresh) await (await import('./demo-archive.mjs')).loadDemoJobs(address);
console.log(`\nVinkel, with the demo jobs: ${address}\n`);
