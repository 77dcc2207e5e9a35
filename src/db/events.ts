import type { Queryable } from './database';

/** What happened last to an item of work, a pull or a step and was not taken back; undefined where nothing did. */
export async function lastKind(
  tx: Queryable,
  of: 'work' | 'pull' | 'step',
  id: string,
  key?: string,
): Promise<string | undefined> {
  const [last] = await tx.query<{ kind: string }>(
    `select kind from ${of}_event as event where ${of === 'work' ? 'item' : of}_id = $1
       and coalesce((select kind from withdrawal where row_id = event.id order by at desc limit 1), 'restored') = 'restored'
       ${key === undefined ? '' : 'and key = $2'}
     order by at desc limit 1`,
    key === undefined ? [id] : [id, key],
  );
  return last?.kind;
}
