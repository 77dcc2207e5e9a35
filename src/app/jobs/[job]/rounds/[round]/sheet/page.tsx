import { saveRound, setControl } from '@/server/actions/rounds';
import { roundRows, rowsForRounds, type RoundParams } from '@/server/views';
import { RoundHead } from '@/ui/work/round-head';
import { Deviations } from '@/ui/sheet/deviations';

export default async function Page({ params }: { params: Promise<RoundParams> }) {
  const { rows, round } = await roundRows(await params);
  return (
    <div className="flex flex-col gap-3">
      <RoundHead rows={rowsForRounds(rows, [])} round={round} here="sheet" saveRound={saveRound} />
      <Deviations
        rows={rowsForRounds(rows, [round.id])}
        roundId={round.id}
        setControl={setControl}
        acceptHref={`/jobs/${round.jobId}/log?round=${round.id}`}
      />
    </div>
  );
}
