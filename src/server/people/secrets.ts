import { hash, verify } from '@node-rs/argon2';
import { RateLimiterPostgres } from 'rate-limiter-flexible';
import type { Queryable } from '../../db/database';

/**
 * Argon2id as the OWASP Password Storage Cheat Sheet has it for a server: 19 MiB, two passes, one lane. The package's own
 * algorithm is argon2id; salt and costs stand in the hash.
 */
const COSTS = { memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;

/** The salted hash of a passphrase or a PIN, the only thing of it that is kept. */
export const hashOfSecret = (secret: string): Promise<string> => hash(secret.normalize('NFKC'), COSTS);

/** Whether a secret is the one that was hashed; without a hash it takes as long and is not. */
export async function isSecret(secret: string, known: string | undefined | null): Promise<boolean> {
  const right = await verify(known ?? (await nobodys()), secret.normalize('NFKC')).catch(() => false);
  return right && known !== undefined && known !== null;
}

let made: Promise<string> | undefined;
const nobodys = (): Promise<string> => (made ??= hashOfSecret('nobody has this passphrase'));

const QUARTER_HOUR = 15 * 60;

/** The database as the package asks for one; what it counts under is the first value, and stands there with the shop. */
const clientOf = (database: () => Promise<Queryable>) => ({
  query: async ({ text, values: [under, ...values] }: { text: string; values: unknown[] }) => {
    const db = await database();
    const [here] = await db.query<{ shop: string }>('select shop_here() as shop');
    const rows = await db.query(text, [`${here!.shop} ${String(under)}`, ...values]);
    return { rows, rowCount: rows.length };
  },
});

/** So many wrong tries, then it waits: for whom and from where they were made, whatever process heard them. */
export class Tries {
  private readonly limiter: RateLimiterPostgres;

  /** @param of what is tried, apart from other things that are */
  constructor(of: string, points: number, database: () => Promise<Queryable>) {
    this.limiter = new RateLimiterPostgres({
      ...{ keyPrefix: of, points, duration: QUARTER_HOUR, tableName: 'tries', tableCreated: true },
      ...{ storeType: 'client', storeClient: clientOf(database), clearExpiredByTimeout: false },
    });
  }

  /** Counts a try under each of these; false where one of them has had too many. */
  async count(...under: readonly string[]): Promise<boolean> {
    const counted = await Promise.allSettled(under.map((key) => this.limiter.consume(key)));
    for (const each of counted) if (each.status === 'rejected' && each.reason instanceof Error) throw each.reason;
    return counted.every(({ status }) => status === 'fulfilled');
  }

  /** It was right: what was counted is forgotten. */
  async forget(...under: readonly string[]): Promise<void> {
    await Promise.all(under.map((key) => this.limiter.delete(key)));
  }
}
