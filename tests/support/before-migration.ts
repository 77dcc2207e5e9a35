import { cpSync, mkdtempSync, readdirSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { MIGRATIONS } from '@/db/migrate';

/** A folder with the migrations there were before one, by its number: `0010`. */
export function migrationsBefore(number: string): string {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'before-'));
  for (const file of readdirSync(MIGRATIONS))
    if (file < number) cpSync(path.join(MIGRATIONS, file), path.join(folder, file));
  return folder;
}
