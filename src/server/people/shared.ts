import type { Sessions } from './sessions';

/** The header by which a request names its session; no client can set it. */
export const SESSION_HEADER = 'x-vinkel-session';

const shared = globalThis as typeof globalThis & { vinkelSessions?: Sessions };

/** Undefined where the program was started in a way that asks nobody who they are. */
export const theSessions = (): Sessions | undefined => shared.vinkelSessions;

export const setSessions = (sessions: Sessions): void => {
  shared.vinkelSessions = sessions;
};
