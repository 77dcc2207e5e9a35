import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, utimesSync, writeFileSync } from 'node:fs';
import path from 'node:path';

process.env.NEXT_TELEMETRY_DISABLED = '1';

/** Runs a command with its output shown; ends the process with its code when it fails. */
export function run(command, args, options = {}) {
  const { status, error } = spawnSync(command, args, { stdio: 'inherit', ...options });
  if (error) throw error;
  if (status !== 0) process.exit(status ?? 1);
}

/** Installs the packages when they are missing or the lock file has changed since. */
export function ensurePackages() {
  const marker = 'node_modules/.vinkel-installed';
  const lock = readFileSync('package-lock.json', 'utf8');
  if (existsSync(marker) && readFileSync(marker, 'utf8') === lock) return;
  console.log('Installing packages …');
  // Not `npm ci`: it refuses a lock file that leaves out other systems' optional binaries, as some
  // registry mirrors do. `--no-save` keeps the lock file as it is.
  // Also with NODE_ENV=production: the build needs what is listed for development.
  run('npm', ['install', '--include=dev', '--no-save', '--no-audit', '--no-fund', '--loglevel=error']);
  writeFileSync(marker, lock);
}

const SOURCES = [
  'src',
  'package-lock.json',
  'next.config.ts',
  'postcss.config.mjs',
  'tsconfig.json',
  'scripts/service-worker.mjs',
  'scripts/bundle.mjs',
  'cli',
];

/** Builds for production, service worker included, unless nothing changed since the last build. */
export function ensureBuild() {
  const marker = '.next/BUILD_ID';
  const newest = spawnSync('find', [...SOURCES, '-type', 'f', '-newer', marker, '-print', '-quit'], {
    encoding: 'utf8',
  });
  const made = ['public/offline.js', 'dist/vinkel.mjs'].every((file) => existsSync(file));
  if (made && existsSync(marker) && newest.status === 0 && newest.stdout.trim() === '') return;
  console.log('Building …');
  const began = new Date();
  run(process.execPath, [path.join('node_modules', 'next', 'dist', 'bin', 'next'), 'build']);
  run(process.execPath, ['scripts/service-worker.mjs']);
  run(process.execPath, ['scripts/bundle.mjs']);
  // What was changed while it was being built is not in it.
  utimesSync(marker, began, began);
}

/** Debian packages the tests need, with what proves that they are there. */
const DEBIAN = {
  chromium: () => existsSync('/usr/bin/chromium') || DEBIAN['chromium-headless-shell'](),
  'chromium-headless-shell': () => existsSync('/usr/bin/chromium-headless-shell'),
  postgresql: () => existsSync('/usr/lib/postgresql'),
  'poppler-utils': () => existsSync('/usr/bin/pdftotext'),
};

/**
 * Installs missing Debian packages where the user may; otherwise says what to install.
 *
 * @param instead packages that serve better than one of them, each by its name: one that cannot be had does no harm
 */
export function ensureDebianPackages(names, instead = {}) {
  const isRoot = process.getuid?.() === 0;
  const canSudo = !isRoot && spawnSync('sudo', ['-n', 'true'], { stdio: 'ignore' }).status === 0;
  const may = existsSync('/usr/bin/apt-get') && (isRoot || canSudo);
  const apt = (...args) => {
    const [command, ...rest] = [
      ...(isRoot ? [] : ['sudo', '-n']),
      'apt-get',
      '-o',
      'Acquire::http::Timeout=20',
      ...args,
    ];
    const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
    return spawnSync(command, rest, { stdio: 'inherit', env }).status === 0;
  };
  const install = (packages) => apt('install', '-y', '-qq', '--no-install-recommends', ...packages);
  const better = Object.values(instead).filter((name) => !DEBIAN[name]());
  const missing = () => names.filter((name) => !DEBIAN[name]());
  if (may && (better.length > 0 || missing().length > 0)) {
    console.log(`Installing ${[...better, ...missing()].join(', ')} …`);
    apt('update', '-qq');
    for (const name of better) install([name]);
    if (missing().length > 0 && !install(missing())) process.exit(1);
  }
  if (missing().length === 0) return;
  console.error(
    `The tests need ${missing().join(' and ')}. Please install: sudo apt-get install ${missing().join(' ')}`,
  );
  process.exit(1);
}
