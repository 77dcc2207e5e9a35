import { CHART_TEMPLATES } from '@/formats/chart/headers';
import { downloadHeaders } from '@/formats/file-name';

export async function GET(_: Request, { params }: { params: Promise<{ kind: string }> }): Promise<Response> {
  const { kind } = await params;
  if (kind !== 'points' && kind !== 'dimensions') return new Response('no such template', { status: 404 });
  return new Response(CHART_TEMPLATES[kind], {
    headers: downloadHeaders('text/csv; charset=utf-8', `${kind}.csv`),
  });
}
