import { z } from 'zod';
import { importUpload } from '@/server/archive';

const bringAs = z.enum(['new', 'copy', 'missing']).catch('new');

/** Takes an exported job; the body is the zip itself, streamed to the disk first. `?as=copy|missing` for one that is here. */
export async function POST(request: Request): Promise<Response> {
  if (!request.body) return Response.json({ faults: [{ path: 'file', message: 'no file came' }] }, { status: 422 });
  const as = bringAs.parse(new URL(request.url).searchParams.get('as') ?? 'new');
  const outcome = await importUpload(request.body, as);
  return Response.json(outcome.ok ? outcome.value : { faults: outcome.faults }, {
    status: outcome.ok ? 200 : 422,
  });
}
