import { isAway } from '@/db/database';
import { ServerUnusable } from '../server-store';
import { makeShop, newAddress, NotDone, shopsOn } from './shops';

/** `npm run shops -- postgres://OWNER… [add NAME | address NAME]`: which shops a server's database has, and a new one. */
const [url = '', does = '', ...words] = process.argv.slice(2);
const name = words.join(' ');
try {
  if (!/^postgres(ql)?:\/\//.test(url)) throw new NotDone('Name the database: npm run shops -- postgres://OWNER…');
  if (does === 'add') tell(await makeShop(url, name));
  else if (does === 'address') tell([await newAddress(url, name)]);
  else if (does === '') for (const shop of await shopsOn(url)) console.log(`${shop.name.padEnd(32)}${shop.role}`);
  else throw new NotDone(`${does} is nothing to do with shops: add NAME, or address NAME.`);
} catch (error) {
  if (!(error instanceof NotDone) && !(error instanceof ServerUnusable) && !isAway(error)) throw error;
  console.error((error as Error).message);
  process.exit(3);
}

function tell(shops: readonly { readonly name: string; readonly url: string }[]): void {
  for (const shop of shops) console.log(`${shop.name}\n  VINKEL_DATABASE=${shop.url} npm start\n`);
  console.log('An address opens the rows of its shop alone. It is shown this once: keep it where passwords are kept.');
}
