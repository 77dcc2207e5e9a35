import { jobAnd } from '@/server/views';
import { TimePage } from '@/ui/time/time-page';

export default async function Page({ params }: { params: Promise<{ job: string }> }) {
  const { job } = await params;
  return <TimePage jobId={job} time={(await jobAnd(job, 'time', undefined)).made} />;
}
