import { z } from 'zod';
import * as entity from '@/core/shell/job/entities';

/** How a step is planned: all of it, with what it needs and who does it in place of what was said before. */
export const plannedStep = z
  .strictObject({
    step: entity.step,
    needs: z.array(z.uuid()).max(60, 'at most 60 steps before one'),
    people: z.array(z.uuid()).max(20, 'at most 20 of the shop at one step'),
  })
  .refine(({ step, needs }) => !needs.includes(step.id), { path: ['needs'], message: 'a step does not need itself' });
export const person = entity.person
  .omit({ roles: true, owner: true })
  .refine(({ starts, ends }) => starts < ends, { path: ['ends'], message: 'the day ends after it begins' })
  .refine(({ noiseStarts, noiseEnds }) => noiseStarts < noiseEnds, {
    path: ['noiseEnds'],
    message: 'noise ends after it begins',
  })
  .refine(({ days }) => days.length > 0, { path: ['days'], message: 'on one day of the week at least' });
export const closedDays = z.strictObject({
  days: z.array(entity.closedDay).min(1).max(400, 'at most 400 days at once'),
});
export const closedDayId = z.strictObject({ id: z.uuid() });
export const booking = entity.booking.omit({ at: true, author: true, personId: true });
export const newTimer = entity.timer.omit({ at: true, author: true, personId: true, heardAt: true, heardBy: true });
export const heardTimer = z.strictObject({ id: z.uuid() });

export type PlannedStepInput = z.input<typeof plannedStep>;
export type PersonInput = z.input<typeof person>;
export type ClosedDaysInput = z.input<typeof closedDays>;
export type ClosedDayId = z.input<typeof closedDayId>;
export type BookingInput = z.input<typeof booking>;
export type NewTimer = z.input<typeof newTimer>;
export type HeardTimer = z.input<typeof heardTimer>;
