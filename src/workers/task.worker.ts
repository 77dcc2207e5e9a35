import { loadSolver } from '@/core/maths/search/highs';
import { taskServer, type TaskRequest } from './serve';

/** Longer than this a program is not worked on: the best so far is shown, s. */
const MOST_SECONDS = 15;

const take = taskServer((message) => postMessage(message), { solver: (told) => loadSolver(MOST_SECONDS, told) });
addEventListener('message', ({ data }: MessageEvent<TaskRequest>) => take(data));
