import { FolderInUse, FolderUnusable } from '@/db/data-folder';
import { isAway } from '@/db/database';
import { ServerUnusable } from '../server-store';
import { isDamaged } from '../store';
import { isServer, move, NotMoved } from './move';
import { FolderMoved } from './moved';

/** `npm run move -- FROM TO`: one of them a data folder, the other the address of a database server. */
const [from = '', to = ''] = process.argv.slice(2);
try {
  const sums = await move(from, to);
  for (const { table, rows, sum } of sums)
    if (rows > 0) console.log(`${table.padEnd(24)}${String(rows).padStart(9)}  ${sum}`);
  console.log(`\n${sums.length} tables, the same on both sides.`);
  console.log(
    isServer(to)
      ? `From now on: VINKEL_DATABASE=${to.replace(/:[^:@/]*@/, ':…@')} npm start\nThe folder ${from} stays as it is, and is not opened any more.`
      : `From now on, without VINKEL_DATABASE: VINKEL_DATA=${to} npm start\nThe server stays as it is: nothing reads it any more.`,
  );
} catch (error) {
  const isSaid = [NotMoved, FolderInUse, FolderUnusable, FolderMoved, ServerUnusable].some(
    (kind) => error instanceof kind,
  );
  if (!isSaid && !isDamaged(error) && !isAway(error)) throw error;
  console.error((error as Error).message);
  process.exit(3);
}
