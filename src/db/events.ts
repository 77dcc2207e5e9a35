import type { Queryable } from './database';

/** What happened last to a brace, a pull or a step and was not taken back; undefined where nothing did. */
export async function lastKind(tx: Queryable, of: 'brace' | 'pull' | 'step', id: string): Promise<string | undefined> {
  const [last] = await tx.query<{ kind: string }>(
    `select kind from ${of}_event as event where ${of}_id = $1
       and coalesce((select kind from withdrawal where row_id = event.id order by at desc limit 1), 'restored') = 'restored'
     order by at desc limit 1`,
    [id],
  );
  return last?.kind;
}
