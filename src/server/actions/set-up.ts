'use server';

import type { ShelfItem } from '@/core/shell/job/entities';
import type { Queryable } from '@/db/database';
import { insert, put } from '@/db/table';
import * as input from '@/formats/inputs/set-up';
import { done, failed } from '@/formats/outcome';
import { edit, overtaken } from '../edit';
import { useCase } from '../use-case';

type Version = (typeof input.benchVersion)['_output']['version'];

const strange = failed('items', 'what lies on the shelf belongs to another bench');

async function addVersion(tx: Queryable, version: Version, items: readonly ShelfItem[], now: string): Promise<void> {
  const [last] = await tx.query<{ next: number }>(
    'select coalesce(max(number), 0) + 1 as next from bench_version where bench_id = $1',
    [version.benchId],
  );
  await insert(tx, 'benchVersions', [{ ...version, number: last!.next, validFrom: now }]);
  await insert(tx, 'shelfItems', items);
}

export const addBench = useCase(input.newBench, async ({ bench, version, items }, { database, now }) => {
  if (version.benchId !== bench.id || items.some((item) => item.benchVersionId !== version.id)) return strange;
  await database.transaction(async (tx) => {
    await insert(tx, 'benches', [bench]);
    await addVersion(tx, version, items, now);
  });
  return done(null);
});

/** Writes a new version of a bench and its shelf: set-ups keep the one they were planned on. */
export const reviseBench = useCase(input.benchVersion, async ({ version, items }, { database, now }) => {
  if (items.some((item) => item.benchVersionId !== version.id)) return strange;
  await database.transaction((tx) => addVersion(tx, version, items, now));
  return done(null);
});

/** Begins a set-up on a bench. */
export const startSetUp = useCase(input.newSetUp, async ({ setUp, item }, { database }) => {
  if (item.id !== setUp.id || item.jobId !== setUp.jobId) return failed('setUp', 'a set-up of another job');
  await database.transaction(async (tx) => {
    await insert(tx, 'workItems', [item]);
    await insert(tx, 'setUps', [{ ...setUp, version: 1 }]);
  });
  return done(null);
});

export const changeSetUp = useCase(input.setUpFields, (setUp, context) =>
  context.database.transaction(async (tx) => {
    const result = await edit(tx, 'setUps', setUp, context);
    return result.ok ? done(null) : overtaken(result.current);
  }),
);

/** Writes which places the shell stands on and of what, in place of what was planned before. */
export const setMounts = useCase(input.mounts, async ({ setUpId, mounts, pieces }, { database }) => {
  const ids = new Set(mounts.map(({ id }) => id));
  if (mounts.some((mount) => mount.setUpId !== setUpId) || pieces.some(({ mountId }) => !ids.has(mountId)))
    return failed('mounts', 'a mount of another set-up cannot be put here');
  await database.transaction(async (tx) => {
    await tx.query('delete from mount_piece where mount_id in (select id from mount where set_up_id = $1)', [setUpId]);
    await tx.query('delete from mount where set_up_id = $1 and not (id = any($2::uuid[]))', [setUpId, [...ids]]);
    await put(tx, 'mounts', mounts);
    await insert(tx, 'mountPieces', pieces);
  });
  return done(null);
});

/** Notes that a mount was built or is not, or that the support was adjusted; said twice it happened once. */
export const noteSetUp = useCase(input.tick, async (event, { database, actor, now }) => {
  await insert(database, 'workEvents', [{ ...event, at: now, author: actor }], { skipExisting: true });
  return done(null);
});
