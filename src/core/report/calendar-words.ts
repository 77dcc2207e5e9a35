import type { Cause, NoSchedule } from '../days/calendar/schedule';
import { counted, listed } from './vocabulary/words';

const HOUR = 60;
const DAY = 24 * HOUR;
const WEEK = 7 * DAY;

/** Work, in hours and minutes: `3 h`, `3 h 30`, `45 min`. */
export function workText(minutes: number): string {
  const [hours, rest] = [Math.floor(minutes / HOUR), Math.round(minutes % HOUR)];
  if (hours === 0) return `${rest} min`;
  return rest === 0 ? `${hours} h` : `${hours} h ${String(rest).padStart(2, '0')}`;
}

/** Waiting by the clock: `3 weeks`, `2 days`, `30 h`, `45 min`. */
export function waitText(minutes: number): string {
  if (minutes > 0 && minutes % WEEK === 0) return counted(minutes / WEEK, 'week');
  if (minutes >= 2 * DAY && minutes % DAY === 0) return counted(minutes / DAY, 'day');
  return minutes >= 4 * DAY ? counted(Math.round(minutes / DAY), 'day') : workText(minutes);
}

export interface CalendarNames {
  /** What a step is called. */
  readonly step: (id: string) => string;
  readonly moment: (at: number) => string;
}

/** Why a step does not begin before. */
export function causeText(cause: Cause, { step }: CalendarNames): string {
  switch (cause.kind) {
    case 'need':
      return `It waits for “${step(cause.id)}”.`;
    case 'busy':
      return `Whoever does it is at “${step(cause.id)}” until then.`;
    case 'notBefore':
      return 'It was put there, or its part comes then.';
    case 'kept':
      return 'Earlier it would not keep until what covers it can follow.';
    case 'now':
      return 'It can be begun as soon as somebody is there.';
  }
}

/** Why there is no plan, and what would make one. */
export function noScheduleText(fault: NoSchedule, { step }: CalendarNames): string {
  return fault.kind === 'circle'
    ? `These steps need each other in a circle: ${listed(fault.ids.map((id) => `“${step(id)}”`))}. Take one of the needs out.`
    : `“${step(fault.id)}” finds no time within two years: its people are never there together, or never where noise or weather lets them. Change who does it, or their hours.`;
}

/** How much later something may begin. */
export const slackText = (minutes: number): string =>
  minutes < 1
    ? 'It sets the end: a day later here is a day later there.'
    : `It may begin ${workText(minutes)} of work later.`;

/** Hours booked against what was planned. */
export const bookedText = ({ planned, booked }: { readonly planned: number; readonly booked: number }): string =>
  `Of what is done and was booked: ${workText(booked)}, and ${workText(planned)} were planned.`;

/** What must be covered, and by when. */
export const keepingText = (name: string, until: string, late: boolean): string =>
  late
    ? `“${name}” keeps until ${until}, and what covers it is planned later: bring it forward, or key it and prime anew.`
    : `“${name}” must be covered by ${until}.`;
