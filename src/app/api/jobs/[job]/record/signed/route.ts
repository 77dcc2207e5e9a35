import { theJob } from '@/core/shell/job/job-rows';
import { fileName } from '@/formats/file-name';
import { signedRecordFile } from '@/formats/signed-record';
import { jobRows } from '@/server/views';

/** A signed record as a file that can be brought back and checked. */
export async function GET(request: Request, { params }: { params: Promise<{ job: string }> }): Promise<Response> {
  const number = new URL(request.url).searchParams.get('record');
  const rows = await jobRows((await params).job);
  const record = rows.signedRecords.find((each) => String(each.number) === number);
  if (!record?.hash)
    return Response.json({ faults: [{ path: 'record', message: 'no such record was signed' }] }, { status: 404 });
  const name = encodeURIComponent(`${fileName(theJob(rows).name)}-record-${record.number}.json`);
  return new Response(signedRecordFile(record), {
    headers: { 'content-type': 'application/json', 'content-disposition': `attachment; filename*=UTF-8''${name}` },
  });
}
