import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync, statSync } from 'node:fs';
import path from 'node:path';
import { pathToFileURL } from 'node:url';

/**
 * `npm run --silent vinkel -- COMMAND FILE [--out FILE]`: the headless command as it was bundled, or, where there is no
 * build or the sources have changed since, compiled at the start.
 */
const root = path.join(import.meta.dirname, '..');
const bundle = path.join(root, 'dist/vinkel.mjs');

/** Any source newer than the bundle: the folders the command is made of. */
function changedSince(time) {
  return ['cli', 'src/core', 'src/formats'].some((folder) =>
    readdirSync(path.join(root, folder), { recursive: true, withFileTypes: true }).some(
      (file) => file.isFile() && statSync(path.join(file.parentPath, file.name)).mtimeMs > time,
    ),
  );
}

if (existsSync(bundle) && !changedSince(statSync(bundle).mtimeMs)) {
  process.argv[1] = bundle;
  await import(pathToFileURL(bundle).href);
} else {
  const args = ['--import', 'tsx', path.join(root, 'cli/vinkel.ts'), ...process.argv.slice(2)];
  const { status } = spawnSync(process.execPath, args, { stdio: 'inherit' });
  process.exitCode = status ?? 1;
}
