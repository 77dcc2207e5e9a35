import { knownPoints, latestRound, structureOf } from '@/core/plan/cut/structure-of';
import { supportsOf } from '@/core/plan/cut/supports';
import type { JobRows } from '@/core/shell/job/job-rows';
import { Job } from '@/core/shell/job/job';
import { newestBenches } from '@/core/shell/benches';
import { chartOf } from '@/core/shell/references/chosen';
import type { Queryable } from '@/db/database';
import { loadJob } from '@/db/jobs';
import { shopRows } from '@/db/shop';
import { benchDocument } from '@/formats/bench';
import { chartDocumentOf } from '@/formats/chart/document';
import type { SharedKind } from '@/core/shell/shared';
import { structureDocument } from '@/formats/structure-file';

/** The structure of a job's shell as a file; undefined where it has none. */
export function structureFile(rows: JobRows) {
  const job = Job.of(rows);
  const structure = structureOf(job, knownPoints(job, latestRound(job)));
  return structure && structureDocument(structure.model, supportsOf(job, structure.model).supports);
}

/** A chart or a structure of a job, or a bench, as the file that goes to another shop; undefined where there is none. */
export async function fileOf(db: Queryable, kind: SharedKind, id: string): Promise<unknown> {
  if (kind === 'bench') {
    const bench = newestBenches(await shopRows(db)).find((each) => each.bench.id === id);
    return bench && benchDocument(bench);
  }
  const rows = await loadJob(db, id);
  if (!rows) return undefined;
  if (kind === 'structure') return structureFile(rows);
  return chartOf(rows) && chartDocumentOf(rows);
}
