import { Job } from '@/core/shell/job/job';
import type { ReactNode } from 'react';
import { theJob } from '@/core/shell/job/job-rows';
import { ladderOf } from '@/core/days/ladder';
import { openTimers } from '@/core/report/pages/calendar';
import { hearTimer } from '@/server/actions/calendar';
import { revisionNow } from '@/server/listening';
import { jobRows } from '@/server/views';
import { Bell } from '@/ui/calendar/bell';
import { Live, OthersHere } from '@/ui/live/live';
import { LadderRail } from '@/ui/ladder/ladder-rail';
import { Header } from '@/ui/shell/header';

export default async function JobLayout({
  children,
  params,
}: {
  children: ReactNode;
  params: Promise<{ job: string }>;
}) {
  const { job: jobId } = await params;
  const rows = await jobRows(jobId);
  const ladder = ladderOf(Job.of(rows));
  return (
    <Live jobId={jobId} revision={await revisionNow()}>
      <Header title={theJob(rows).name} homeHref={`/jobs/${jobId}`}>
        <OthersHere />
      </Header>
      <Bell timers={openTimers(Job.of(rows))} hearTimer={hearTimer} />
      <div className="flex min-h-[calc(100dvh-3.6rem)] max-lg:flex-col print:block">
        <LadderRail jobId={jobId} rungs={ladder.rungs} next={ladder.next?.step.title} />
        <main className="min-w-0 grow p-4 lg:px-6">{children}</main>
      </div>
    </Live>
  );
}
