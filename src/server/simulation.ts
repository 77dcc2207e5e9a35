import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { z } from 'zod';
import { position } from '@/core/maths/geometry/vector';
import { seeded } from '@/core/maths/random/seeded';
import { Job } from '@/core/shell/job/job';
import { referencePosition } from '@/core/shell/references/chosen';
import { madeUpShell, type TrueShell } from '@/core/practice/instrument';
import { jobRows } from './views';

const truthFile = z.strictObject({
  format: z.literal('vinkel.truth/1'),
  positions: z.record(z.string(), z.tuple([z.number(), z.number(), z.number()])),
});

/**
 * The hidden true shell the simulated instrument measures: for a demo job the one its readings were made
 * from, for any other one made up from its chart. Undefined where there is neither.
 */
export async function simulatedShell(jobId: string): Promise<TrueShell | undefined> {
  const rows = await jobRows(jobId);
  const file = path.join(process.cwd(), 'demo', 'truth', `${rows.jobs[0]!.id}.json`);
  const text = await readFile(file, 'utf8').catch(() => undefined);
  if (text !== undefined) {
    const { positions } = truthFile.parse(JSON.parse(text));
    return new Map(Object.entries(positions).map(([code, at]) => [code, position<'round'>(at)]));
  }
  const { references } = Job.of(rows);
  const chart = new Map(
    rows.points.flatMap(({ id, code, substituteForId }) => {
      const at = referencePosition(references, id) ?? referencePosition(references, substituteForId ?? '');
      return at ? [[code, at] as const] : [];
    }),
  );
  return chart.size < 4 ? undefined : madeUpShell(chart, seeded(parseInt(jobId.slice(0, 8), 16)));
}
