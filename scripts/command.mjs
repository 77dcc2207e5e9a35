import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { ensurePackages } from './ensure.mjs';

/**
 * `npm run move -- FROM TO`: moves all data of a shop from a data folder to a database server, or back;
 * `npm run shops -- postgres://OWNER… [add NAME | address NAME]`: the shops of a server's database.
 */
ensurePackages();
const [name, ...rest] = process.argv.slice(2);
const command = path.join(import.meta.dirname, `../src/server/${name}/command.ts`);
const { status } = spawnSync(process.execPath, ['--import', 'tsx', command, ...rest], { stdio: 'inherit' });
process.exitCode = status ?? 1;
