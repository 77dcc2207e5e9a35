import { randomUUID } from 'node:crypto';
import { takeTapeEntry } from '@/server/readings';

/** Takes one entry of the tape; answered only once it is on the disk. */
export async function POST(request: Request): Promise<Response> {
  const input: unknown = await request.json().catch(() => undefined);
  const outcome = await takeTapeEntry(input, randomUUID);
  return Response.json(outcome.ok ? outcome.value : { faults: outcome.faults }, {
    status: outcome.ok ? 200 : 422,
  });
}
