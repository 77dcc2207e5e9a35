import { z } from 'zod';
import * as entity from '@/core/shell/job/entities';

const stretch = entity.weldStretch.refine(({ starts, ends }) => starts <= ends, {
  path: ['ends'],
  message: 'a stretch ends after it begins',
});
/** How a joint is welded again, with all its stretches, in place of what was said before. */
export const savedWeldSeam = z.strictObject({
  seam: entity.weldSeam.refine((seam) => seam.firstPointId === null || seam.firstPointId !== seam.lastPointId, {
    path: ['lastPointId'],
    message: 'a seam ends at another point',
  }),
  stretches: z.array(stretch).max(60, 'at most 60 stretches a seam'),
});

export type SavedWeldSeam = z.input<typeof savedWeldSeam>;
