'use server';

import { z } from 'zod';
import * as entity from '@/core/shell/job/entities';
import { insert, update } from '@/db/table';
import { done, failed, type Outcome } from '@/formats/outcome';
import { runUseCase } from '../use-case';

const newRound = z.strictObject({
  round: entity.round.omit({ number: true, startedAt: true, closedAt: true, version: true }),
  state: entity.shellState.omit({ reachedAt: true }),
  support: entity.support,
  control: z.array(z.uuid()),
});

/** Opens a round of measuring: the state of the shell and the support it stands on are rows of their own. */
export async function openRound(input: unknown): Promise<Outcome<{ roundId: string }>> {
  return runUseCase(newRound, input, async ({ round, state, support, control }, { database }) => {
    const at = new Date().toISOString();
    await database.transaction(async (tx) => {
      await insert(tx, 'shellStates', [{ ...state, reachedAt: at }]);
      await insert(tx, 'supports', [support]);
      const [last] = await tx.query<{ next: number }>(
        'select coalesce(max(number), 0) + 1 as next from round where job_id = $1',
        [round.jobId],
      );
      await insert(tx, 'rounds', [{ ...round, number: last!.next, startedAt: at, closedAt: null, version: 1 }]);
      await insert(
        tx,
        'roundControls',
        control.map((pointId) => ({ roundId: round.id, pointId })),
      );
    });
    return done({ roundId: round.id });
  });
}

/** Writes a round's own fields: its name, temperature, or that it is closed. */
export async function saveRound(input: unknown): Promise<Outcome<entity.Round>> {
  return runUseCase(entity.round, input, async (row, { database }) => {
    const result = await update(database, 'rounds', row);
    if (result.ok) return done(result.row);
    return {
      ...failed('round', 'somebody else changed this round meanwhile'),
      current: result.current,
    };
  });
}

/** Sets the points the round is aligned on. */
export async function setControl(input: unknown): Promise<Outcome> {
  const schema = z.strictObject({ roundId: z.uuid(), pointIds: z.array(z.uuid()) });
  return runUseCase(schema, input, async ({ roundId, pointIds }, { database }) => {
    await database.transaction(async (tx) => {
      await tx.query('delete from round_control where round_id = $1', [roundId]);
      await insert(
        tx,
        'roundControls',
        pointIds.map((pointId) => ({ roundId, pointId })),
      );
    });
    return done(null);
  });
}
