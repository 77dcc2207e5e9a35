import { notFound } from 'next/navigation';
import { theJob } from '@/core/job/job-rows';
import { jobRows } from '@/server/views';
import { Board } from '@/ui/tape/board';

export default async function Page({
  params,
}: {
  params: Promise<{ job: string; round: string }>;
}) {
  const { job, round: roundId } = await params;
  const rows = await jobRows(job);
  const round = rows.rounds.find((each) => each.id === roundId);
  if (!round) notFound();
  return <Board roundId={roundId} title={`${theJob(rows).name} · ${round.name}`} />;
}
