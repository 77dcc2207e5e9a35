import { spawn } from 'node:child_process';
import { chmodSync, mkdtempSync, readFileSync, rmSync, statfsSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { ensureBuild, ensureDebianPackages, ensurePackages } from './ensure.mjs';

/** `npm test`: installs what is missing, then format, lint, types, unit, database and browser tests, the use cases on both database engines. */
ensurePackages();
ensureDebianPackages(['chromium', 'postgresql', 'poppler-utils'], { chromium: 'chromium-headless-shell' });

const bin = (name) => path.join('node_modules', '.bin', name);
/** In memory where there is enough of it: a data folder for each test is a thousand files to write, and to remove again. */
const folder = mkdtempSync(path.join(memory() ?? os.tmpdir(), 'vinkel-tests-'));
// The database server of the tests goes through it as somebody else.
chmodSync(folder, 0o711);
let passed = 0;
let failed = 0;

/** Where files are kept in memory, with room for all the tests write; undefined where there is no such place. */
function memory() {
  const [place, enough] = ['/dev/shm', 6e9];
  try {
    const { bavail, bsize } = statfsSync(place);
    return bavail * bsize >= enough && os.freemem() >= enough ? place : undefined;
  } catch {
    return undefined;
  }
}

/** Runs one check that passes or fails as a whole. */
async function check(name, command, args, options) {
  console.log(`\n${name} …`);
  const { status, said } = await run(command, args, options);
  if (status === 0) passed++;
  else {
    failed++;
    wrong.push(`${name}:\n${said.slice(-3000)}`);
  }
}

/** What went wrong, said once more at the end: a long run scrolls it away. */
const wrong = [];

/** What a test run says of failures: from the first mark of one on, or its end where there is none. */
function failuresOf(said) {
  const plain = said.replaceAll(/\u001b\[[0-9;]*m/g, '');
  const mark = plain.search(/^.*(Failed Tests|Failed Suites|Unhandled Errors|Unhandled Rejection).*$/m);
  return mark < 0 ? plain.slice(-3000) : plain.slice(mark, mark + 6000);
}

/**
 * Runs a command, showing what it says while it goes on, and returns that.
 *
 * @param behind it takes only what the others leave of the machine
 */
async function run(command, args, { behind = false } = {}) {
  const env = { ...process.env, TMPDIR: folder };
  const child = spawn(bin(command), args, { stdio: ['inherit', 'pipe', 'pipe'], env });
  if (behind) os.setPriority(child.pid, os.constants.priority.PRIORITY_LOW);
  let said = '';
  for (const stream of [child.stdout, child.stderr])
    stream.on('data', (chunk) => {
      said += chunk;
      process.stdout.write(chunk);
    });
  const status = await new Promise((resolve) => child.once('close', resolve));
  return { status, said };
}

/** Runs a project of tests and counts them. */
async function tests(project) {
  console.log(`\n${project} tests …`);
  const output = path.join(folder, `${project}.json`);
  const { status, said } = await run('vitest', [
    ...['run', '--project', project, '--reporter=default', '--reporter=json', `--outputFile.json=${output}`],
  ]);
  if (status !== 0) wrong.push(`${project} tests ended with ${status}:\n${failuresOf(said)}`);
  try {
    const { numPassedTests, numFailedTests, numFailedTestSuites } = JSON.parse(readFileSync(output, 'utf8'));
    passed += numPassedTests;
    failed += numFailedTests || (status === 0 ? 0 : Math.max(1, numFailedTestSuites));
  } catch {
    failed++;
  }
}

// The longest of them has whatever the others leave: windows that wait leave half of a machine.
const lint = check('Lint', 'eslint', ['.'], { behind: true });
await check('Format', 'prettier', ['--check', '--log-level=warn', '.']);
await check('Types', 'tsc', ['--noEmit']);
ensureBuild();
for (const project of ['unit', 'ui', 'db', 'server', 'e2e']) await tests(project);
await lint;
rmSync(folder, { recursive: true, force: true });

for (const each of wrong) console.log(`\nWhat went wrong once more: ${each}`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
