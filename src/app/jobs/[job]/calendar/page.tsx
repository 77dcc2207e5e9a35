import * as actions from '@/server/actions/calendar';
import { recordStepEvent } from '@/server/actions/steps';
import { jobAnd } from '@/server/views';
import { CalendarPlace } from '@/ui/calendar/calendar-place';
import type { JobParams } from '../rung-page';

export default async function Page({ params }: JobParams) {
  const { job } = await params;
  const { made } = await jobAnd(job, 'calendar', { now: new Date().getTime() });
  return (
    <div className="flex flex-col gap-4">
      <h1 className="text-2xl">Calendar</h1>
      <CalendarPlace jobId={job} page={made} actions={{ ...actions, recordStepEvent }} />
    </div>
  );
}
