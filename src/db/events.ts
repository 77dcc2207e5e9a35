import type { Queryable } from './database';

interface LastEvent {
  readonly kind: string;
  /** Only events of items of work have one. */
  readonly value?: number | null;
}

/**
 * What happened last to an item of work or a step and was not taken back; undefined where nothing did.
 *
 * @param key the part of the item it is about
 */
export async function lastEvent(
  tx: Queryable,
  of: 'work' | 'step',
  id: string,
  key?: string,
): Promise<LastEvent | undefined> {
  const [last] = await tx.query<LastEvent>(
    `select kind${of === 'work' ? ', value' : ''} from ${of}_event as event where ${of === 'work' ? 'item' : of}_id = $1
       and coalesce((select kind from withdrawal where row_id = event.id order by at desc limit 1), 'restored') = 'restored'
       ${key === undefined ? '' : 'and key = $2'}
     order by at desc limit 1`,
    key === undefined ? [id] : [id, key],
  );
  return last;
}

export const lastKind = async (tx: Queryable, of: 'step', id: string): Promise<string | undefined> =>
  (await lastEvent(tx, of, id))?.kind;
