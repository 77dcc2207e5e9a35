'use server';

import * as input from '@/formats/inputs/rounds';
import { insert, update } from '@/db/table';
import { done, failed } from '@/formats/outcome';
import { useCase } from '../use-case';

/** Opens a round of measuring: the state of the shell and the support it stands on are rows of their own. */
export const openRound = useCase(input.newRound, async ({ round, state, support, control }, { database, now }) => {
  await database.transaction(async (tx) => {
    await insert(tx, 'shellStates', [{ ...state, reachedAt: now }]);
    await insert(tx, 'supports', [support]);
    const [last] = await tx.query<{ next: number }>(
      'select coalesce(max(number), 0) + 1 as next from round where job_id = $1',
      [round.jobId],
    );
    await insert(tx, 'rounds', [{ ...round, number: last!.next, startedAt: now, closedAt: null, version: 1 }]);
    await insert(
      tx,
      'roundControls',
      control.map((pointId) => ({ roundId: round.id, pointId })),
    );
  });
  return done({ roundId: round.id });
});

/** Writes a round's own fields: its name, temperature, or that it is closed. */
export const saveRound = useCase(input.roundFields, async (row, { database }) => {
  const result = await update(database, 'rounds', row);
  if (result.ok) return done(result.row);
  return {
    ...failed('round', 'somebody else changed this round meanwhile'),
    current: result.current,
  };
});

/** Sets the points the round is aligned on. */
export const setControl = useCase(input.control, async ({ roundId, pointIds }, { database }) => {
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
