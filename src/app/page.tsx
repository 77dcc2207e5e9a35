import { putAwayJob, removeJob } from '@/server/actions/jobs';
import { jobSummaries } from '@/server/views';
import { JobList } from '@/ui/shell/job-list';
import { Header } from '@/ui/shell/header';

export default async function Home() {
  return (
    <>
      <Header />
      <JobList jobs={await jobSummaries()} actions={{ putAwayJob, removeJob }} />
    </>
  );
}
