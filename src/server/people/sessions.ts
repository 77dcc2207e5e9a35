import { createHash, randomBytes, randomUUID } from 'node:crypto';
import type { Queryable } from '../../db/database';
import { IDLE } from '../../formats/people';

/** A browser in which somebody said their passphrase. */
export interface Session {
  readonly id: string;
  readonly tokenHash: string;
  /** The device it is of; none on the machine itself. It is good there alone. */
  readonly deviceId: string | null;
  /** Who works there now. */
  readonly personId: string;
  /** Everybody who said their passphrase there: they change hands with a PIN. */
  readonly known: readonly string[];
  readonly madeAt: string;
}

const MINUTE = 60_000;
const DAY = 24 * 60 * MINUTE;
/** After so long, ms, the passphrase is asked for again. */
export const LONGEST = 30 * DAY;

/**
 * The sessions of this program: kept in the database without what opens them, looked at in memory. When somebody last did
 * something is known in memory alone, so that after a restart every session is locked.
 */
export class Sessions {
  private readonly used = new Map<string, number>();
  private known: Map<string, Session> | undefined;

  constructor(
    private readonly database: () => Promise<Queryable>,
    private readonly clock: () => number = Date.now,
    private readonly idle = IDLE,
  ) {}

  /** The session a browser shows; undefined where there is none, it is too old, or of another device. */
  async ofToken(token: string | undefined, deviceId: string | null): Promise<Session | undefined> {
    if (token === undefined) return undefined;
    const hash = hashOfToken(token);
    for (const session of (await this.all()).values())
      if (session.tokenHash === hash && session.deviceId === deviceId && this.isYoung(session)) return session;
    return undefined;
  }

  async byId(id: string): Promise<Session | undefined> {
    return (await this.all()).get(id);
  }

  /** Nobody did anything there for too long, or it was locked: it shows everything and takes nothing. */
  isLocked({ id }: Session): boolean {
    const at = this.used.get(id);
    return at === undefined || this.clock() - at >= this.idle;
  }

  /** Somebody does something there. */
  use({ id }: Session): void {
    this.used.set(id, this.clock());
  }

  lock({ id }: Session): void {
    this.used.delete(id);
  }

  /**
   * Somebody said their passphrase: a session of their own, with those who were known in the browser's session before.
   *
   * @returns what the browser shows from now on; kept nowhere
   */
  async signIn(personId: string, deviceId: string | null, before: Session | undefined): Promise<string> {
    const token = randomBytes(32).toString('base64url');
    const session: Session = {
      ...{ id: randomUUID(), tokenHash: hashOfToken(token), deviceId, personId },
      known: [...new Set([...(before?.known ?? []), personId])],
      madeAt: new Date(this.clock()).toISOString(),
    };
    if (before) await this.end(before);
    await (
      await this.database()
    ).query(
      `insert into session (id, token_hash, device_id, person_id, known, made_at) values ($1, $2, $3, $4, $5, $6)`,
      [session.id, session.tokenHash, deviceId, personId, session.known, session.madeAt],
    );
    (await this.all()).set(session.id, session);
    this.use(session);
    return token;
  }

  /** Somebody who is known there goes on. */
  async changeHands(session: Session, personId: string): Promise<void> {
    await this.write({ ...session, personId });
    this.use(session);
  }

  /** Somebody has to say their passphrase there again; with nobody left the session ends. */
  async forget(session: Session, personId: string): Promise<void> {
    const known = session.known.filter((each) => each !== personId);
    if (known.length === 0) return this.end(session);
    if (session.personId === personId) this.lock(session);
    await this.write({ ...session, known, personId: session.personId === personId ? known[0]! : session.personId });
  }

  /** Somebody has to say their passphrase again, wherever they are known. */
  async forgetEverywhere(personId: string): Promise<void> {
    for (const session of [...(await this.all()).values()])
      if (session.known.includes(personId)) await this.forget(session, personId);
  }

  /** A device was sent away: nobody is known there. */
  async endOnDevice(deviceId: string): Promise<void> {
    for (const session of [...(await this.all()).values()]) if (session.deviceId === deviceId) await this.end(session);
  }

  async end({ id }: Session): Promise<void> {
    (await this.all()).delete(id);
    this.used.delete(id);
    await (await this.database()).query('delete from session where id = $1', [id]);
  }

  private async write(session: Session): Promise<void> {
    (await this.all()).set(session.id, session);
    await (
      await this.database()
    ).query('update session set person_id = $2, known = $3 where id = $1', [
      session.id,
      session.personId,
      session.known,
    ]);
  }

  private isYoung({ madeAt }: Session): boolean {
    return this.clock() - Date.parse(madeAt) < LONGEST;
  }

  private async all(): Promise<Map<string, Session>> {
    if (this.known) return this.known;
    const database = await this.database();
    const rows = await database.query<Session>(
      'select id, token_hash, device_id, person_id, known, made_at from session',
    );
    const old = rows.filter((row) => !this.isYoung(row)).map(({ id }) => id);
    if (old.length > 0) await database.query('delete from session where id = any($1::uuid[])', [old]);
    return (this.known ??= new Map(rows.filter(({ id }) => !old.includes(id)).map((row) => [row.id, row])));
  }
}

const hashOfToken = (token: string): string => createHash('sha256').update(token).digest('hex');
