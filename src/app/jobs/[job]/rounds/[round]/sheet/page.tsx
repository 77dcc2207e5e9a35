import { only } from '@/core/shell/job/job-rows';
import { chooseReference } from '@/server/actions/references';
import { openInRound, recordRoundEvent, setControl } from '@/server/actions/rounds';
import { runTask } from '@/server/tasks';
import { roundRows, rowsForRounds, type RoundParams } from '@/server/views';
import { Deviations } from '@/ui/sheet/deviations';
import { RoundHead } from '@/ui/work/round-head';

export default async function Page({ params }: { params: Promise<RoundParams> }) {
  const { rows, round } = await roundRows(await params);
  const ghosts = await runTask('ghosts', rows, { roundId: round.id });
  return (
    <div className="flex flex-col gap-3">
      <RoundHead
        rows={only(rows, 'shellStates', 'supports')}
        round={round}
        here="sheet"
        actions={{ recordRoundEvent, openInRound }}
      />
      <Deviations
        rows={rowsForRounds(rows, [round.id])}
        roundId={round.id}
        actions={{ setControl, chooseReference }}
        acceptHref={`/jobs/${round.jobId}/log?round=${round.id}`}
        ghosts={ghosts}
      />
    </div>
  );
}
