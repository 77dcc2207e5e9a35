import { Readable } from 'node:stream';
import { downloadHeaders } from '@/formats/file-name';
import { exportJob } from '@/server/archive/export';
import { store } from '@/server/store';

/** The whole job as one zip, streamed. */
export async function GET(_: Request, { params }: { params: Promise<{ job: string }> }): Promise<Response> {
  const exported = await exportJob((await store()).database, (await params).job);
  if (!exported) return new Response('no such job', { status: 404 });
  return new Response(Readable.toWeb(exported.zip) as ReadableStream, {
    headers: downloadHeaders('application/zip', `${exported.name}.zip`),
  });
}
