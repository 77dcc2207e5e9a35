import { randomUUID } from 'node:crypto';
import pg from 'pg';
import type { Queryable } from './database';
import { APPLICATION } from './postgres';

/** A notification takes less than 8000 bytes: what is longer goes in pieces. */
const PIECE = 7_000;
/** How long it is waited before the server is called again, ms. */
const AGAIN = 1_000;

/** What processes on one database tell each other. */
export interface Wire {
  /** The server was called for the first time, and answered or did not. */
  readonly firstCall: Promise<void>;
  /** Tells the others, once the transaction commits where this is done in one. */
  tell(message: unknown, db: Queryable): Promise<void>;
  close(): Promise<void>;
}

interface Ends {
  /** What another process told; this one does not hear itself. */
  readonly heard: (from: string, message: unknown) => void;
  /**
   * It hears again, or for the first time: what was told meanwhile it has missed.
   *
   * @param first it was called once and answered: nothing was missed before `firstCall` was over
   */
  readonly back: (first: boolean) => void;
}

/**
 * A wire between the processes of a shop on one database, on a channel of the shop's, by the server's own LISTEN and NOTIFY.
 * A piece is `id number of base64`, the message of all pieces the JSON of `{ from, message }`; the server hands them over in order.
 */
export function openWire(url: string, channel: string, { heard, back }: Ends): Wire {
  const own = randomUUID();
  const pieces = new Map<string, string[]>();
  let client: pg.Client | undefined;
  let closed = false;

  const hear = (payload: string) => {
    const [id = '', number = '', of = '', piece = ''] = payload.split(' ');
    const all = [...(pieces.get(id) ?? []), piece];
    // One whose beginning was missed is left.
    if (all.length !== Number(number)) return void pieces.delete(id);
    if (all.length < Number(of)) return void pieces.set(id, all);
    pieces.delete(id);
    const { from, message } = JSON.parse(Buffer.from(all.join(''), 'base64').toString('utf8')) as {
      from: string;
      message: unknown;
    };
    if (from !== own) heard(from, message);
  };

  const listen = async (first = false): Promise<void> => {
    if (closed) return;
    const called = new pg.Client({ connectionString: url, application_name: APPLICATION, keepAlive: true });
    let gone = false;
    const again = () => {
      if (gone) return;
      gone = true;
      pieces.clear();
      void called.end().catch(() => undefined);
      if (!closed) setTimeout(() => void listen(), AGAIN).unref();
    };
    called.on('error', again);
    called.on('end', again);
    called.on('notification', ({ payload }) => hear(payload ?? ''));
    try {
      await called.connect();
      await called.query(`listen ${called.escapeIdentifier(channel)}`);
      client = called;
      if (closed) return await called.end();
      back(first);
    } catch {
      again();
    }
  };
  const firstCall = listen(true);

  return {
    firstCall,
    tell: async (message, db) => {
      const text = Buffer.from(JSON.stringify({ from: own, message })).toString('base64');
      const id = randomUUID();
      const of = Math.ceil(text.length / PIECE);
      const sent = Array.from(
        { length: of },
        (_, i) => `${id} ${i + 1} ${of} ${text.slice(i * PIECE, (i + 1) * PIECE)}`,
      );
      await db.query('select pg_notify($1, piece) from unnest($2::text[]) with ordinality as t (piece, n) order by n', [
        channel,
        sent,
      ]);
    },
    close: async () => {
      closed = true;
      await client?.end().catch(() => undefined);
    },
  };
}
