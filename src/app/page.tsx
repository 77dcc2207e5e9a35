import { JOBS_SHOWN } from '@/formats/inputs/jobs';
import { putAwayJob, removeJob } from '@/server/actions/jobs';
import { jobsListed } from '@/server/views';
import { JobList } from '@/ui/shell/job-list';
import { Header } from '@/ui/shell/header';

interface Props {
  readonly searchParams: Promise<{ find?: string | string[]; show?: string | string[] }>;
}

export default async function Home({ searchParams }: Props) {
  const { find, show } = await searchParams;
  const most = Math.min(Math.max(JOBS_SHOWN, Math.floor(Number(show)) || 0), 10_000);
  const listed = await jobsListed({
    find: String(find ?? '')
      .trim()
      .slice(0, 200),
    most,
  });
  return (
    <>
      <Header />
      <JobList {...listed} actions={{ putAwayJob, removeJob }} />
    </>
  );
}
