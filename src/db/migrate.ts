import { readdir, readFile } from 'node:fs/promises';
import path from 'node:path';
import type { Database } from './database';

export const MIGRATIONS = path.join(process.cwd(), 'src/db/migrations');

interface Pending {
  /** File names of the migrations that have not run, in order. */
  readonly pending: readonly string[];
  /** How many have run. */
  readonly applied: number;
}

/** Which migrations have not run yet. */
export async function pendingMigrations(database: Database, folder = MIGRATIONS): Promise<Pending> {
  // Looked for first: a shop's own role may read it, and make nothing.
  const [there] = await database.query<{ found: boolean }>("select to_regclass('migration') is not null as found");
  if (!there!.found)
    await database.script(
      `create table migration (
         number integer primary key,
         name text not null,
         applied_at timestamptz not null default now()
       )`,
    );
  const applied = await database.query<{ number: number }>('select number from migration');
  const numbers = new Set(applied.map((row) => row.number));
  const files = (await readdir(/* turbopackIgnore: true */ folder)).filter((file) => /^\d{4}_.*\.sql$/.test(file));
  return { pending: files.sort().filter((name) => !numbers.has(Number(name.slice(0, 4)))), applied: numbers.size };
}

/**
 * Brings the schema up to date: every `NNNN_name.sql` not applied yet runs once, in order, each in
 * its own transaction together with the note that it ran.
 */
export async function migrate(database: Database, folder = MIGRATIONS): Promise<void> {
  for (const name of (await pendingMigrations(database, folder)).pending) {
    const number = Number(name.slice(0, 4));
    const sql = await readFile(/* turbopackIgnore: true */ `${folder}/${name}`, 'utf8');
    const note = `insert into migration (number, name) values (${number}, '${name.replaceAll("'", '')}')`;
    await database.script(`begin;\n${sql}\n;${note};\ncommit;`).catch(async (error: unknown) => {
      await database.script('rollback').catch(() => undefined);
      throw new Error(`migration ${name} failed`, { cause: error });
    });
  }
}
