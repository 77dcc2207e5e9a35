import { spawnSync } from 'node:child_process';
import { benchBundle } from './bench-bundle.mjs';

// Run twice: with the kernel of this machine, and with its fallback.
const file = await benchBundle('tests/bench/run.ts', 'dist/bench.mjs');
const withoutWasm = 'data:text/javascript,delete globalThis.WebAssembly';
const run = (...flags) =>
  JSON.parse(
    spawnSync(process.execPath, [...flags, file, ...process.argv.slice(2)], {
      stdio: ['ignore', 'pipe', 'inherit'],
      encoding: 'utf8',
    }).stdout,
  );
const [own, fallback] = [run(), run('--import', withoutWasm)];
console.log(`medians in ms: with the ${own.kernel} kernel, with the ${fallback.kernel} one, and their ratio`);
let of = '';
for (const [i, each] of own.cases.entries()) {
  if (each.of !== of) console.log(`\n${(of = each.of)}`);
  const plain = fallback.cases[i].median;
  const figures = [each.median.toFixed(2), plain.toFixed(2), (plain / each.median).toFixed(1)];
  console.log(`  ${each.what.padEnd(42)} ${figures.map((figure) => figure.padStart(9)).join('')}`);
}
