import { taskServer, type TaskRequest } from './serve';

const take = taskServer((message) => postMessage(message));
addEventListener('message', ({ data }: MessageEvent<TaskRequest>) => take(data));
