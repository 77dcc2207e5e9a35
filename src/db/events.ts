import type { Queryable } from './database';

interface LastEvent {
  readonly kind: string;
  /** Only events of items of work have one. */
  readonly value?: number | null;
}

/** That a row stands: it was not taken back, or was put back since. */
const stands = (row: string) =>
  `coalesce((select kind from withdrawal where row_id = ${row}.id order by at desc limit 1), 'restored') = 'restored'`;

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
       and ${stands('event')}
       ${key === undefined ? '' : 'and key = $2'}
     order by at desc limit 1`,
    key === undefined ? [id] : [id, key],
  );
  return last;
}

/** Whether what stands just before or just after an event, of the same part of its item or step, says the same as it. */
export async function isSaidBeside(tx: Queryable, of: 'work' | 'step', id: string): Promise<boolean> {
  const [table, owner] = of === 'work' ? ['work_event', 'item_id'] : ['step_event', 'step_id'];
  const [part, figure] =
    of === 'work' ? ['and other.key = event.key', 'and other.value is not distinct from event.value'] : ['', ''];
  const beside = (order: string) =>
    `(select other.kind = event.kind ${figure} as alike from ${table} as other
      where other.${owner} = event.${owner} ${part} and other.id <> event.id and ${stands('other')} and ${order} limit 1)`;
  const [alike] = await tx.query(
    `select from ${table} as event cross join lateral (
       ${beside('other.at >= event.at order by other.at')} union all ${beside('other.at < event.at order by other.at desc')}
     ) as beside where event.id = $1 and beside.alike`,
    [id],
  );
  return alike !== undefined;
}

export const lastKind = async (tx: Queryable, of: 'step', id: string): Promise<string | undefined> =>
  (await lastEvent(tx, of, id))?.kind;
