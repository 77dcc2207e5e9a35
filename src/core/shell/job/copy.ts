import { JOB_TABLE_NAMES, SHOP_TABLES, type JobRows } from './job-rows';

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;

/**
 * A job as another one beside itself: every row of its own has a new identity, and all that names it follows. What is the
 * shop's stays what it is.
 *
 * @returns the rows, and for each new identity the one it stands for
 */
export function copyOf(rows: JobRows, newId: () => string): { rows: JobRows; former: ReadonlyMap<string, string> } {
  const shop = new Set(SHOP_TABLES.flatMap((table) => rows[table].map(({ id }) => id)));
  const copied = new Map<string, string>();
  const idOf = (id: string) => {
    if (shop.has(id)) return id;
    const known = copied.get(id) ?? newId();
    copied.set(id, known);
    return known;
  };
  const through = (value: unknown, key = ''): unknown => {
    // A signed record is what was signed: its pictures alone are named by identities, and they are copied with it.
    if (typeof value === 'string') return UUID.test(value) && key !== 'identityNumber' ? idOf(value) : value;
    if (Array.isArray(value)) return value.map((each) => through(each));
    if (typeof value === 'object' && value !== null)
      return Object.fromEntries(Object.entries(value).map(([name, each]) => [name, through(each, name)]));
    return value;
  };
  const copy = Object.fromEntries(JOB_TABLE_NAMES.map((table) => [table, through(rows[table])])) as JobRows;
  const jobs = copy.jobs.map((job) => ({ ...job, name: `${job.name.slice(0, 190)} (copy)` }));
  return { rows: { ...copy, jobs }, former: new Map([...copied].map(([old, made]) => [made, old])) };
}
