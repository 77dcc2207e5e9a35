import { mkdirSync } from 'node:fs';
import { build } from 'esbuild';
import { injectManifest } from 'workbox-build';

/** Makes the service worker: bundles it and gives it the list of the built files it keeps. */
mkdirSync('public', { recursive: true });
await build({
  entryPoints: ['src/workers/offline.worker.ts'],
  bundle: true,
  minify: true,
  format: 'iife',
  define: { 'process.env.NODE_ENV': '"production"' },
  outfile: '.next/offline.js',
});
const { count, size } = await injectManifest({
  swSrc: '.next/offline.js',
  swDest: 'public/offline.js',
  globDirectory: '.next/static',
  globPatterns: ['**/*.{js,css,woff2}'],
  modifyURLPrefix: { '': '/_next/static/' },
  // The built files carry a fingerprint in their names: they need no other revision.
  dontCacheBustURLsMatching: /./,
  maximumFileSizeToCacheInBytes: 8 * 1024 * 1024,
});
console.log(`Service worker: keeps ${count} files, ${(size / 1024 / 1024).toFixed(1)} MB`);
