import type { Database } from '@/db/database';
import type { LineFault } from '@/db/journal/first-format';
import type { Journal } from '@/db/journal/journal';
import type { PictureKeeper } from './kept-pictures';

/** What opening a data folder found and mended. */
interface Opening {
  /** Transactions, or readings of a journal of the first format, put back into the database. */
  readonly restored: number;
  readonly faults: readonly LineFault[];
  /** The backup the database was built from anew, where it was gone. */
  readonly rebuiltFrom?: string;
}

/** The open data: the database, and the folder of this program. */
export interface Store {
  readonly database: Database;
  /** The server the database is on; where it is none, the database is in the folder, and this process alone has it. */
  readonly server?: { readonly address: string; readonly shop: string };
  /** What is kept beside a database in the folder, from which it can be built again; a server keeps its own. */
  readonly journal?: Journal;
  readonly pictures?: PictureKeeper;
  readonly opening: Opening;
  readonly folder: string;
  readonly backups: string;
  close(): Promise<void>;
}
