import { randomBytes } from 'node:crypto';
import {
  addRole,
  addShop,
  givePassword,
  isNew,
  isServed,
  letShopsIn,
  listShops,
  renameShop,
  seesAll,
  type Shop,
} from '@/db/shops';
import { APPLICATION, openPostgres, type ServerDatabase } from '@/db/postgres';
import type { Queryable } from '@/db/database';
import { addressOf, makeSchema } from '../server-store';

/** What was asked for of the shops cannot be done: nothing was changed. */
export class NotDone extends Error {}

/** A shop, and the address its programs are started with; it is told once, when a password was made for it. */
export interface Told {
  readonly name: string;
  readonly url: string;
}

const OWNERS = 'Only whoever owns the database keeps its shops: give the address it was made with.';

/** Does something with the shops of a server as whoever owns its database, whose schema is brought up to date first. */
async function owning<T>(url: string, work: (server: ServerDatabase) => Promise<T>): Promise<T> {
  const server = openPostgres(url, `${APPLICATION} shops`);
  try {
    await makeSchema(server, addressOf(url));
    if (!(await seesAll(server))) throw new NotDone(OWNERS);
    return await work(server);
  } finally {
    await server.close();
  }
}

export const shopsOn = (url: string): Promise<Shop[]> => owning(url, listShops);

/**
 * Makes a shop. Each shop has a role of its own on the server, to which the database shows the shop's rows alone; one that was
 * served as whoever owns the database gets a role too. One that nobody has used yet becomes the new one.
 *
 * @param url of whoever owns the database, and may make roles
 * @returns the shops that have a new address
 * @throws NotDone in words
 */
export const makeShop = (url: string, called: string): Promise<Told[]> =>
  owning(url, (server) =>
    server.transaction(async (tx) => {
      const name = called.trim();
      if (name === '') throw new NotDone('Name the shop: npm run shops -- postgres://… add NAME');
      const shops = await listShops(tx);
      if (shops.some((each) => each.name === name)) throw new NotDone(`There is a shop ${name} already.`);
      const owners = await ownersShop(tx, shops);
      // One that runs by this address would see the rows of both.
      if (owners && (await isServed(tx)))
        throw new NotDone(`The program of ${owners.name} is running by this address: stop it first, on every machine.`);
      const told: Told[] = [];
      const withRole = async (shop: string): Promise<string> => {
        const [role, password] = [`vinkel_${randomBytes(6).toString('hex')}`, newPassword()];
        await addRole(tx, role, password);
        told.push({ name: shop, url: urlFor(url, role, password) });
        return role;
      };
      const isUnused = owners !== undefined && (await isNew(tx));
      if (owners) {
        const keeps = isUnused ? name : owners.name;
        await renameShop(tx, owners.id, keeps, await withRole(keeps));
      }
      if (!isUnused) await addShop(tx, name, await withRole(name));
      await letShopsIn(tx);
      return told;
    }),
  );

/** A new password for a shop whose address was lost; the one before opens nothing more. @throws NotDone in words */
export const newAddress = (url: string, name: string): Promise<Told> =>
  owning(url, (server) =>
    server.transaction(async (tx) => {
      const shops = await listShops(tx);
      const shop = shops.find((each) => each.name === name.trim());
      if (!shop) throw new NotDone(`There is no shop ${name}: ${shops.map((each) => each.name).join(', ')}.`);
      if (shop === (await ownersShop(tx, shops)))
        throw new NotDone(
          `${name} is served by the address you gave; it gets one of its own as soon as there is another shop.`,
        );
      const password = newPassword();
      await givePassword(tx, shop.role, password);
      return { name: shop.name, url: urlFor(url, shop.role, password) };
    }),
  );

/** The shop that is served as whoever owns the database: the first, as long as it is the only one. */
async function ownersShop(tx: Queryable, shops: readonly Shop[]): Promise<Shop | undefined> {
  const [{ me } = { me: '' }] = await tx.query<{ me: string }>('select current_user::text as me');
  return shops.find(({ role }) => role === me);
}

const newPassword = (): string => randomBytes(24).toString('base64url');

function urlFor(url: string, role: string, password: string): string {
  const address = new URL(url);
  address.username = role;
  address.password = password;
  return address.href;
}
