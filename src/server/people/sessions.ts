import { createHash, randomBytes, randomUUID } from 'node:crypto';
import type { Queryable } from '../../db/database';
import * as kept from '../../db/sessions';
import type { Session } from '../../db/sessions';
import { IDLE } from '../../formats/people';

export type { Session } from '../../db/sessions';

const MINUTE = 60_000;
const DAY = 24 * 60 * MINUTE;
/** After so long, ms, the passphrase is asked for again. */
export const LONGEST = 30 * DAY;
/** That somebody does something is written down this often, ms. */
const EVERY = 10_000;

/** The sessions of the shop: kept in the database, without what opens them, for all processes that are at it. */
export class Sessions {
  constructor(
    private readonly database: () => Promise<Queryable>,
    private readonly clock: () => number = Date.now,
    private readonly idle = IDLE,
  ) {}

  /** The session a browser shows; undefined where there is none, it is too old, or of another device. */
  async ofToken(token: string | undefined, deviceId: string | null): Promise<Session | undefined> {
    if (token === undefined) return undefined;
    const session = await kept.sessionOfToken(await this.database(), hashOfToken(token));
    return session && session.deviceId === deviceId && this.isYoung(session) ? session : undefined;
  }

  async byId(id: string): Promise<Session | undefined> {
    return kept.sessionById(await this.database(), id);
  }

  /** Nobody did anything there for too long, or it was locked: it shows everything and takes nothing. */
  isLocked({ usedAt }: Session): boolean {
    return usedAt === null || this.clock() - Date.parse(usedAt) >= this.idle;
  }

  /** Somebody does something there. */
  async use({ id, usedAt }: Session): Promise<void> {
    if (usedAt === null || Math.abs(this.clock() - Date.parse(usedAt)) >= EVERY)
      await kept.markUsed(await this.database(), id, this.now());
  }

  async lock({ id }: Session): Promise<void> {
    await kept.markUsed(await this.database(), id, null);
  }

  /**
   * Somebody said their passphrase: a session of their own, with those who were known in the browser's session before.
   *
   * @returns what the browser shows from now on; kept nowhere
   */
  async signIn(personId: string, deviceId: string | null, before: Session | undefined): Promise<string> {
    const token = randomBytes(32).toString('base64url');
    if (before) await this.end(before);
    const database = await this.database();
    await kept.endBefore(database, new Date(this.clock() - LONGEST).toISOString());
    await kept.addSession(database, {
      ...{ id: randomUUID(), tokenHash: hashOfToken(token), deviceId, personId },
      known: [...new Set([...(before?.known ?? []), personId])],
      ...{ madeAt: this.now(), usedAt: this.now() },
    });
    return token;
  }

  /** Somebody who is known there goes on. */
  async changeHands(session: Session, personId: string): Promise<void> {
    await kept.changeHands(await this.database(), session.id, personId, this.now());
  }

  /** Somebody has to say their passphrase there again; with nobody left the session ends. */
  async forget(session: Session, personId: string): Promise<void> {
    await kept.forgetIn(await this.database(), session.id, personId);
  }

  /** Somebody has to say their passphrase again, wherever they are known. */
  async forgetEverywhere(personId: string): Promise<void> {
    await kept.forgetIn(await this.database(), null, personId);
  }

  /** A device was sent away: nobody is known there. */
  async endOnDevice(deviceId: string): Promise<void> {
    await kept.endOnDevice(await this.database(), deviceId);
  }

  async end({ id }: Session): Promise<void> {
    await kept.endSession(await this.database(), id);
  }

  private isYoung({ madeAt }: Session): boolean {
    return this.clock() - Date.parse(madeAt) < LONGEST;
  }

  private now(): string {
    return new Date(this.clock()).toISOString();
  }
}

const hashOfToken = (token: string): string => createHash('sha256').update(token).digest('hex');
