import { importUpload } from '@/server/archive';

/** Takes an exported job; the body is the zip itself, streamed to the disk first. */
export async function POST(request: Request): Promise<Response> {
  if (!request.body) return Response.json({ faults: [{ path: 'file', message: 'no file came' }] }, { status: 422 });
  const outcome = await importUpload(request.body);
  return Response.json(outcome.ok ? outcome.value : { faults: outcome.faults }, {
    status: outcome.ok ? 200 : 422,
  });
}
