import { bringAs } from '@/formats/inputs/jobs';
import { importUpload } from '@/server/archive/upload';
import { answered } from '@/server/answered';
import { permitted } from '@/server/use-case';

/** Takes an exported job; the body is the zip itself, streamed to the disk first. `?as=` says how, where it is here. */
export async function POST(request: Request): Promise<Response> {
  const { body } = request;
  if (!body) return Response.json({ faults: [{ path: 'file', message: 'no file came' }] }, { status: 422 });
  const as = bringAs.catch('new').parse(new URL(request.url).searchParams.get('as') ?? 'new');
  const bytes = Number(request.headers.get('content-length') ?? 0);
  return answered(() => permitted('plan', () => importUpload(body, bytes, as)));
}
