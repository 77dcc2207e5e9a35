import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { build } from 'esbuild';

/** `npm run bench:pulls [-- shells [strokes]]` */
const root = path.join(import.meta.dirname, '..');
await build({
  absWorkingDir: root,
  entryPoints: ['tests/bench/pull-loop.ts'],
  outfile: 'dist/bench-pulls.mjs',
  bundle: true,
  platform: 'node',
  target: 'node20',
  mainFields: ['module', 'main'],
  format: 'esm',
  external: ['highs'],
  logLevel: 'error',
});
const { status } = spawnSync(process.execPath, [path.join(root, 'dist/bench-pulls.mjs'), ...process.argv.slice(2)], {
  stdio: 'inherit',
});
process.exitCode = status ?? 1;
