import type { RequestListener } from 'node:http';
import { isAway, type Queryable } from '../db/database';
import { setFloor, theFloor, type Floor } from './floor/floor';
import { floorOf, isLeftOn, type Guard } from './floor/listen';
import { gateOf } from './people/gate';
import { Sessions } from './people/sessions';
import { setSessions } from './people/shared';

interface DoorOptions {
  /** The data folder. */
  readonly data: string;
  /** The program itself. */
  readonly inside: RequestListener;
  readonly guarded: Guard;
  readonly names: readonly string[];
}

const shared = globalThis as typeof globalThis & { vinkelStore?: Promise<{ readonly database: Queryable }> };

/**
 * What stands between a listener and the program: who asks is settled here. The program's own bundles find the floor and
 * the sessions in this process; the database they opened is found from here.
 */
export function openDoors({ data, inside, guarded, names }: DoorOptions) {
  const database = async (): Promise<Queryable> => {
    if (!shared.vinkelStore) throw new Error('the data folder is not open yet');
    return (await shared.vinkelStore).database;
  };
  const sessions = new Sessions(database);
  setSessions(sessions);
  const gate = gateOf({ sessions, database, isOpen: () => theFloor()?.state().on ?? false });
  const handle: RequestListener = (request, response) =>
    void gate(request, response, inside).catch((error: unknown) => {
      const away = isAway(error);
      if (!away) console.error(error);
      if (!response.headersSent) response.writeHead(away ? 503 : 500, { 'content-type': 'text/plain; charset=utf-8' });
      response.end(away ? error.message : undefined);
    });
  return {
    handle,
    /** For who was let in by another process of this program already. */
    inside,
    /** The listener on the network, off until it is opened; it is open already where it was left so. */
    floorAt(port: number): { readonly floor: Floor; readonly isLeftOn: boolean } {
      const floor = floorOf({ data, handle, guarded, port, names });
      setFloor(floor);
      return { floor, isLeftOn: isLeftOn(data) };
    },
  };
}
