import { spawnSync } from 'node:child_process';
import { benchBundle } from './bench-bundle.mjs';

/** `npm run bench:pulls [-- shells [strokes]]` */
const file = await benchBundle('tests/bench/pull-loop.ts', 'dist/bench-pulls.mjs');
const { status } = spawnSync(process.execPath, [file, ...process.argv.slice(2)], { stdio: 'inherit' });
process.exitCode = status ?? 1;
