import { daySheet } from '@/core/days/day';
import { theJob } from '@/core/shell/job/job-rows';
import { jobRows } from '@/server/views';
import { DayPage } from '@/ui/day/day-page';

export default async function DaySheetPage({ params }: { params: Promise<{ job: string }> }) {
  const rows = await jobRows((await params).job);
  return <DayPage job={theJob(rows)} day={dayView(daySheet(rows))} printedAt={new Date().toISOString()} />;
}

/** The judged round stays on the server: the page needs its name only. */
function dayView({ latest, ...day }: ReturnType<typeof daySheet>) {
  return { ...day, latestRound: latest?.round };
}
