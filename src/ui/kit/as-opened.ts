/*
 * A form is of the rows as they were when it was opened. The page under it is fetched anew whenever somebody changes
 * something, and brings their versions: sent with those, what was typed would quietly take the place of theirs.
 */

const isPlain = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && [Object.prototype, null].includes(Object.getPrototypeOf(value));

/** The versions of the rows in what a form says, by their identities. */
export function versionsIn(value: unknown, found: Map<string, number> = new Map()): Map<string, number> {
  if (Array.isArray(value)) for (const each of value) versionsIn(each, found);
  if (!isPlain(value)) return found;
  const { id, version } = value;
  if (typeof id === 'string' && typeof version === 'number') found.set(id, version);
  for (const each of Object.values(value)) versionsIn(each, found);
  return found;
}

/** The same with these versions, where it names a row that has one. */
export function withVersions<T>(value: T, versions: ReadonlyMap<string, number>): T {
  if (Array.isArray(value)) return value.map((each) => withVersions(each as unknown, versions)) as T;
  if (!isPlain(value)) return value;
  const same = Object.fromEntries(Object.entries(value).map(([key, each]) => [key, withVersions(each, versions)]));
  const known = typeof value.id === 'string' && 'version' in value ? versions.get(value.id) : undefined;
  return (known === undefined ? same : { ...same, version: known }) as T;
}
