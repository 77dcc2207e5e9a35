/** A list that the browser keeps through reloads, in the order its rows were added. */
export interface KeptList<Row> {
  readonly all: () => Row[];
  readonly add: (row: Row) => void;
  /** Lets go of every row with the key of this one. */
  readonly remove: (row: Row) => void;
}

let added = 0;

/** So that keys sort as the rows were added, in whichever window. */
const ordered = (at: number, count: number): string =>
  `${String(at).padStart(14, '0')}.${String(count).padStart(6, '0')}`;

/**
 * Each row lies under a key of its own: the windows of a browser share its storage without a lock, and of two that write one
 * list at the same moment the second would write away what the first has just added.
 *
 * @param name begins the keys; no other list's name may begin with it and a dot
 * @param keyOf what tells the rows apart
 */
export function keptList<Row>(name: string, keyOf: (row: Row) => string): KeptList<Row> {
  const parsed = (key: string): Row[] => {
    try {
      const row: unknown = JSON.parse(localStorage.getItem(key) ?? 'null');
      return row ? [row as Row] : [];
    } catch {
      return [];
    }
  };
  const put = (order: string, row: Row) => localStorage.setItem(`${name}.${order}.${keyOf(row)}`, JSON.stringify(row));
  /** Before 29 November 2026 a list lay under one key: what a browser still has there comes first. */
  const takeOver = () => {
    const [old] = parsed(name);
    localStorage.removeItem(name);
    if (Array.isArray(old)) (old as Row[]).forEach((row, i) => put(ordered(0, i), row));
  };
  const keys = (): string[] =>
    Array.from({ length: localStorage.length }, (_, i) => localStorage.key(i)!)
      .filter((key) => key.startsWith(`${name}.`))
      .sort();
  return {
    all: () => {
      takeOver();
      return keys().flatMap(parsed);
    },
    add: (row) => {
      takeOver();
      put(ordered(Date.now(), added++), row);
    },
    remove: (row) => {
      takeOver();
      const end = `.${keyOf(row)}`;
      for (const key of keys()) if (key.endsWith(end)) localStorage.removeItem(key);
    },
  };
}
