import { lengthsThroughTime } from '@/core/findings/through-time';
import { jobRows } from '@/server/views';
import { TimePage } from '@/ui/time/time-page';

export default async function Page({ params }: { params: Promise<{ job: string }> }) {
  const rows = await jobRows((await params).job);
  return <TimePage jobId={rows.jobs[0]!.id} time={lengthsThroughTime(rows)} />;
}
