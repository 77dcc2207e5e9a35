import { tz, TZDate } from '@date-fns/tz';
import { format, formatISO } from 'date-fns';

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
}

/** @param zone An IANA time zone, such as `Europe/Stockholm`. */
export function shopTime(zone: string): ShopTime {
  const here = { in: tz(zone) };
  return {
    time: (iso) => format(iso, 'HH:mm', here),
    day: (iso) => format(iso, 'd MMM yyyy', here),
    moment: (iso) => format(iso, 'd MMM yyyy, HH:mm', here),
    date: (iso) => formatISO(iso, { ...here, representation: 'date' }),
    instant: (date, hour) => {
      const [year, month, day] = date.split('-').map(Number);
      return new Date(+new TZDate(year!, month! - 1, day!, hour, zone)).toISOString();
    },
  };
}

/** The zone of the machine the program runs on, which stands in the shop; `TZ` in its environment says another. */
export const machineZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone;
