import { ownRounds } from '@/core/shell/job/job-rows';
import { aimOf, pullDistance, pullProgress } from '@/core/findings/brace-pull';
import { judgeRound } from '@/core/round/judge/judgement';
import { planPull, recordPullEvent } from '@/server/actions/work';
import { jobRows, rowsForRounds } from '@/server/views';
import { Pulls, type ListedPull } from '@/ui/work/pulls';
import { RungPage, type JobParams } from '../rung-page';

export default async function Page({ params }: JobParams) {
  const rows = await jobRows((await params).job);
  const judgements = ownRounds(rows).map((round) => judgeRound(rows, round));
  const latest = judgements.findLast((each) => each.points.some((point) => point.judged));
  const pulls = rows.pulls.map((pull): ListedPull => ({
    pull,
    point: rows.points.find((point) => point.id === pull.pointId)!.code,
    distance: pullDistance(pull),
    lastEvent: rows.pullEvents.findLast((event) => event.pullId === pull.id),
    progress: pullProgress(
      rows,
      pull,
      judgements.find((each) => each.round.id === pull.roundId)!,
    ),
  }));
  const pullable = (latest?.points ?? []).flatMap(({ point, judged }) =>
    latest && judged ? [{ pointId: point.id, code: point.code, aim: aimOf(latest, point.id)! }] : [],
  );
  return (
    <RungPage rows={rows} rung="pull">
      <Pulls
        rows={rowsForRounds(rows, [])}
        pulls={pulls}
        pullable={pullable}
        roundId={latest?.round.id ?? null}
        planPull={planPull}
        recordPullEvent={recordPullEvent}
      />
    </RungPage>
  );
}
