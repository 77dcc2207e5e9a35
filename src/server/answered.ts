import { DiskFull } from '@/db/journal/journal';
import type { Outcome } from '@/formats/outcome';
import { FolderDamaged } from './store';

/** Status of an answer: done · refused in words · no room on the disk · the data folder is damaged. */
const DONE = 200;
const REFUSED = 422;
const NO_ROOM = 507;
const AWAY = 503;

const faulty = (path: string, message: string, status: number): Response =>
  Response.json({ faults: [{ path, message }] }, { status });

/** What a use case came to, as a route answers it: what stands in the way is said in words, with its status. */
export async function answered<T>(work: () => Promise<Outcome<T>>): Promise<Response> {
  try {
    const outcome = await work();
    return outcome.ok
      ? Response.json(outcome.value, { status: DONE })
      : Response.json({ faults: outcome.faults }, { status: REFUSED });
  } catch (error) {
    if (error instanceof DiskFull) return faulty('disk', error.message, NO_ROOM);
    if (error instanceof FolderDamaged) return faulty('data', error.message, AWAY);
    throw error;
  }
}
