import { parentPort, workerData } from 'node:worker_threads';

/** Does the work a thread was started for, and answers it. */
export async function answer<Input>(work: (input: Input) => Promise<unknown>): Promise<void> {
  try {
    parentPort!.postMessage({ result: await work(workerData as Input) });
  } catch (error) {
    parentPort!.postMessage({ error: error instanceof Error ? error.message : String(error) });
  }
}
