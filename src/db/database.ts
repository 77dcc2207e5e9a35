/** Anything SQL can be sent to: the database itself or one transaction. */
export interface Queryable {
  /**
   * Runs one statement. Column names come back in camelCase, times as ISO 8601 text in UTC,
   * bytes as `Uint8Array`, JSON parsed.
   */
  query<Row>(sql: string, parameters?: readonly unknown[]): Promise<Row[]>;
}

/** The one port to the data: PGlite is behind it, or a PostgreSQL server. */
export interface Database extends Queryable {
  /** Runs the work in one transaction, undone as a whole when it throws; one after another, whatever process they are of. */
  transaction<T>(work: (tx: Queryable) => Promise<T>): Promise<T>;
  /** Runs a script of several statements, without parameters. */
  script(sql: string): Promise<void>;
  close(): Promise<void>;
}

const camel = (column: string): string => column.replace(/_([a-z0-9])/g, (_, letter: string) => letter.toUpperCase());

/** `fromPointId` → `from_point_id`. */
export const snake = (key: string): string => key.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);

/** Rows as a driver returns them, with the keys the program uses. */
export function camelRows<Row>(rows: readonly Record<string, unknown>[]): Row[] {
  const [first] = rows;
  if (!first) return [];
  const keys = Object.keys(first).map((column) => [column, camel(column)] as const);
  return rows.map((row) => Object.fromEntries(keys.map(([column, key]) => [key, row[column]])) as Row);
}

/** PostgreSQL's `2026-11-24 08:00:00.25+00` as `2026-11-24T08:00:00.250Z`. */
export const isoTime = (text: string): string => new Date(text).toISOString();

/** PostgreSQL's OID of `timestamptz`, whose text both engines hand to `isoTime`. */
export const TIMESTAMPTZ = 1184;

/**
 * The database server does not answer, or broke off: what was asked for was not done, or nobody can say whether it was.
 * By its name, since each bundle of the server has a class of its own.
 */
export class DatabaseAway extends Error {
  /** By this a page that failed of it knows why: nothing else of an error comes to a browser. */
  readonly digest = 'database';
  constructor(options?: ErrorOptions) {
    super('the database server does not answer: nothing is lost that was acknowledged; try again in a moment', options);
    this.name = 'DatabaseAway';
  }
}

export const isAway = (error: unknown): error is DatabaseAway => (error as Error)?.name === 'DatabaseAway';

/** Whether a statement may change rows. */
export const isWrite = (sql: string): boolean => !/^\s*(select|show|explain)\b/i.test(sql);

/** A question longer than this takes longer to plan than to answer: that of all tables of a job three times as long. */
const LONG = 4000;
const planNames = new Map<string, string>();

/** The name under which the plan of a question is kept for the next time; undefined where it is planned each time. */
export function planNameOf(sql: string): string | undefined {
  if (sql.length < LONG || isWrite(sql)) return undefined;
  const name = planNames.get(sql) ?? `vinkel_${planNames.size + 1}`;
  planNames.set(sql, name);
  return name;
}
