import { downloadHeaders, fileName } from '@/formats/file-name';
import { openShared } from '@/server/shared';

/** A chart, a structure or a bench that a shop of this server shares, as a file. */
export async function GET(_: Request, { params }: { params: Promise<{ shared: string }> }): Promise<Response> {
  const opened = await openShared((await params).shared);
  if (!opened) return new Response('no shop shares this', { status: 404 });
  return new Response(`${JSON.stringify(opened.file, null, 1)}\n`, {
    headers: downloadHeaders('application/json', `${fileName(opened.name)}-${opened.kind}.json`),
  });
}
