import { execFileSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, afterEach, beforeAll, beforeEach } from 'vitest';
import { openStore } from '@/server/store';
import { removeAll } from './remove';

/** An empty data folder before each test; made once and copied, since making one takes the engine seconds. */
export class EmptyFolders {
  private readonly first = mkdtempSync(path.join(os.tmpdir(), 'vinkel-empty-'));
  folder = '';

  constructor() {
    beforeAll(async () => (await openStore(this.first)).close());
    afterAll(() => removeAll(this.first));
    beforeEach(() => {
      this.folder = mkdtempSync(path.join(os.tmpdir(), 'vinkel-data-'));
      this.startDatabase();
    });
    afterEach(() => removeAll(this.folder));
  }

  /** Puts the database back as it was on the first day. */
  startDatabase(): void {
    removeAll(this.in('database'));
    execFileSync('cp', ['-r', path.join(this.first, 'database'), this.in('database')]);
  }

  in(...names: readonly string[]): string {
    return path.join(this.folder, ...names);
  }
}
