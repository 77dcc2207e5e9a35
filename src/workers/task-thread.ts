import { parentPort } from 'node:worker_threads';
import { loadSolver } from '@/core/maths/search/highs';
import { taskServer, type TaskRequest } from './serve';

/** Longer than this a page does not wait for the best choice of stacks: the best so far is shown, s. */
const MOST_SECONDS = 4;

/** The tasks in a thread of the server, away from the database; bundled by scripts/bundle.mjs. */
let solver: ReturnType<typeof loadSolver> | undefined;
const take = taskServer((message) => parentPort!.postMessage(message), {
  solver: () => (solver ??= loadSolver(MOST_SECONDS)),
});
parentPort!.on('message', (request: TaskRequest) => take(request));
