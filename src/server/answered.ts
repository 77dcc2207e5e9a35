import { DiskFull, isFull } from '@/db/journal/journal';
import { SIGNED_OUT } from '@/formats/people';
import { isAway } from '@/db/database';
import { AWAY, DAMAGED, failed, NO_ROOM, type Failure, type Outcome } from '@/formats/outcome';
import { isDamaged } from './store';

/** Status of an answer: done · refused in words · no room on the disk · the data cannot be had. */
const DONE = 200;
const REFUSED = 422;
/** What says nothing of what was sent: it may be sent again later. */
const LATER: Readonly<Record<string, number>> = { [NO_ROOM]: 507, [DAMAGED]: 503, [AWAY]: 503, [SIGNED_OUT]: 401 };

/** What a use case came to, as a route answers it: what stands in the way is said in words, with its status. */
export async function answered<T>(work: () => Promise<Outcome<T>>): Promise<Response> {
  const outcome = await work().catch(orObstacle);
  if (outcome.ok) return Response.json(outcome.value, { status: DONE });
  const status = outcome.faults.map(({ path }) => LATER[path]).find(Boolean) ?? REFUSED;
  return Response.json({ faults: outcome.faults }, { status });
}

/** What kept a use case from being done that has nothing to do with its input; undefined where that is not it. */
export function obstacleOf(error: unknown): Failure | undefined {
  if (isFull(error)) return failed(NO_ROOM, new DiskFull().message);
  if (isDamaged(error)) return failed(DAMAGED, error.message);
  if (isAway(error)) return failed(AWAY, error.message);
  return undefined;
}

/** The same, where it failed of that; anything else it failed of is thrown on. */
export function orObstacle(error: unknown): Failure {
  const obstacle = obstacleOf(error);
  if (obstacle) return obstacle;
  throw error;
}
