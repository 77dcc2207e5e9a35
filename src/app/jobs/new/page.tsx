import { createJob } from '@/server/actions/jobs';
import { allJobs } from '@/server/views';
import { Header } from '@/ui/shell/header';
import { NewJob } from '@/ui/shell/new-job';

export default async function NewJobPage({ searchParams }: { searchParams: Promise<{ after?: string }> }) {
  const { after } = await searchParams;
  const earlier = await allJobs();
  return (
    <>
      <Header title="New job" homeHref="/jobs/new" />
      <NewJob {...{ createJob, earlier }} afterId={earlier.find(({ id }) => id === after)?.id ?? ''} />
    </>
  );
}
