import { tz, TZDate } from '@date-fns/tz';
import { format, formatISO } from 'date-fns';
import { dayAfter, type ShopClock } from '@/core/days/calendar/work-time';
import { MS_PER_DAY, MS_PER_MINUTE } from '@/core/maths/units/time';

/** Days and hours as the shop's own clock and calendar show them. */
export interface ShopTime {
  /** Hour and minute: `14:05`. */
  time(iso: string): string;
  /** `4 Nov 2026`. */
  day(iso: string): string;
  /** Both: `4 Nov 2026, 14:05`. */
  moment(iso: string): string;
  /** The day as a date field holds it: `2026-11-04`. */
  date(iso: string): string;
  /** The instant of a day as a date field holds it, at an hour of the shop; ISO 8601, UTC. */
  instant(date: string, hour: number): string;
  /** What is planned by. */
  readonly clock: ShopClock;
}

/** @param zone An IANA time zone, such as `Europe/Stockholm`. */
export function shopTime(zone: string): ShopTime {
  const here = { in: tz(zone) };
  const clock = shopClock(zone);
  return {
    clock,
    time: (iso) => format(iso, 'HH:mm', here),
    day: (iso) => format(iso, 'd MMM yyyy', here),
    moment: (iso) => format(iso, 'd MMM yyyy, HH:mm', here),
    date: (iso) => formatISO(iso, { ...here, representation: 'date' }),
    instant: (date, hour) => new Date(clock.at(date, 60 * hour)).toISOString(),
  };
}

const CLOCKS = new Map<string, ShopClock>();

/** The same for what is planned by the clock on the wall; one a zone, which remembers when its days begin. */
export function shopClock(zone: string): ShopClock {
  const known = CLOCKS.get(zone) ?? makeClock(zone);
  CLOCKS.set(zone, known);
  return known;
}

function makeClock(zone: string): ShopClock {
  const here = { in: tz(zone) };
  const midnights = new Map<string, number>();
  const shown = (date: string, minute: number): number => {
    const [year, month, day] = date.split('-').map(Number);
    return +new TZDate(year!, month! - 1, day!, Math.floor(minute / 60), minute % 60, zone);
  };
  const midnight = (date: string): number => {
    const known = midnights.get(date) ?? shown(date, 0);
    midnights.set(date, known);
    return known;
  };
  return {
    // Most days are 24 hours long, and on those every hour is where it should be.
    at: (date, minute) =>
      midnight(dayAfter(date)) - midnight(date) === MS_PER_DAY
        ? midnight(date) + minute * MS_PER_MINUTE
        : shown(date, minute),
    dayOf: (at) => formatISO(at, { ...here, representation: 'date' }),
    minuteOf: (at) => {
      const shows = new TZDate(at, zone);
      return shows.getHours() * 60 + shows.getMinutes();
    },
  };
}

/** The zone of the machine the program runs on, which stands in the shop; `TZ` in its environment says another. */
export const machineZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone;
