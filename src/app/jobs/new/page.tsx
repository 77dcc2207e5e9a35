import { createJob } from '@/server/actions/jobs';
import { jobSummaries } from '@/server/views';
import { Header } from '@/ui/shell/header';
import { NewJob } from '@/ui/shell/new-job';

export default async function NewJobPage({ searchParams }: { searchParams: Promise<{ after?: string }> }) {
  const { after } = await searchParams;
  const jobs = await jobSummaries();
  const earlier = jobs.map(({ recordCount, ...job }) => ({ ...job, isSigned: recordCount > 0 }));
  return (
    <>
      <Header title="New job" homeHref="/jobs/new" />
      <NewJob {...{ createJob, earlier }} afterId={earlier.find(({ id }) => id === after)?.id ?? ''} />
    </>
  );
}
