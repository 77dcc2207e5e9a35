import { dayAfter, type ShopClock } from '@/core/days/calendar/work-time';

/** The hours of a day that have width on the axis, minutes after midnight: nights have none. */
const MORNING = 6 * 60;
const EVENING = 19 * 60;

/** Time along a line: every day as wide as another, its night between two of them. */
export interface Axis {
  readonly days: readonly string[];
  /** Of a day, px. */
  readonly width: number;
  x(at: number): number;
  /** The instant at a place, to a quarter of an hour. */
  at(x: number): number;
}

const QUARTER = 15;

/** From the day of one instant to that of another. */
export function axisOf(clock: ShopClock, from: number, until: number, width: number): Axis {
  const [first, last] = [clock.dayOf(from), clock.dayOf(until)];
  const days = [first];
  while (days.at(-1)! < last) days.push(dayAfter(days.at(-1)!));
  const place = new Map(days.map((day, i) => [day, i]));
  return {
    days,
    width,
    x: (at) => {
      const day = clock.dayOf(at);
      const share = Math.min(1, Math.max(0, (clock.minuteOf(at) - MORNING) / (EVENING - MORNING)));
      return ((place.get(day) ?? (day < first ? 0 : days.length - 1)) + share) * width;
    },
    at: (x) => {
      const i = Math.min(days.length - 1, Math.max(0, Math.floor(x / width)));
      const minute = MORNING + Math.min(1, Math.max(0, x / width - i)) * (EVENING - MORNING);
      return clock.at(days[i]!, Math.round(minute / QUARTER) * QUARTER);
    },
  };
}
