import { theJob } from '@/core/shell/job/job-rows';
import { layOut } from '@/server/actions/lay-out';
import { jobRows } from '@/server/views';
import { LayOut } from '@/ui/body/lay-out';

export default async function Page({ params }: { params: Promise<{ job: string }> }) {
  const rows = await jobRows((await params).job);
  return <LayOut job={theJob(rows)} here={rows.points.map(({ code }) => code)} layOut={layOut} />;
}
