'use server';

import type { Mount, ShelfItem } from '@/core/shell/job/entities';
import type { Queryable } from '@/db/database';
import { insert, put } from '@/db/table';
import * as input from '@/formats/inputs/set-up';
import { itemEvent } from '@/formats/inputs/work';
import { done, failed } from '@/formats/outcome';
import { edit, overtaken } from '../edit';
import { measuringCase, useCase } from '../use-case';

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

/**
 * Writes which places the shell stands on, in place of what was planned before. What a mount that is there was built of stays: only
 * its tick changes that.
 */
export const setMounts = useCase(input.mounts, async ({ setUpId, mounts, pieces }, { database }) => {
  const ids = new Set(mounts.map(({ id }) => id));
  if (mounts.some((mount) => mount.setUpId !== setUpId) || pieces.some(({ mountId }) => !ids.has(mountId)))
    return failed('mounts', 'a mount of another set-up cannot be put here');
  await database.transaction(async (tx) => {
    const rows = await tx.query<Pick<Mount, 'id' | 'headId' | 'lift'>>(
      'select id, head_id, lift from mount where set_up_id = $1',
      [setUpId],
    );
    const there = new Map(rows.map(({ id, headId, lift }) => [id, { headId, lift }]));
    const gone = rows.map(({ id }) => id).filter((id) => !ids.has(id));
    await tx.query('delete from mount_piece where mount_id = any($1::uuid[])', [gone]);
    await tx.query('delete from mount where id = any($1::uuid[])', [gone]);
    await put(
      tx,
      'mounts',
      mounts.map((mount) => ({ ...mount, ...there.get(mount.id) })),
    );
    await insert(
      tx,
      'mountPieces',
      pieces.filter(({ mountId }) => !there.has(mountId)),
    );
  });
  return done(null);
});

/** Writes a part that serves as a gauge, with its holes and the lengths taped between them. */
export const saveGaugePart = useCase(input.gaugePart, async ({ part, holes, checks }, context) => {
  const strange = [...holes, ...checks].some(({ gaugePartId }) => gaugePartId !== part.id);
  if (strange) return failed('holes', 'a hole of another part cannot be put here');
  return context.database.transaction(async (tx) => {
    const [there] = await tx.query('select from gauge_part where id = $1', [part.id]);
    if (there) {
      const result = await edit(tx, 'gaugeParts', part, context);
      if (!result.ok) return overtaken(result.current);
    } else await insert(tx, 'gaugeParts', [part]);
    const kept = holes.map(({ id }) => id);
    const [read] = await tx.query<{ code: string }>(
      `select code from part_hole where gauge_part_id = $1 and not (id = any($2::uuid[]))
         and exists (select from reading where reading.part_hole_id = part_hole.id)`,
      [part.id, kept],
    );
    if (read) return failed('holes', `hole ${read.code} was read in a round and stays: give it its place again`);
    await tx.query('delete from part_check where gauge_part_id = $1', [part.id]);
    await tx.query('delete from part_hole where gauge_part_id = $1 and not (id = any($2::uuid[]))', [part.id, kept]);
    await put(tx, 'partHoles', holes);
    await insert(tx, 'partChecks', checks);
    return done(null);
  });
});

/** Writes which points belong to the platform, in place of what was written before. */
export const setPlatform = useCase(input.platform, async ({ jobId, points }, { database }) => {
  if (points.some((point) => point.jobId !== jobId))
    return failed('points', 'a point of another job cannot be put here');
  await database.transaction(async (tx) => {
    await tx.query('delete from platform_point where job_id = $1', [jobId]);
    await insert(tx, 'platformPoints', points);
  });
  return done(null);
});

/** Notes that a mount was built, and keeps of what, or that it is not built any more; said twice it happened once. */
export const tickMount = measuringCase(
  input.builtMount,
  async ({ event, headId, lift, pieces }, { database, signature }) => {
    if (pieces.some(({ mountId }) => mountId !== event.key))
      return failed('pieces', 'a piece of another mount cannot be put here');
    return database.transaction(async (tx) => {
      const [there] = await tx.query(
        'update mount set head_id = $1, lift = $2 where id = $3 and set_up_id = $4 returning id',
        [headId, lift, event.key, event.itemId],
      );
      if (!there) return failed('event', 'this mount is not in the set-up any more');
      await tx.query('delete from mount_piece where mount_id = $1', [event.key]);
      await insert(tx, 'mountPieces', pieces);
      await insert(tx, 'workEvents', [{ ...event, ...signature }], { skipExisting: true });
      return done(null);
    });
  },
);

/** Notes that a mount stands so high, or that the support was adjusted; said twice it happened once. */
export const noteSetUp = measuringCase(itemEvent, async (event, { database, signature }) => {
  await insert(database, 'workEvents', [{ ...event, ...signature }], { skipExisting: true });
  return done(null);
});
