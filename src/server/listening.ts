import { headers } from 'next/headers';
import { markOf } from '@/db/journal/mark';
import { readPreferences } from '@/formats/preferences';
import { whoIsHere } from './people/actor';
import { SESSION_HEADER, theSessions } from './people/shared';
import { preferencesCookie } from './preferences';
import { store } from './store';

/** Who opens a window's ear: their name, and whether they may still hear. */
export async function listenerHere(): Promise<{ name: string; mayHear: () => Promise<boolean> }> {
  const id = (await headers()).get(SESSION_HEADER);
  const who = await whoIsHere();
  const said = readPreferences(await preferencesCookie()).person.trim();
  return {
    name: who?.name ?? (said || 'somebody'),
    // Somebody sent away hears nothing more, whatever is still open.
    mayHear: async () => id === null || (await theSessions()?.byId(id)) !== undefined,
  };
}

export const revisionNow = async (): Promise<number> => markOf((await store()).database);
