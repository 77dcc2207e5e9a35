import { settleNames } from '@/core/report/settle-words';
import { Job } from '@/core/shell/job/job';
import { MS_PER_MINUTE } from '@/core/maths/units/time';
import { machineZone } from '@/formats/shop-time';
import { editJob } from '@/server/actions/jobs';
import { writeMorning } from '@/server/actions/morning';
import { staleBackup } from '@/server/kept';
import { jobAnd } from '@/server/views';
import { DayPage } from '@/ui/day/day-page';

export default async function DaySheetPage({ params }: { params: Promise<{ job: string }> }) {
  const { job: jobId } = await params;
  // To the minute: what is planned by it is known again for the next window.
  const now = MS_PER_MINUTE * Math.floor(new Date().getTime() / MS_PER_MINUTE);
  const [{ rows, made }, tomorrow] = await Promise.all([
    jobAnd(jobId, 'day', undefined),
    jobAnd(jobId, 'tomorrow', { now, zone: machineZone() }),
  ]);
  const job = Job.of(rows);
  const stale = await staleBackup();
  return (
    <DayPage
      job={job.row}
      day={{ ...made, planned: tomorrow.made }}
      names={settleNames(job)}
      {...(stale ? { staleBackup: stale } : {})}
      printedAt={new Date().toISOString()}
      actions={{ editJob, writeMorning }}
    />
  );
}
