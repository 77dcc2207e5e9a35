import path from 'node:path';
import { build } from 'esbuild';

const root = path.join(import.meta.dirname, '..');

/** Bundles a benchmark as the program is bundled; says where it lies. */
export async function benchBundle(entry, outfile) {
  await build({
    absWorkingDir: root,
    entryPoints: [entry],
    outfile,
    bundle: true,
    platform: 'node',
    target: 'node20',
    mainFields: ['module', 'main'],
    format: 'esm',
    // It brings WebAssembly of its own.
    external: ['highs'],
    logLevel: 'error',
  });
  return path.join(root, outfile);
}
