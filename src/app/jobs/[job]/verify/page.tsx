import { ownRounds } from '@/core/shell/job/job-rows';
import Link from 'next/link';
import { acceptedDimensions } from '@/core/report/record/record';
import { compareRounds } from '@/core/findings/change';
import { judgeRound } from '@/core/round/judge/judgement';
import { didItMove } from '@/core/findings/movement';
import { jobRows, rowsForRounds } from '@/server/views';
import { buttonClass } from '@/ui/kit/button';
import { Compare, type CompareView } from '@/ui/work/compare';
import { RungPage, type JobParams } from '../rung-page';

type Query = { readonly searchParams: Promise<{ from?: string; to?: string }> };

export default async function Page({ params, searchParams }: JobParams & Query) {
  const rows = await jobRows((await params).job);
  const { from, to } = await searchParams;
  const read = new Set(rows.readings.map((reading) => reading.roundId));
  const rounds = ownRounds(rows).filter((round) => read.has(round.id));
  const later = rounds.find((round) => round.id === to) ?? rounds.at(-1);
  const earlier = rounds.find((round) => round.id === from) ?? rounds.filter((round) => round !== later).at(-1);
  const view = ((): CompareView | undefined => {
    if (!earlier || !later) return undefined;
    const [before, judged] = [judgeRound(rows, earlier), judgeRound(rows, later)];
    return {
      change: compareRounds(rows, before, judged),
      movement: didItMove(rows, before, judged),
      final: judged.dimensions,
      accepted: [...acceptedDimensions(rows, later)],
    };
  })();
  return (
    <RungPage rows={rows} rung="verify">
      <Compare rows={rowsForRounds(rows, [])} view={view} />
      <p>
        <Link className={buttonClass('main')} href={`/jobs/${rows.jobs[0]!.id}/record`}>
          To the record
        </Link>
      </p>
    </RungPage>
  );
}
