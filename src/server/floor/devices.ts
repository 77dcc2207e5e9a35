import { createHash, randomBytes, randomInt, randomUUID, timingSafeEqual } from 'node:crypto';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import { z } from 'zod';
import type { ListedDevice } from '../../formats/floor';

const device = z.strictObject({
  id: z.uuid(),
  name: z.string().min(1).max(60),
  /** SHA-256 of what it shows; what it shows itself is kept nowhere. */
  hash: z.string().length(64),
  pairedAt: z.iso.datetime(),
});
type Device = z.infer<typeof device>;

/** What a device that asks to be paired is told. */
export type Paired =
  | { readonly ok: true; readonly token: string }
  | { readonly ok: false; readonly why: 'wrongCode' | 'noCode' | 'tooOften' | 'noName' | 'nameTaken' };

const MINUTE = 60_000;
/** A code is good for so long, and for one device. */
const CODE_FOR = 10 * MINUTE;
/** From one address so many tries in so long. */
const TRIES = { points: 10, duration: 15 * 60 };

/** The devices that may ask over the network, in a file nobody else may read, and the code that lets one more in. */
export class Devices {
  private readonly file: string;
  private readonly tries = new RateLimiterMemory(TRIES);
  private readonly seen = new Map<string, number>();
  private code: { readonly digits: string; readonly until: number } | undefined;
  private list: readonly Device[];

  constructor(
    folder: string,
    private readonly clock = Date.now,
  ) {
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    this.file = path.join(folder, 'devices.json');
    this.list = readDevices(this.file);
  }

  get listed(): readonly ListedDevice[] {
    return this.list.map(({ id, name, pairedAt }) => {
      const at = this.seen.get(id);
      return { id, name, pairedAt, ...(at === undefined ? {} : { seenAt: new Date(at).toISOString() }) };
    });
  }

  /** A new code, in place of the one before. */
  newCode(): { readonly digits: string; readonly until: number } {
    this.code = { digits: String(randomInt(1_000_000)).padStart(6, '0'), until: this.clock() + CODE_FOR };
    return this.code;
  }

  /** The code that lets a device in now; none where it was used or is too old. */
  get currentCode(): { readonly digits: string; readonly until: number } | undefined {
    return this.code && this.code.until > this.clock() ? this.code : undefined;
  }

  /** Lets a device in that shows the code, under a name of its own. */
  async pair(typed: string, called: string, address: string): Promise<Paired> {
    const allowed = await this.tries.consume(address).then(
      () => true,
      () => false,
    );
    if (!allowed) return { ok: false, why: 'tooOften' };
    const name = called.trim().slice(0, 60);
    const { currentCode } = this;
    if (!currentCode) return { ok: false, why: 'noCode' };
    if (!isSame(typed.replace(/\s/g, ''), currentCode.digits)) return { ok: false, why: 'wrongCode' };
    if (name === '') return { ok: false, why: 'noName' };
    if (this.list.some((each) => each.name.toLowerCase() === name.toLowerCase()))
      return { ok: false, why: 'nameTaken' };
    this.code = undefined;
    await this.tries.delete(address);
    const token = randomBytes(32).toString('base64url');
    this.write([
      ...this.list,
      { id: randomUUID(), name, hash: hashOf(token), pairedAt: new Date(this.clock()).toISOString() },
    ]);
    return { ok: true, token };
  }

  /** The device that shows this; undefined where none does, or it was sent away. */
  known(token: string | undefined): ListedDevice | undefined {
    if (token === undefined) return undefined;
    const hash = hashOf(token);
    const found = this.list.find((each) => isSame(each.hash, hash));
    if (found) this.seen.set(found.id, this.clock());
    return found && { id: found.id, name: found.name, pairedAt: found.pairedAt };
  }

  /** Said twice it is done once. */
  sendAway(id: string): void {
    if (this.list.some((each) => each.id === id)) this.write(this.list.filter((each) => each.id !== id));
  }

  private write(list: readonly Device[]): void {
    writeFileSync(this.file, JSON.stringify(list, null, 1), { mode: 0o600 });
    this.list = list;
  }
}

function readDevices(file: string): readonly Device[] {
  try {
    return z.array(device).parse(JSON.parse(readFileSync(file, 'utf8')));
  } catch {
    // None was paired yet, or the file is no list of devices: then every one is paired again.
    return [];
  }
}

const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex');

/** Compares without telling by its time where two differ. */
const isSame = (a: string, b: string): boolean =>
  a.length === b.length && timingSafeEqual(Buffer.from(a), Buffer.from(b));
