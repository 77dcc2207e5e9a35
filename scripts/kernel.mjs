// Compiles wasm/kernel.ts and writes it, as text that any bundle takes, beside the kernel that uses it.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

const root = path.join(import.meta.dirname, '..');
const target = path.join(root, 'src/core/maths/linear/kernel-module.ts');

/** The compiled kernel, base64. */
export function compileKernel() {
  const folder = mkdtempSync(path.join(tmpdir(), 'kernel-'));
  const output = path.join(folder, 'kernel.wasm');
  try {
    const compiler = path.join(root, 'node_modules/assemblyscript/bin/asc.js');
    const source = path.join(root, 'wasm/kernel.ts');
    const options = ['-O3', '--converge', '--enable', 'simd', '--runtime', 'stub', '--use', 'abort='];
    execFileSync(process.execPath, [compiler, source, ...options, '-o', output], { stdio: 'inherit', cwd: root });
    return readFileSync(output).toString('base64');
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

if (process.argv[1] === import.meta.filename) {
  const lines = compileKernel()
    .match(/.{1,110}/g)
    .map((line) => `  '${line}',`);
  writeFileSync(
    target,
    `/** wasm/kernel.ts as \`node scripts/kernel.mjs\` compiled it, base64. A test holds the two against each other. */\nexport const KERNEL = [\n${lines.join('\n')}\n].join('');\n`,
  );
}
