import { only } from '@/core/shell/job/job-rows';
import { openInRound, recordRoundEvent } from '@/server/actions/rounds';
import { roundRows, rowsForRounds, type RoundParams } from '@/server/views';
import { SpacePage } from '@/ui/space/space-page';
import { RoundHead } from '@/ui/work/round-head';

export default async function Page({ params }: { params: Promise<RoundParams> }) {
  const { rows, round } = await roundRows(await params);
  return (
    <div className="flex flex-col gap-3">
      <RoundHead
        rows={only(rows, 'shellStates', 'supports')}
        round={round}
        here="space"
        actions={{ recordRoundEvent, openInRound }}
      />
      <SpacePage rows={rowsForRounds(rows, [round.id])} roundId={round.id} />
    </div>
  );
}
