import { z } from 'zod';
import * as entity from '@/core/shell/job/entities';

/** What is done to the shell, as its forms say it; who and when come from the request. */
export const newBrace = z.strictObject({
  item: entity.workItem.omit({ version: true }),
  brace: entity.brace.omit({ version: true }),
  dimensionIds: z.array(z.uuid()),
});
/** Something that happened to an item of work; of a figure where its kind says one. */
export const itemEvent = entity.workEvent
  .omit({ at: true, author: true, personId: true })
  .refine(({ kind, value }) => entity.hasFigure(kind) === (value !== null), {
    path: ['value'],
    error: 'a figure goes with a check and with a turn, and with nothing else',
  });

const holds = z.array(entity.hold).max(40, 'at most 40 points can hold it');
/** What goes through the plates of a bar leaves something for the pull's own point. */
const plates = z
  .array(entity.plate)
  .max(12, 'at most 12 plates on a bar')
  .refine((list) => list.reduce((sum, { share }) => sum + share, 0) < 1, {
    message: 'the shares of the plates leave nothing for the pull’s own point: they come to less than 100 %',
  });
export const newPull = z.strictObject({
  item: entity.workItem.omit({ version: true }),
  pull: entity.pull.omit({ version: true }),
  holds: holds.default([]),
  plates: plates.default([]),
});
export const itemHolds = z.strictObject({ itemId: z.uuid(), holds });
export const itemPlates = z.strictObject({ itemId: z.uuid(), plates });
/** The mark of a stroke as it is shown before it. */
export const newStroke = entity.stroke.omit({ at: true, author: true, personId: true });

/** A brace or a pull as it should have been written. */
export const correctedBrace = z.strictObject({
  item: entity.workItem,
  brace: entity.brace,
  dimensionIds: z.array(z.uuid()),
});
export const correctedPull = z.strictObject({ item: entity.workItem, pull: entity.pull });
export const correctedStep = entity.step;
/** Something written taken back, or put back. */
export const withdrawal = entity.withdrawal
  .omit({ at: true, author: true, personId: true })
  .refine(({ kind, reason }) => kind === 'restored' || reason !== '', {
    path: ['reason'],
    message: 'say why it is taken back',
  });

export const newStep = entity.step.pick({ id: true, jobId: true, rung: true, title: true, note: true, needs: true });
/** Steps one after another, behind what is on the ladder before their rung. */
export const stepsInTurn = z.strictObject({
  jobId: z.uuid(),
  rung: entity.step.shape.rung,
  steps: z
    .array(
      entity.step.pick({
        id: true,
        title: true,
        itemId: true,
        minutes: true,
        waits: true,
        curesAt: true,
        keeps: true,
        noise: true,
      }),
    )
    .min(1)
    .max(40, 'at most 40 steps at once'),
});
export const stepEvent = entity.stepEvent.omit({ at: true, author: true, personId: true });

export type NewBrace = z.input<typeof newBrace>;
export type ItemEventInput = z.input<typeof itemEvent>;
export type NewPull = z.input<typeof newPull>;
export type ItemHoldsInput = z.input<typeof itemHolds>;
export type ItemPlatesInput = z.input<typeof itemPlates>;
export type NewStroke = z.input<typeof newStroke>;
export type CorrectedBrace = z.input<typeof correctedBrace>;
export type CorrectedPull = z.input<typeof correctedPull>;
export type CorrectedStep = z.input<typeof correctedStep>;
export type WithdrawalInput = z.input<typeof withdrawal>;
export type NewStep = z.input<typeof newStep>;
export type StepsInTurn = z.input<typeof stepsInTurn>;
export type StepEventInput = z.input<typeof stepEvent>;
