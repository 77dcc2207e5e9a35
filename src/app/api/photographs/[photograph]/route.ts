import { Readable } from 'node:stream';
import { openPhotograph } from '@/server/open-photograph';

/** A photograph as it was taken, or its preview with `?preview`. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ photograph: string }> },
): Promise<Response> {
  const preview = new URL(request.url).searchParams.has('preview');
  const opened = await openPhotograph((await params).photograph, preview);
  if (!opened) return new Response('no such photograph', { status: 404 });
  return new Response(Readable.toWeb(opened.content) as ReadableStream, {
    headers: {
      'content-type': opened.mediaType,
      'cache-control': 'private, max-age=31536000, immutable',
      'x-content-type-options': 'nosniff',
    },
  });
}
