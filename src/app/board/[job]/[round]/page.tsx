import { theJob } from '@/core/shell/job/job-rows';
import { roundRows, type RoundParams } from '@/server/views';
import { Board } from '@/ui/tape/board';

export default async function Page({ params }: { params: Promise<RoundParams> }) {
  const { rows, round } = await roundRows(await params);
  return <Board roundId={round.id} title={`${theJob(rows).name} · ${round.name}`} />;
}
