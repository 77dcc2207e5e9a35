import { createReadStream } from 'node:fs';
import { createInterface } from 'node:readline';

/** The lines of a file with their numbers from 1, one at a time: its size does not matter. None where there is no file. */
export async function* lines(path: string): AsyncGenerator<{ readonly text: string; readonly number: number }> {
  const stream = createReadStream(path, 'utf8');
  let number = 0;
  try {
    for await (const text of createInterface({ input: stream, crlfDelay: Infinity })) yield { text, number: ++number };
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'ENOENT') throw error;
  } finally {
    stream.destroy();
  }
}
