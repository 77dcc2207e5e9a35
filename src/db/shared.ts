import type { ListedShared, SharedKind } from '@/core/shell/shared';
import type { Queryable } from './database';

/** Everything the shops of this database share, without the files, by kind and name; who shared it is told to their own shop. */
export const listShared = (db: Queryable): Promise<ListedShared[]> =>
  db.query(
    `select shared.id, kind, name, of_shop, at, shared.shop_id = shop_here() as own, coalesce(shared_by.author, '') as author
     from shared left join shared_by on shared_by.shared_id = shared.id and shared_by.shop_id = shared.shop_id
     order by kind, name collate "C", of_shop, shared.id`,
  );

/** The file itself, whichever shop shares it. */
export async function sharedFile(
  db: Queryable,
  id: string,
): Promise<{ name: string; kind: SharedKind; file: unknown } | undefined> {
  const [found] = await db.query<{ name: string; kind: SharedKind; file: unknown }>(
    'select name, kind, file from shared where id = $1',
    [id],
  );
  return found;
}

interface Given {
  readonly id: string;
  readonly kind: SharedKind;
  readonly name: string;
  readonly file: unknown;
  readonly at: string;
  readonly author: string;
  readonly personId: string;
}

/** Shares a file with all shops; one of the same kind and name of this shop gives way to it. */
export const share = (db: Queryable, { id, kind, name, file, at, author, personId }: Given): Promise<unknown[]> =>
  db.query(
    `with given as (
       insert into shared (id, kind, name, of_shop, file, at)
       select $1::uuid, $2, $3, shop.name, $4::jsonb, $5::timestamptz from shop where shop.id = shop_here()
       on conflict (shop_id, kind, name) do update
         set file = excluded.file, of_shop = excluded.of_shop, at = excluded.at
       returning id
     )
     insert into shared_by (shared_id, author, person_id) select id, $6, $7::uuid from given
     on conflict (shared_id, shop_id) do update set author = excluded.author, person_id = excluded.person_id`,
    [id, kind, name, JSON.stringify(file), at, author, personId],
  );

/** Shares it no more: what others took of it stays theirs. Of another shop's nothing is found. */
export const unshare = (db: Queryable, id: string): Promise<unknown[]> =>
  db.query('delete from shared where id = $1 and shop_id = shop_here() returning id', [id]);
