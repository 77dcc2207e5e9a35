import { randomUUID } from 'node:crypto';
import { answered } from '@/server/answered';
import { WINDOW_HEADER } from '@/formats/live';
import { live } from '@/server/live';
import { takeTapeEntry } from '@/server/readings';

/** Takes one entry of the tape; answered only once it is on the disk. */
export async function POST(request: Request): Promise<Response> {
  const input: unknown = await request.json().catch(() => undefined);
  const window = request.headers.get(WINDOW_HEADER) ?? '';
  return answered(() =>
    live().from({ window, tape: true }, async () => {
      const outcome = await takeTapeEntry(input, randomUUID);
      if (outcome.ok) live().relay(outcome.value.jobId, window, { kind: 'line', entry: input });
      return outcome;
    }),
  );
}
