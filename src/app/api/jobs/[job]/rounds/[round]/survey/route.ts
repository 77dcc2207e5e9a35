import { Job } from '@/core/shell/job/job';
import { observeRound } from '@/core/round/observe/observe';
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
  const whole = Job.of(rows);
  const { survey } = surveyOf(whole, observeRound(whole, round));
  return new Response(
    JSON.stringify(
      surveyDocumentOf(survey, (id) => whole.code(id)),
      null,
      1,
    ),
    {
      headers: downloadHeaders('application/json', `${fileName(whole.row.name)}-round-${round.number}.survey.json`),
    },
  );
}
