import { notFound } from 'next/navigation';
import { saveRound } from '@/server/actions/rounds';
import { jobRows, rowsForRounds } from '@/server/views';
import { RoundHead } from '@/ui/work/round-head';
import { Measuring, type PullContext } from '@/ui/tape/measuring';

interface Props {
  readonly params: Promise<{ job: string; round: string }>;
  readonly searchParams: Promise<{ pull?: string; phase?: string }>;
}

export default async function Page({ params, searchParams }: Props) {
  const { job, round: roundId } = await params;
  const { pull: pullId, phase } = await searchParams;
  const rows = await jobRows(job);
  const round = rows.rounds.find((each) => each.id === roundId);
  if (!round) notFound();
  const pull = rows.pulls.find((each) => each.id === pullId);
  const context: PullContext | undefined = pull && {
    pullId: pull.id,
    phase: phase === 'released' ? 'released' : 'underLoad',
  };
  return (
    <div className="flex flex-col gap-3">
      <RoundHead
        rows={rowsForRounds(rows, [])}
        round={round}
        here="measure"
        saveRound={saveRound}
        pull={pull}
        phase={context?.phase}
      />
      <Measuring
        key={`${pullId}${phase}`}
        rows={rowsForRounds(rows, [roundId])}
        roundId={roundId}
        pull={context}
      />
    </div>
  );
}
