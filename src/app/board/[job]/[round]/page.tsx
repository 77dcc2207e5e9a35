import { theJob } from '@/core/shell/job/job-rows';
import { revisionNow } from '@/server/listening';
import { roundRows, type RoundParams } from '@/server/views';
import { Live } from '@/ui/live/live';
import { Board } from '@/ui/tape/board';

export default async function Page({ params }: { params: Promise<RoundParams> }) {
  const { rows, round } = await roundRows(await params);
  return (
    <Live jobId={round.jobId} revision={await revisionNow()}>
      <Board roundId={round.id} title={`${theJob(rows).name} · ${round.name}`} />
    </Live>
  );
}
