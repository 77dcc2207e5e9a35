import { ownRounds } from '@/core/shell/job/job-rows';
import { chooseReferences } from '@/core/shell/references/chosen';
import { judgeRound } from '@/core/round/judge/judgement';
import { judgeSeams, pairSeams } from '@/core/round/judge/seams';
import { addSeam } from '@/server/actions/chart';
import { jobRows, rowsForRounds } from '@/server/views';
import { Gaps } from '@/ui/gaps/gaps';
import { RungPage, type JobParams } from '../rung-page';

export default async function Page({ params }: JobParams) {
  const rows = await jobRows((await params).job);
  const judgements = ownRounds(rows).map((round) => judgeRound(rows, round));
  const withGaps = judgements.findLast((each) => each.measured.gaps.length > 0);
  const unread = {
    measured: { points: new Map(), distances: [], gaps: [] },
    references: chooseReferences(rows),
  };
  const pairs = pairSeams(judgeSeams(rows, withGaps ?? unread));
  return (
    <RungPage rows={rows} rung="fit">
      <Gaps rows={rowsForRounds(rows, [])} pairs={pairs} roundName={withGaps?.round.name} addSeam={addSeam} />
    </RungPage>
  );
}
