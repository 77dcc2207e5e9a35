import { notFound } from 'next/navigation';
import { theJob } from '@/core/shell/job/job-rows';
import { braceListCsv } from '@/formats/export/brace-list-csv';
import { braceListDxf } from '@/formats/export/brace-list-dxf';
import { downloadHeaders, fileName } from '@/formats/file-name';
import { jobAnd } from '@/server/views';

/** The braces of a job for the saw: as a table, or drawn with the shell. */
export async function GET(
  _: Request,
  { params }: { params: Promise<{ job: string; kind: string }> },
): Promise<Response> {
  const { job, kind } = await params;
  if (kind !== 'csv' && kind !== 'dxf') notFound();
  const { rows, made } = await jobAnd(job, 'cutting', {});
  const { name } = theJob(rows);
  const [type, text] =
    kind === 'csv'
      ? ['text/csv; charset=utf-8', braceListCsv(made.braces)]
      : ['image/vnd.dxf', braceListDxf(made, name)];
  return new Response(text, { headers: downloadHeaders(type, `${fileName(name)}-braces.${kind}`) });
}
