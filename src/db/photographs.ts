import type { Photograph } from '@/core/shell/job/entities';
import type { Queryable } from './database';
import { columns } from './table';

/*
 * Bytes travel to the engine and back as base64: PGlite's own way with bytea is an order of magnitude
 * slower, a second for each megabyte.
 */

/** Bytes a part of a picture holds: small enough to stream, large enough to be few. */
export const PART_BYTES = 1024 * 1024;

const base64 = (bytes: Uint8Array): string =>
  Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength).toString('base64');

export async function addContent(tx: Queryable, id: string, preview: Uint8Array): Promise<void> {
  await tx.query(`insert into photograph_content (id, preview) values ($1, decode($2, 'base64'))`, [
    id,
    base64(preview),
  ]);
}

export async function addPart(tx: Queryable, id: string, number: number, bytes: Uint8Array): Promise<void> {
  await tx.query(`insert into photograph_part (content_id, number, bytes) values ($1, $2, decode($3, 'base64'))`, [
    id,
    number,
    base64(bytes),
  ]);
}

export async function removeContent(tx: Queryable, ids: readonly string[]): Promise<void> {
  await tx.query('delete from photograph_content where id = any($1::uuid[])', [ids]);
}

/** The pictures whose bytes are here. */
export const contentIds = async (db: Queryable): Promise<Set<string>> =>
  new Set((await db.query<{ id: string }>('select id from photograph_content')).map(({ id }) => id));

/** Content whose photograph was never recorded: an import broken off. */
export async function removeOrphanedContent(tx: Queryable): Promise<void> {
  await tx.query(
    `delete from photograph_content
     where not exists (select from photograph where photograph.id = photograph_content.id)`,
  );
}

export async function photographById(db: Queryable, id: string): Promise<Photograph | undefined> {
  const [row] = await db.query<Photograph>(`select ${columns('photographs')} from photograph where id = $1`, [id]);
  return row;
}

export async function previewOf(db: Queryable, id: string): Promise<Uint8Array | undefined> {
  const [row] = await db.query<{ preview: string }>(
    `select encode(preview, 'base64') as preview from photograph_content where id = $1`,
    [id],
  );
  return row && Buffer.from(row.preview, 'base64');
}

/** The picture's bytes, part by part. */
export async function* contentOf(db: Queryable, id: string): AsyncGenerator<Uint8Array> {
  for (let number = 0; ; number++) {
    const [row] = await db.query<{ bytes: string }>(
      `select encode(bytes, 'base64') as bytes from photograph_part
       where content_id = $1 and number = $2`,
      [id, number],
    );
    if (!row) return;
    yield Buffer.from(row.bytes, 'base64');
  }
}
