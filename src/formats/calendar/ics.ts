import ICAL from 'ical.js';
import { dayAfter } from '@/core/days/calendar/work-time';
import { MS_PER_DAY } from '@/core/maths/units/time';
import type { Parsed } from '../faults';

/** Something that is planned, as other calendars show it; instants are ms since 1970. */
export interface PlannedEvent {
  readonly id: string;
  readonly title: string;
  readonly starts: number;
  readonly ends: number;
  readonly note: string;
}

const utc = (at: number): ICAL.Time => ICAL.Time.fromJSDate(new Date(at), true);

/** Events as an iCalendar document (RFC 5545). */
export function writeCalendar(name: string, events: readonly PlannedEvent[], madeAt: number): string {
  const calendar = new ICAL.Component('vcalendar');
  calendar.updatePropertyWithValue('version', '2.0');
  calendar.updatePropertyWithValue('prodid', '-//Vinkel//calendar of a job//EN');
  calendar.updatePropertyWithValue('x-wr-calname', name);
  for (const { id, title, starts, ends, note } of events) {
    const component = new ICAL.Component('vevent');
    const event = new ICAL.Event(component);
    event.uid = id;
    event.summary = title;
    event.description = note;
    event.startDate = utc(starts);
    event.endDate = utc(ends);
    component.updatePropertyWithValue('dtstamp', utc(madeAt));
    calendar.addSubcomponent(component);
  }
  return `${calendar.toString()}\r\n`;
}

/** A day on which nobody works, as another calendar says. */
export interface ReadDay {
  readonly day: string;
  readonly name: string;
}

const refused = (message: string): Parsed<never> => ({ ok: false, faults: [{ path: 'file', message }] });

/** So many days of one repeated event are read. */
const MOST_DAYS = 400;

/**
 * The days that the whole-day events of an iCalendar document cover, those that come again with them, within a span.
 *
 * @param from first day, `2026-11-04`
 * @param until last day
 */
export function readClosedDays(text: string, from: string, until: string): Parsed<ReadDay[]> {
  let calendar: ICAL.Component;
  try {
    calendar = new ICAL.Component(ICAL.parse(text) as unknown as string);
  } catch {
    return refused('this is no calendar: give the .ics file that a calendar exports');
  }
  const days = new Map<string, string>();
  try {
    for (const component of calendar.getAllSubcomponents('vevent')) {
      const event = new ICAL.Event(component);
      if (!event.startDate.isDate) continue;
      for (const first of occurrences(event, until))
        for (const day of daysFrom(first, event.duration.toSeconds() * 1000))
          if (day >= from && day <= until) days.set(day, event.summary || 'closed');
    }
  } catch (error) {
    return refused(`an event of it cannot be read: ${error instanceof Error ? error.message : String(error)}`);
  }
  if (days.size === 0)
    return refused(`it holds no whole day between ${from} and ${until}: days off are events that last all day`);
  return { ok: true, value: [...days].map(([day, name]) => ({ day, name })).sort((a, b) => (a.day < b.day ? -1 : 1)) };
}

function occurrences(event: ICAL.Event, until: string): string[] {
  if (!event.isRecurring()) return [event.startDate.toString()];
  const found: string[] = [];
  const next = event.iterator();
  for (let i = 0; i < MOST_DAYS; i++) {
    const at = next.next() as ICAL.Time | null;
    if (!at || at.toString() > until) break;
    found.push(at.toString());
  }
  return found;
}

const daysFrom = (first: string, ms: number): string[] =>
  Array.from({ length: Math.min(MOST_DAYS, Math.max(1, Math.round(ms / MS_PER_DAY))) }, (_, i) => dayAfter(first, i));
