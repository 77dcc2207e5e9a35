import os from 'node:os';
import path from 'node:path';
import { defineConfig } from 'vitest/config';

const alias = { '@': path.resolve('src') };

/** Of two processors the runner would use one. */
const maxWorkers = Math.max(2, os.availableParallelism() - 1);

/** What runs once more on a database server: the use cases, on whatever database they are. */
const USE_CASES = [
  'calendar',
  'cut',
  'fitting',
  'judging-use-cases',
  'live',
  'measuring-use-cases',
  'next-car',
  'people',
  'rounds-and-points',
  'set-up',
  'taking-back',
  'welding',
];

export default defineConfig({
  test: {
    projects: [
      {
        resolve: { alias },
        test: {
          name: 'unit',
          include: ['src/{core,formats}/**/*.test.ts', 'cli/**/*.test.ts', 'demo/**/*.test.ts'],
          // Seeded runs take seconds on a busy machine; speed is what the benchmarks measure.
          testTimeout: 60_000,
          maxWorkers,
          // The core keeps nothing that another test could see: what is loaded once serves all files.
          isolate: false,
        },
      },
      {
        resolve: { alias },
        test: {
          name: 'ui',
          include: ['src/{ui,workers}/**/*.test.ts'],
          testTimeout: 60_000,
          maxWorkers,
          // Nor do parts of the screen as they are first drawn.
          isolate: false,
        },
      },
      {
        resolve: { alias },
        test: {
          name: 'db',
          maxWorkers,
          include: ['tests/db/**/*.test.ts'],
          setupFiles: ['tests/support/request.ts'],
          // A database is made in four seconds, and some tests make six.
          testTimeout: 150_000,
          hookTimeout: 120_000,
        },
      },
      {
        resolve: { alias },
        test: {
          name: 'server',
          maxWorkers,
          include: ['tests/server/**/*.test.ts', ...USE_CASES.map((name) => `tests/db/${name}.test.ts`)],
          globalSetup: ['tests/support/server-engine.ts'],
          setupFiles: ['tests/support/request.ts'],
          testTimeout: 60_000,
          hookTimeout: 60_000,
        },
      },
      {
        resolve: { alias },
        test: {
          name: 'e2e',
          include: ['tests/e2e/**/*.test.ts'],
          globalSetup: ['tests/support/build.ts'],
          testTimeout: 300_000,
          hookTimeout: 300_000,
          expect: { poll: { timeout: 60_000 } },
          fileParallelism: false,
          // One after the other, each with windows and jobs of its own: what is loaded once serves all files.
          isolate: false,
          // Of what goes on at the same time within a file, as many as there are windows for it.
          maxConcurrency: 2,
        },
      },
    ],
  },
});
