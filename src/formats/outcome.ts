import type { Fault } from './faults';

/** What came of something a user asked for. */
export type Outcome<T = null> =
  | { readonly ok: true; readonly value: T }
  | {
      readonly ok: false;
      readonly faults: readonly Fault[];
      /** Somebody else changed the row first: the row as it is now. */
      readonly current?: unknown;
    };

export const done = <T>(value: T): Outcome<T> => ({ ok: true, value });

export type Failure = Extract<Outcome<never>, { ok: false }>;

export const failed = (path: string, message: string): Failure => ({
  ok: false,
  faults: [{ path, message }],
});

/** Where the fault stands of what nobody has signed: the interface asks for the name and tries again. */
export const NO_PERSON = 'person';

/** Where the fault stands of a job brought in that is here already: it can come as a copy, or what is missing of it. */
export const HERE_ALREADY = 'here';

/** Nothing more fits on the disk: what was typed is kept and sent again. */
export const NO_ROOM = 'disk';

/** The data folder is damaged: nothing can be read or written until somebody has decided what to do. */
export const DAMAGED = 'data';

/** The database server does not answer: what was typed is kept and sent again. A page that failed of it has this for its digest. */
export const AWAY = 'database';
