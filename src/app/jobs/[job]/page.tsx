import { settleNames } from '@/core/report/settle-words';
import { Job } from '@/core/shell/job/job';
import { editJob } from '@/server/actions/jobs';
import { writeMorning } from '@/server/actions/morning';
import { jobAnd } from '@/server/views';
import { DayPage } from '@/ui/day/day-page';

export default async function DaySheetPage({ params }: { params: Promise<{ job: string }> }) {
  const { rows, made } = await jobAnd((await params).job, 'day', undefined);
  const job = Job.of(rows);
  return (
    <DayPage
      job={job.row}
      day={made}
      names={settleNames(job)}
      printedAt={new Date().toISOString()}
      actions={{ editJob, writeMorning }}
    />
  );
}
