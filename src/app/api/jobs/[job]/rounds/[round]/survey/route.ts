import { theJob } from '@/core/shell/job/job-rows';
import { chooseReferences } from '@/core/shell/references/chosen';
import { surveyOf } from '@/core/round/observe/survey-of';
import { downloadHeaders, fileName } from '@/formats/file-name';
import { surveyDocumentOf } from '@/formats/survey';
import { jobRows } from '@/server/views';

/** A round's net as `vinkel.survey/1`, for the headless command. */
export async function GET(
  _: Request,
  { params }: { params: Promise<{ job: string; round: string }> },
): Promise<Response> {
  const { job, round: roundId } = await params;
  const rows = await jobRows(job);
  const round = rows.rounds.find((each) => each.id === roundId);
  if (!round) return new Response('no such round', { status: 404 });
  const { survey } = surveyOf(rows, round, chooseReferences(rows));
  const spoken = new Set(survey.readings.flatMap((each) => ('point' in each ? [each.point] : [each.from, each.to])));
  const points = survey.points.filter(({ id }) => spoken.has(id));
  return new Response(JSON.stringify(surveyDocumentOf({ ...survey, points }), null, 1), {
    headers: downloadHeaders('application/json', `${fileName(theJob(rows).name)}-round-${round.number}.survey.json`),
  });
}
