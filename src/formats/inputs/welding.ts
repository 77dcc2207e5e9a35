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
/** What a joint shrank by its marks, in place of what was said before. */
export const setWeldMarks = z.strictObject({
  seamId: z.uuid(),
  marks: z
    .array(entity.weldMark.omit({ at: true, author: true, personId: true }))
    .max(20, 'at most 20 pairs of marks a joint'),
});
export const savedCrack = z.strictObject({ item: entity.workItem, crack: entity.crack });
export const savedStiffener = z.strictObject({
  item: entity.workItem,
  stiffener: entity.stiffener.superRefine(({ kind, otherPart, width, height }, context) => {
    const wanted = (path: string, is: boolean, message: string) => {
      if (!is) context.addIssue({ code: 'custom', path: [path], message });
    };
    wanted(
      'otherPart',
      (kind === 'gusset') === (otherPart !== ''),
      'a gusset ties one member to another, nothing else does',
    );
    wanted('width', (kind === 'gusset') === (width === null), 'a doubler and a rib have a width, a gusset has none');
    wanted('height', (kind === 'rib') === (height !== null), 'a rib has a height, nothing else has');
  }),
});
export const newAxleReading = entity.axleReading
  .omit({ at: true, author: true, personId: true })
  .refine(({ leftDiagonal, rightDiagonal }) => (leftDiagonal === null) === (rightDiagonal === null), {
    path: ['rightDiagonal'],
    message: 'both diagonals, or neither',
  });

export type SavedWeldSeam = z.input<typeof savedWeldSeam>;
export type SetWeldMarks = z.input<typeof setWeldMarks>;
export type SavedCrack = z.input<typeof savedCrack>;
export type SavedStiffener = z.input<typeof savedStiffener>;
export type NewAxleReading = z.input<typeof newAxleReading>;
