import { randomUUID } from 'node:crypto';
import { answered } from '@/server/answered';
import { takeTapeEntry } from '@/server/readings';

/** Takes one entry of the tape; answered only once it is on the disk. */
export async function POST(request: Request): Promise<Response> {
  const input: unknown = await request.json().catch(() => undefined);
  return answered(() => takeTapeEntry(input, randomUUID));
}
