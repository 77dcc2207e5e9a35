import { parentPort } from 'node:worker_threads';
import { taskServer, type TaskRequest } from './serve';

/** The tasks in a thread of the server, away from the database; bundled by scripts/bundle.mjs. */
const take = taskServer((message) => parentPort!.postMessage(message));
parentPort!.on('message', (request: TaskRequest) => take(request));
