import { theJob } from '@/core/shell/job/job-rows';
import { downloadHeaders, fileName } from '@/formats/file-name';
import { structureFile } from '@/server/files';
import { jobRows } from '@/server/views';

/** The structure of a job's shell as `vinkel.shell/1`. */
export async function GET(_: Request, { params }: { params: Promise<{ job: string }> }): Promise<Response> {
  const rows = await jobRows((await params).job);
  const structure = structureFile(rows);
  if (!structure) return new Response('this job has no structure yet', { status: 404 });
  return new Response(`${JSON.stringify(structure, null, 1)}\n`, {
    headers: downloadHeaders('application/json', `${fileName(theJob(rows).name)}-structure.json`),
  });
}
