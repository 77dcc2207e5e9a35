import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { z } from 'zod';
import type { Vector } from '@/core/maths/geometry/vector';
import { seeded } from '@/core/maths/random/seeded';
import { chooseReferences } from '@/core/shell/references/chosen';
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
  if (text !== undefined) return new Map(Object.entries(truthFile.parse(JSON.parse(text)).positions));
  const references = chooseReferences(rows);
  const chart = new Map(
    rows.points.flatMap(({ id, code, substituteForId }) => {
      const row = references.points.get(id)?.row ?? references.points.get(substituteForId ?? '')?.row;
      return row ? [[code, [row.x, row.y, row.z] as Vector] as const] : [];
    }),
  );
  return chart.size < 4 ? undefined : madeUpShell(chart, seeded(parseInt(jobId.slice(0, 8), 16)));
}
