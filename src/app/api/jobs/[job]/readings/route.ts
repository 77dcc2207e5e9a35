import { theJob } from '@/core/shell/job/job-rows';
import { downloadHeaders, fileName } from '@/formats/file-name';
import { readingsCsv } from '@/formats/readings-csv';
import { jobRows, ofRounds } from '@/server/views';

export async function GET(request: Request, { params }: { params: Promise<{ job: string }> }): Promise<Response> {
  const all = await jobRows((await params).job);
  const roundId = new URL(request.url).searchParams.get('round');
  const rows = roundId ? ofRounds(all, [roundId]) : all;
  return new Response(readingsCsv(rows), {
    headers: downloadHeaders('text/csv; charset=utf-8', `${fileName(theJob(rows).name)}-readings.csv`),
  });
}
