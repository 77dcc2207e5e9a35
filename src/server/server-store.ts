import { SHOP_TABLES } from '@/core/shell/job/job-rows';
import type { LockedFolder } from '@/db/data-folder';
import { journalled } from '@/db/journal/journalled';
import { markOf } from '@/db/journal/mark';
import { migrate, pendingMigrations } from '@/db/migrate';
import { isAway } from '@/db/database';
import { openPostgres, type ServerDatabase } from '@/db/postgres';
import { firstRows } from '@/db/new-database';
import { beginShop, letShopsIn, listShops, seesAll, shopHere, type Shop } from '@/db/shops';
import { insert } from '@/db/table';
import { openWire } from '@/db/wire';
import { live } from './live';
import type { Store } from './opened';

/** How often a process says which of its windows are open, ms. */
const STILL_HERE = 20_000;

/** The database of a server cannot be opened. */
export class ServerUnusable extends Error {
  constructor(address: string, why: string, options?: ErrorOptions) {
    super(`The database at ${address} cannot be opened: ${why}`, options);
    this.name = 'ServerUnusable';
  }
}

/** PostgreSQL that the migrations are written for, as it says its version. */
const OLDEST = 150_000;

/** What the server says of itself that is for whoever named it to mend: who opens it (class 28), and which (3D). */
const REFUSED = /^(28|3D)/;
const NOT_ALLOWED = '42501';

/**
 * Brings a server's schema up to date, one process at a time, and finds the shop that is served.
 *
 * @throws ServerUnusable in words
 */
export async function makeReady(raw: ServerDatabase, address: string): Promise<Shop> {
  await makeSchema(raw, address);
  return shopServed(raw, address);
}

/** Brings a server's schema up to date, whatever shops are there. @throws ServerUnusable in words */
export async function makeSchema(raw: ServerDatabase, address: string): Promise<void> {
  try {
    const [{ version }] = (await raw.query("select current_setting('server_version_num')::int as version")) as [
      { version: number },
    ];
    if (version < OLDEST)
      throw new ServerUnusable(address, `it is PostgreSQL ${Math.floor(version / 10_000)}, and 15 or later is needed.`);
    await raw.alone(() => upToDate(raw, address));
  } catch (error) {
    const { code = '', message } = error as Error & { code?: string };
    if (isAway(error))
      throw new ServerUnusable(address, 'the server does not answer. Start it, or look at the address.', {
        cause: error,
      });
    if (REFUSED.test(code)) throw new ServerUnusable(address, `the server says: ${message}.`, { cause: error });
    throw error;
  }
}

/** A shop's own role may not change the schema: whoever owns the database does. */
async function upToDate(raw: ServerDatabase, address: string): Promise<void> {
  const { pending, applied } = await pendingMigrations(raw).catch((error: unknown) => {
    if ((error as { code?: string }).code === NOT_ALLOWED)
      throw new ServerUnusable(
        address,
        'whoever opens it may make no tables there: open it with the name that owns it.',
      );
    throw error;
  });
  if (pending.length > 0 && applied >= SHOPS && !(await seesAll(raw)))
    throw new ServerUnusable(
      address,
      'it is older than this program, and a shop’s own role may not change that: whoever owns the database gives `npm run shops -- postgres://OWNER…` first.',
    );
  if (pending.length === 0) return;
  await migrate(raw);
  await letShopsIn(raw);
}

/** Whoever opens a new shop first gives it what every shop begins with. */
const begin = (raw: ServerDatabase): Promise<void> =>
  raw.transaction(async (tx) => {
    await tx.query("select set_config('vinkel.journal', 'off', true)");
    if (!(await beginShop(tx))) return;
    const first = await firstRows();
    for (const table of SHOP_TABLES) await insert(tx, table, first[table] as never[]);
  });

/** From this migration on there are shops. */
const SHOPS = 22;

/** Which shop is served: that of the role; who sees all shops serves none of several. */
async function shopServed(raw: ServerDatabase, address: string): Promise<Shop> {
  const shop = await shopHere(raw);
  if (shop && (!(await seesAll(raw)) || (await listShops(raw)).length === 1)) {
    await begin(raw);
    return shop;
  }
  throw new ServerUnusable(
    address,
    'whoever opens it is no shop there, or sees those of all shops: start the program with the address of one shop, which `npm run shops` gave when it was made.',
  );
}

/**
 * Opens the database of a server, where other processes may be too. What is acknowledged is in the server's own log; what
 * was changed is told to the other processes as it is committed.
 *
 * @throws ServerUnusable where it cannot be
 */
export async function openOnServer(locked: LockedFolder, url: string): Promise<Store> {
  const raw = openPostgres(url);
  const shop = await makeReady(raw, addressOf(url)).catch(async (error: unknown) => {
    await raw.close();
    throw error;
  });
  const hub = live();
  const wire = openWire(url, shop.channel, {
    heard: (from, message) => hub.hear(from, message),
    back: (first) => {
      hub.join((message) => void wire.tell(message, raw).catch(() => undefined));
      // Nobody has looked at anything before it is opened.
      if (first) return;
      void markOf(raw).then(
        (revision) => hub.catchUp(revision),
        () => undefined,
      );
    },
  });
  await wire.firstCall;
  const beat = setInterval(() => hub.sayAll(), STILL_HERE);
  beat.unref();
  const database = journalled(raw, {
    keep: ({ number }, jobs, tx) => {
      const source = hub.writing();
      const told = jobs === 'all' ? jobs : [...jobs];
      return wire.tell({ kind: 'changed', jobs: told, revision: number, ...(source ? { source } : {}) }, tx);
    },
    changed: (change) => hub.changed(change),
  });
  return {
    ...{
      database,
      server: { address: addressOf(url), shop: shop.name },
      folder: locked.path,
      backups: locked.backupsPath,
    },
    opening: { restored: 0, faults: [] },
    close: async () => {
      clearInterval(beat);
      await wire.close();
      await database.close();
      locked.release();
    },
  };
}

/** Where a database is, as it may be shown: without who opens it, and with what. */
export function addressOf(url: string): string {
  const { hostname, port, pathname, searchParams } = new URL(url);
  const host = searchParams.get('host') ?? hostname;
  return `${host}${port ? `:${port}` : ''}${pathname}`;
}
