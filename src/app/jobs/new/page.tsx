import { createJob } from '@/server/actions/jobs';
import { Header } from '@/ui/shell/header';
import { NewJob } from '@/ui/shell/new-job';

export default function NewJobPage() {
  return (
    <>
      <Header title="New job" homeHref="/jobs/new" />
      <NewJob createJob={createJob} />
    </>
  );
}
