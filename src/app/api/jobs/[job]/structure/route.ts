import { knownPoints, latestRound, structureOf } from '@/core/plan/cut/structure-of';
import { supportsOf } from '@/core/plan/cut/supports';
import { Job } from '@/core/shell/job/job';
import { downloadHeaders, fileName } from '@/formats/file-name';
import { structureDocument } from '@/formats/structure-file';
import { jobRows } from '@/server/views';

/** The structure of a job's shell as `vinkel.shell/1`. */
export async function GET(_: Request, { params }: { params: Promise<{ job: string }> }): Promise<Response> {
  const job = Job.of(await jobRows((await params).job));
  const structure = structureOf(job, knownPoints(job, latestRound(job)));
  if (!structure) return new Response('this job has no structure yet', { status: 404 });
  const { supports } = supportsOf(job, structure.model);
  return new Response(`${JSON.stringify(structureDocument(structure.model, supports), null, 1)}\n`, {
    headers: downloadHeaders('application/json', `${fileName(job.row.name)}-structure.json`),
  });
}
