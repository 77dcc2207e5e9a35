import type { Bench, BenchVersion, ShelfItem } from './job/entities';
import type { Tables } from './job/job-rows';

/** A bench in one of its versions, with what lies on its shelf. */
export interface ListedBench {
  readonly bench: Bench;
  readonly version: BenchVersion;
  readonly items: readonly ShelfItem[];
}

type BenchRows = Tables<'benches' | 'benchVersions' | 'shelfItems'>;

/** The benches, each in its newest version. */
export const newestBenches = (rows: BenchRows): ListedBench[] =>
  rows.benches.flatMap(({ id }) => {
    const newest = rows.benchVersions.filter(({ benchId }) => benchId === id).at(-1);
    return newest ? [benchAt(rows, newest.id)!] : [];
  });

/** A bench as it was in a version; undefined where the rows hold none. */
export function benchAt(rows: BenchRows, versionId: string): ListedBench | undefined {
  const version = rows.benchVersions.find(({ id }) => id === versionId);
  const bench = version && rows.benches.find(({ id }) => id === version.benchId);
  if (!version || !bench) return undefined;
  return { bench, version, items: rows.shelfItems.filter(({ benchVersionId }) => benchVersionId === versionId) };
}
