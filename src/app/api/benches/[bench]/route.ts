import { benchDocument } from '@/formats/bench';
import { downloadHeaders, fileName } from '@/formats/file-name';
import { shopBenches } from '@/server/views';

export async function GET(_: Request, { params }: { params: Promise<{ bench: string }> }): Promise<Response> {
  const { bench: id } = await params;
  const listed = (await shopBenches()).find(({ bench }) => bench.id === id);
  if (!listed) return new Response('There is no such bench.', { status: 404 });
  return new Response(`${JSON.stringify(benchDocument(listed), null, 1)}\n`, {
    headers: downloadHeaders('application/json', `${fileName(listed.bench.name)}-bench.json`),
  });
}
