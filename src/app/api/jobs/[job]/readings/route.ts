import { theJob } from '@/core/job/job-rows';
import { downloadHeaders, fileName } from '@/formats/file-name';
import { readingsCsv } from '@/formats/readings-csv';
import { jobRows } from '@/server/views';

export async function GET(
  _: Request,
  { params }: { params: Promise<{ job: string }> },
): Promise<Response> {
  const rows = await jobRows((await params).job);
  return new Response(readingsCsv(rows), {
    headers: downloadHeaders(
      'text/csv; charset=utf-8',
      `${fileName(theJob(rows).name)}-readings.csv`,
    ),
  });
}
