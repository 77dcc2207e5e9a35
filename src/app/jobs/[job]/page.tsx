import { settleNames } from '@/core/report/settle-words';
import { tomorrowFirst } from '@/core/report/pages/calendar';
import { Job } from '@/core/shell/job/job';
import { machineZone, shopClock } from '@/formats/shop-time';
import { editJob } from '@/server/actions/jobs';
import { writeMorning } from '@/server/actions/morning';
import { staleBackup } from '@/server/kept';
import { jobAnd } from '@/server/views';
import { DayPage } from '@/ui/day/day-page';

export default async function DaySheetPage({ params }: { params: Promise<{ job: string }> }) {
  const { rows, made } = await jobAnd((await params).job, 'day', undefined);
  const job = Job.of(rows);
  const stale = await staleBackup();
  return (
    <DayPage
      job={job.row}
      day={{ ...made, planned: tomorrowFirst(job, new Date().getTime(), shopClock(machineZone())) }}
      names={settleNames(job)}
      {...(stale ? { staleBackup: stale } : {})}
      printedAt={new Date().toISOString()}
      actions={{ editJob, writeMorning }}
    />
  );
}
