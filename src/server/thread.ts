import { existsSync } from 'node:fs';
import path from 'node:path';
import { Worker } from 'node:worker_threads';

/** What a thread answers. */
type Answer<Result> = { readonly result: Result } | { readonly error: string };

/** Pieces of work that have threads of their own, as `scripts/bundle.mjs` makes them. */
export type ThreadName = 'archive-thread' | 'proof-thread';

/**
 * Does a piece of work in a thread of its own, away from the database and the pages. Where nothing was built (tests of
 * use cases), it is done here.
 */
export function inThread<Input, Result>(
  name: ThreadName,
  input: Input,
  here: (input: Input) => Promise<Result>,
): Promise<Result> {
  const file = path.join(process.cwd(), 'dist', `${name}.mjs`);
  if (!existsSync(file)) return here(input);
  return new Promise((resolve, reject) => {
    // Not `new Worker`: the server's own build would look for the file, which is made after it, and take in a copy.
    const thread = Reflect.construct(Worker, [file, { workerData: input }]);
    thread.once('message', (answer: Answer<Result>) => {
      if ('error' in answer) reject(new Error(answer.error));
      else resolve(answer.result);
    });
    thread.once('error', reject);
    thread.once('exit', () => reject(new Error(`${name} ended without an answer`)));
  });
}
