import { z } from 'zod';
import * as entity from '@/core/shell/job/entities';

/** A round with the state of the shell and the support it stands on, which are rows of their own. */
export const newRound = z.strictObject({
  round: entity.round.omit({
    ...{ number: true, author: true, personId: true, startedAt: true, closedAt: true, version: true },
  }),
  state: entity.shellState.omit({ reachedAt: true }),
  support: entity.support,
  control: z.array(z.uuid()),
});
/** A round closed or opened again. */
export const roundEvent = entity.roundEvent.omit({ at: true, author: true, personId: true });
export const roundId = z.uuid();

/** What is still open in a round: counts and codes. */
export interface OpenInRound {
  readonly doubtful: number;
  readonly loose: readonly string[];
  readonly unmeasured: readonly string[];
  readonly undecided: number;
}

/** The points a round is aligned on. */
export const control = z.strictObject({ roundId: z.uuid(), pointIds: z.array(z.uuid()) });

export type NewRoundInput = z.input<typeof newRound>;
export type RoundEventInput = z.input<typeof roundEvent>;
export type Control = z.input<typeof control>;
