import { Job } from '@/core/shell/job/job';
import { only } from '@/core/shell/job/job-rows';
import { dropRound, openInRound, recordRoundEvent } from '@/server/actions/rounds';
import { roundRows, rowsForRounds, type RoundParams } from '@/server/views';
import { RoundHead } from '@/ui/work/round-head';
import { Measuring } from '@/ui/tape/measuring';
import type { PullContext } from '@/ui/tape/use-measuring';

interface Props {
  readonly params: Promise<RoundParams>;
  readonly searchParams: Promise<{ pull?: string; phase?: string }>;
}

export default async function Page({ params, searchParams }: Props) {
  const { pull: pullId, phase } = await searchParams;
  const { rows, round } = await roundRows(await params);
  const pull = Job.of(rows).pulls.find((each) => each.id === pullId);
  const context: PullContext | undefined = pull && {
    pullId: pull.id,
    phase: phase === 'released' ? 'released' : 'underLoad',
  };
  return (
    <div className="flex flex-col gap-3">
      <RoundHead
        rows={only(rows, 'shellStates', 'supports')}
        round={round}
        here="measure"
        actions={{ recordRoundEvent, openInRound }}
        dropRound={rows.readings.some(({ roundId }) => roundId === round.id) ? undefined : dropRound}
        pull={pull}
        phase={context?.phase}
      />
      <Measuring key={`${pullId}${phase}`} rows={rowsForRounds(rows, [round.id])} roundId={round.id} pull={context} />
    </div>
  );
}
