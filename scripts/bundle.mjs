import path from 'node:path';
import { build } from 'esbuild';

const root = path.join(import.meta.dirname, '..');

/** Bundles what runs in Node.js outside the server's own build: what lets requests in, its threads and the headless command. */
await build({
  absWorkingDir: root,
  entryPoints: {
    'data-folder': 'src/db/data-folder.ts',
    doors: 'src/server/doors.ts',
    'pages-aside': 'src/server/pages-aside.ts',
    'task-thread': 'src/workers/task-thread.ts',
    'archive-thread': 'src/server/archive/archive-thread.ts',
    'proof-thread': 'src/server/backups/proof-thread.ts',
    vinkel: 'cli/vinkel.ts',
  },
  // These bring WebAssembly, native code or files of their own.
  external: ['@electric-sql/pglite', '@node-rs/argon2', 'fs-native-extensions', 'sharp', 'yazl', 'yauzl', 'highs'],
  outdir: 'dist',
  outExtension: { '.js': '.mjs' },
  bundle: true,
  platform: 'node',
  target: 'node20',
  // Some packages' CommonJS looks for its own files at run time: their modules do not.
  mainFields: ['module', 'main'],
  format: 'esm',
  sourcemap: 'linked',
  // Packages of CommonJS ask for `require`, which modules do not have.
  banner: { js: "import { createRequire } from 'node:module'; const require = createRequire(import.meta.url);" },
});
