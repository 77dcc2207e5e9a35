import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { ensurePackages } from './ensure.mjs';

/** `npm run move -- FROM TO`: moves all data from a data folder to a database server, or back. */
ensurePackages();
const command = path.join(import.meta.dirname, '../src/server/move/command.ts');
const { status } = spawnSync(process.execPath, ['--import', 'tsx', command, ...process.argv.slice(2)], {
  stdio: 'inherit',
});
process.exitCode = status ?? 1;
