import { Job } from '@/core/shell/job/job';
import { sheetFigure } from '@/core/report/drawing/points';
import { theJob } from '@/core/shell/job/job-rows';
import { deviationsCsv } from '@/formats/export/deviations-csv';
import { sheetDxf } from '@/formats/export/dxf';
import { pointsPly } from '@/formats/export/ply';
import { downloadHeaders, fileName } from '@/formats/file-name';
import { runTask } from '@/server/tasks';
import { jobRows } from '@/server/views';

type Params = { readonly params: Promise<{ job: string; round: string; kind: string }> };

const USUAL_FACTOR = 20;

/** A judged round to take along: `dxf`, `csv` or `ply`; `?times=` exaggerates the drawing. */
export async function GET(request: Request, { params }: Params): Promise<Response> {
  const { job, round: roundId, kind } = await params;
  const rows = await jobRows(job);
  const round = rows.rounds.find((each) => each.id === roundId);
  if (!round) return new Response('no such round', { status: 404 });
  const { value: judgement } = await runTask('judge', rows, { roundId });
  const times = Number(new URL(request.url).searchParams.get('times'));
  const factor = times >= 1 && times <= 500 ? times : USUAL_FACTOR;
  const title = [theJob(rows).name, `Round ${round.number}: ${round.name}`];
  const name = `${fileName(theJob(rows).name)}-round-${round.number}`;
  const file = (type: string, text: string) =>
    new Response(text, { headers: downloadHeaders(type, `${name}.${kind}`) });
  switch (kind) {
    case 'dxf':
      return file('image/vnd.dxf', sheetDxf(sheetFigure(Job.of(rows), judgement), title, factor));
    case 'csv':
      return file('text/csv; charset=utf-8', deviationsCsv(rows, judgement));
    case 'ply':
      return file('application/ply', pointsPly(sheetFigure(Job.of(rows), judgement)));
    default:
      return new Response('no such kind of file', { status: 404 });
  }
}
