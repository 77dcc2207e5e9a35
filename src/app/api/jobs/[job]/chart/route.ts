import { theJob } from '@/core/shell/job/job-rows';
import { chartDocumentOf } from '@/formats/chart/document';
import { downloadHeaders, fileName } from '@/formats/file-name';
import { jobRows } from '@/server/views';

export async function GET(_: Request, { params }: { params: Promise<{ job: string }> }): Promise<Response> {
  const rows = await jobRows((await params).job);
  return new Response(`${JSON.stringify(chartDocumentOf(rows), null, 1)}\n`, {
    headers: downloadHeaders('application/json', `${fileName(theJob(rows).name)}-chart.json`),
  });
}
