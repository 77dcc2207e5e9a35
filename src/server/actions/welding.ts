'use server';

import * as input from '@/formats/inputs/welding';
import { insert } from '@/db/table';
import { done, failed } from '@/formats/outcome';
import { edit, overtaken } from '../edit';
import { useCase } from '../use-case';

/** Says how a joint is welded again; how it was said before is kept. */
export const saveWeldSeam = useCase(input.savedWeldSeam, async ({ seam, stretches }, context) => {
  if (stretches.some(({ seamId }) => seamId !== seam.id))
    return failed('stretches', 'a stretch of another seam cannot be put here');
  if (stretches.some(({ ends }) => ends > seam.long))
    return failed('stretches', 'a stretch lies beyond the end of the seam');
  return context.database.transaction(async (tx) => {
    const [joint] = await tx.query('select from joint where id = $1 and job_id = $2', [seam.id, seam.jobId]);
    if (!joint) return failed('joint', 'this joint is not in the job any more');
    const [there] = await tx.query('select from weld_seam where id = $1', [seam.id]);
    if (there) {
      const result = await edit(tx, 'weldSeams', seam, context);
      if (!result.ok) return overtaken(result.current);
      await tx.query('delete from weld_stretch where seam_id = $1', [seam.id]);
    } else await insert(tx, 'weldSeams', [{ ...seam, version: 1 }]);
    await insert(tx, 'weldStretches', stretches);
    return done(null);
  });
});
