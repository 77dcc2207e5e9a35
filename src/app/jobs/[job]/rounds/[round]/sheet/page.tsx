import { notFound } from 'next/navigation';
import { saveRound, setControl } from '@/server/actions/rounds';
import { jobRows, rowsForRounds } from '@/server/views';
import { RoundHead } from '@/ui/work/round-head';
import { Deviations } from '@/ui/sheet/deviations';

export default async function Page({
  params,
}: {
  params: Promise<{ job: string; round: string }>;
}) {
  const { job, round: roundId } = await params;
  const rows = await jobRows(job);
  const round = rows.rounds.find((each) => each.id === roundId);
  if (!round) notFound();
  return (
    <div className="flex flex-col gap-3">
      <RoundHead rows={rowsForRounds(rows, [])} round={round} here="sheet" saveRound={saveRound} />
      <Deviations
        rows={rowsForRounds(rows, [roundId])}
        roundId={roundId}
        setControl={setControl}
        acceptHref={`/jobs/${job}/log?round=${roundId}`}
      />
    </div>
  );
}
