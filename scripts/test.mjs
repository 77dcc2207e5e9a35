import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { ensureBuild, ensureDebianPackages, ensurePackages } from './ensure.mjs';

/** `npm test`: installs what is missing, then format, lint, types, unit, database and browser tests. */
ensurePackages();
ensureDebianPackages(['chromium', 'postgresql', 'poppler-utils']);

const bin = (name) => path.join('node_modules', '.bin', name);
const results = mkdtempSync(path.join(os.tmpdir(), 'vinkel-tests-'));
let passed = 0;
let failed = 0;

/** Runs one check that passes or fails as a whole. */
function check(name, command, args) {
  console.log(`\n${name} …`);
  const ok = spawnSync(bin(command), args, { stdio: 'inherit' }).status === 0;
  if (ok) passed++;
  else failed++;
}

/** Runs a project of tests and counts them. */
function tests(project) {
  console.log(`\n${project} tests …`);
  const output = path.join(results, `${project}.json`);
  const { status } = spawnSync(
    bin('vitest'),
    ['run', '--project', project, '--reporter=default', '--reporter=json', `--outputFile.json=${output}`],
    { stdio: 'inherit' },
  );
  try {
    const { numPassedTests, numFailedTests, numFailedTestSuites } = JSON.parse(readFileSync(output, 'utf8'));
    passed += numPassedTests;
    failed += numFailedTests || (status === 0 ? 0 : Math.max(1, numFailedTestSuites));
  } catch {
    failed++;
  }
}

check('Format', 'prettier', ['--check', '--log-level=warn', '.']);
check('Lint', 'eslint', ['.']);
ensureBuild();
check('Types', 'tsc', ['--noEmit']);
for (const project of ['unit', 'db', 'e2e']) tests(project);
rmSync(results, { recursive: true, force: true });

console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
