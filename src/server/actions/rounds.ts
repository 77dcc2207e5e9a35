'use server';

import * as input from '@/formats/inputs/rounds';
import { insert, rowById, update } from '@/db/table';
import { done, failed } from '@/formats/outcome';
import { rowsAt } from '../rows-at';
import { runTask } from '../tasks';
import { measuringCase, useCase } from '../use-case';

/** Opens a round of measuring: the state of the shell and the support it stands on are rows of their own. */
export const openRound = measuringCase(
  input.newRound,
  async ({ round, state, support, control }, { database, actor, now }) => {
    const { name: author, personId } = actor;
    await database.transaction(async (tx) => {
      await insert(tx, 'shellStates', [{ ...state, reachedAt: now }]);
      await insert(tx, 'supports', [support]);
      const [last] = await tx.query<{ next: number }>(
        'select coalesce(max(number), 0) + 1 as next from round where job_id = $1',
        [round.jobId],
      );
      // It is read of the shell as it stands: on the set-up planned last, unless it is another shell.
      const [stands] = await tx.query<{ id: string }>(
        `select set_up.id from set_up join work_item on work_item.id = set_up.id
       where set_up.job_id = $1
       order by case when exists (select from work_event where item_id = set_up.id and kind = 'ticked')
         then work_item.code else '' end desc, work_item.code
       limit 1`,
        [round.jobId],
      );
      const setUpId = round.shell === '' ? (stands?.id ?? null) : null;
      await insert(tx, 'rounds', [
        {
          ...{ ...round, author, personId, setUpId, number: last!.next },
          ...{ startedAt: now, closedAt: null, version: 1 },
        },
      ]);
      await insert(
        tx,
        'roundControls',
        control.map((pointId) => ({ roundId: round.id, pointId })),
      );
    });
    return done({ roundId: round.id });
  },
);

/**
 * Closes a round, or opens it again: an event with who and why. Said twice it is done once, and a round that is as wanted
 * already stays as it is.
 */
export const recordRoundEvent = measuringCase(input.roundEvent, (event, { database, signature, now }) =>
  database.transaction(async (tx) => {
    const round = await rowById(tx, 'rounds', event.roundId);
    if (!round) return failed('round', 'this round is not here any more');
    const closing = event.kind === 'closed';
    if (closing === (round.closedAt !== null)) return done(null);
    if (!closing && event.reason.trim() === '') return failed('reason', 'opening a closed round needs its reason');
    await insert(tx, 'roundEvents', [{ ...event, ...signature }], { skipExisting: true });
    await update(tx, 'rounds', { ...round, closedAt: closing ? now : null });
    return done(null);
  }),
);

/** Drops a round in which nothing was ever read, with the state and the support that were written down for it alone. */
export const dropRound = useCase(input.roundId, (roundId, { database }) =>
  database.transaction(async (tx) => {
    const round = await rowById(tx, 'rounds', roundId);
    // Somebody else dropped it first: it is gone, as wanted.
    if (!round) return done(null);
    const used = await tx.query(
      `select id from reading where round_id = $1
       union all select id from point_condition where round_id = $1
       union all select id from round_event where round_id = $1`,
      [roundId],
    );
    if (used.length > 0) return failed('round', 'something was written in this round: close it instead');
    await tx.query('delete from round_control where round_id = $1', [roundId]);
    await tx.query('delete from round where id = $1', [roundId]);
    for (const [table, column, id] of [
      ['shell_state', 'state_id', round.stateId],
      ['support', 'support_id', round.supportId],
    ])
      await tx.query(`delete from ${table} where id = $1 and not exists (select from round where ${column} = $1)`, [
        id,
      ]);
    return done(null);
  }),
);

/** What is still open in a round, to be seen before it is closed. */
export const openInRound = measuringCase(input.roundId, async (roundId, { database }) => {
  const round = await rowById(database, 'rounds', roundId);
  const rows = round && (await rowsAt(database, round.jobId));
  if (!rows) return failed('round', 'this round is not here any more');
  const { value } = await runTask('judge', rows, { roundId });
  return done({
    doubtful: value.net.doubts.length,
    loose: value.net.loose.map(({ id }) => rows.points.find((point) => point.id === id)?.code ?? ''),
    unmeasured: value.dimensions.filter(({ measured }) => !measured).map(({ dimension }) => dimension.code),
    undecided: [...value.points, ...value.dimensions].filter(({ judged }) => judged?.verdict === 'undecided').length,
  });
});

/** Sets the points the round is aligned on. */
export const setControl = measuringCase(input.control, async ({ roundId, pointIds }, { database }) => {
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
