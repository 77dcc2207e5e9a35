import { schedule } from '@/core/days/calendar/schedule';
import { calendarRows } from '@/core/days/calendar/task';
import { Job } from '@/core/shell/job/job';
import { writeCalendar } from '@/formats/calendar/ics';
import { fileName } from '@/formats/file-name';
import { formatterFor } from '@/formats/formatter';
import { readPreferences } from '@/formats/preferences';
import { machineZone } from '@/formats/shop-time';
import { preferencesCookie } from '@/server/preferences';
import { jobRows } from '@/server/views';

/** The steps as they are planned, for other calendars; what was done is left out. */
export async function GET(_: Request, { params }: { params: Promise<{ job: string }> }): Promise<Response> {
  const job = Job.of(await jobRows((await params).job));
  const format = formatterFor(readPreferences(await preferencesCookie()), machineZone());
  const now = Date.now();
  const rows = calendarRows(job, now);
  const planned = schedule({ ...rows, clock: format.clock });
  if (!Array.isArray(planned)) return new Response('These steps cannot be planned: see the calendar.', { status: 422 });
  const open = new Set(rows.steps.flatMap(({ id, is }) => (is.kind === 'worked' ? [] : id)));
  const events = planned.flatMap(({ id, starts, ends }) => {
    const step = job.rows.steps.find((each) => each.id === id)!;
    return open.has(id) ? [{ id, title: format.name(step.title), starts, ends, note: format.name(step.note) }] : [];
  });
  return new Response(writeCalendar(job.row.name, events, now), {
    headers: {
      'content-type': 'text/calendar; charset=utf-8',
      'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(fileName(job.row.name))}.ics`,
    },
  });
}
