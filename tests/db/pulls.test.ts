import { randomUUID } from 'node:crypto';
import { expect, it } from 'vitest';
import { upgradeRows } from '@/core/shell/job/upgrades';
import { migrate } from '@/db/migrate';
import { migrationsBefore } from '../support/before-migration';
import { pglite } from '../support/engines';

it('makes items of work of the pulls of a database that was there, and of an older document, the same', async () => {
  const before = migrationsBefore('0011');
  const database = await pglite.open();
  await migrate(database, before);
  const [jobId, point, roundId] = [randomUUID(), randomUUID(), randomUUID()];
  const [pull, event, hold, withdrawal] = [randomUUID(), randomUUID(), randomUUID(), randomUUID()];
  await database.query(
    `insert into job (id, name, shell, identity_number, owner, shop, driver_side, bench, note, started_at, version)
     values ($1, 'Old', '', '', '', '', 'left', '', '', now(), 1)`,
    [jobId],
  );
  await database.query(
    `insert into point (id, job_id, code, name, side, mirrored, version) values ($1, $2, 'A', '', 'left', true, 1)`,
    [point, jobId],
  );
  await database.query(
    `with state as (insert into shell_state (id, job_id, kind, note, reached_at)
         values (gen_random_uuid(), $2, 'bare', '', now()) returning id),
       support as (insert into support (id, job_id, kind, suspension, note)
         values (gen_random_uuid(), $2, 'stands', 'off', '') returning id)
     insert into round (id, job_id, number, name, state_id, support_id, instrument_version_id, author, started_at, version)
     select $1, $2, 1, 'First', state.id, support.id, (select id from instrument_version limit 1), 'Nils', now(), 1
     from state, support`,
    [roundId, jobId],
  );
  await database.query(
    `insert into pull (id, job_id, code, point_id, round_id, aim_x, aim_y, aim_z, held_at, note, version)
     values ($1, $2, 'P1', $3, $4, 3, 0, -1, 'at the sills', 'trial', 1)`,
    [pull, jobId, point, roundId],
  );
  await database.query(
    `insert into pull_event (id, pull_id, kind, at, author, note) values ($1, $2, 'loaded', now(), 'Nils', 'jack')`,
    [event, pull],
  );
  await database.query(
    `insert into pull_hold (id, pull_id, point_id, kind, rating) values ($1, $2, $3, 'clamp', 900)`,
    [hold, pull, point],
  );
  await database.query(
    `insert into withdrawal (id, job_id, table_name, row_id, kind, reason, at, author)
     values ($1, $2, 'pull_event', $3, 'withdrawn', 'pressed by mistake', now(), 'Nils')`,
    [withdrawal, jobId, event],
  );
  await migrate(database);
  const [item] = await database.query(`select kind, code, job_id from work_item where id = $1`, [pull]);
  expect(item).toEqual({ kind: 'pull', code: 'P1', jobId });
  const [happened] = await database.query(`select item_id, kind, reason from work_event where id = $1`, [event]);
  expect(happened).toEqual({ itemId: pull, kind: 'loaded', reason: 'jack' });
  const [held] = await database.query(`select item_id, point_id, kind, rating, job_id from hold`);
  expect(held).toEqual({ itemId: pull, pointId: point, kind: 'clamp', rating: 900, jobId });
  expect(await database.query(`select table_name from withdrawal`)).toEqual([{ tableName: 'work_event' }]);
  await database.close();

  const at = '2026-11-20T08:00:00.000Z';
  const old = { id: pull, jobId, code: 'P1', pointId: point, roundId, aimX: 3, aimY: 0, aimZ: -1 };
  const upgraded = upgradeRows(
    {
      workItems: [],
      workEvents: [],
      pulls: [{ ...old, heldAt: 'at the sills', note: 'trial', version: 1 }],
      pullEvents: [{ id: event, pullId: pull, kind: 'loaded', at, author: 'Nils', note: 'jack' }],
      pullHolds: [{ id: hold, pullId: pull, pointId: point, kind: 'clamp', rating: 900 }],
    },
    6,
  );
  expect(upgraded).toMatchObject({
    workItems: [{ id: pull, kind: 'pull', code: 'P1' }],
    workEvents: [{ id: event, itemId: pull, kind: 'loaded', key: '', reason: 'jack' }],
    holds: [{ id: hold, itemId: pull, pointId: point, rating: 900 }],
    pulls: [{ id: pull, aimX: 3, attach: null, dirX: null, together: '' }],
  });
});
