import { MS_PER_DAY, MS_PER_MINUTE } from '../../maths/units/time';

/** The shop's clock, between its calendar and instants; ms since 1970. */
export interface ShopClock {
  /** The instant of a day, `2026-11-04`, at so many minutes after its midnight, as the clock on the wall shows them. */
  at(day: string, minute: number): number;
  /** The day an instant lies in. */
  dayOf(at: number): string;
  /** What the clock on the wall shows at an instant, minutes after midnight. */
  minuteOf(at: number): number;
}

/** When somebody works: days of the week (1 is Monday), and from when until when, minutes after midnight. */
export interface Hours {
  readonly days: readonly number[];
  readonly starts: number;
  readonly ends: number;
}

/** The day after one, by the calendar alone. */
export const dayAfter = (day: string, by = 1): string =>
  new Date(Date.parse(`${day}T00:00:00Z`) + by * MS_PER_DAY).toISOString().slice(0, 10);

/** 1 is Monday. */
export const weekday = (day: string): number => ((new Date(`${day}T00:00:00Z`).getUTCDay() + 6) % 7) + 1;

/** So many days are looked ahead: what does not fit into them does not come to be. */
const AHEAD = 730;

type Span = readonly [from: number, until: number];

/**
 * The instants at which something can be worked at, as spans one after another: hours of the clock on the wall, so that a
 * day on which the clocks change still begins at eight.
 */
export class WorkTime {
  /** Minutes of work before each span. */
  private readonly before: readonly number[];

  private constructor(private readonly spans: readonly Span[]) {
    let sum = 0;
    this.before = spans.map(([from, until]) => {
      const at = sum;
      sum += (until - from) / MS_PER_MINUTE;
      return at;
    });
  }

  /** Somebody's hours from a day on, but on days that are closed. */
  static of(hours: Hours, closed: ReadonlySet<string>, clock: ShopClock, from: number): WorkTime {
    const first = clock.dayOf(from);
    const days = Array.from({ length: AHEAD }, (_, i) => dayAfter(first, i));
    return new WorkTime(
      days
        .filter((day) => hours.days.includes(weekday(day)) && !closed.has(day))
        .map((day): Span => [clock.at(day, hours.starts), clock.at(day, hours.ends)])
        .filter(([starts, ends]) => ends > starts),
    );
  }

  /** When all of some can be worked at together. */
  static together(all: readonly WorkTime[]): WorkTime {
    const [first, ...rest] = all;
    return first ? rest.reduce((a, b) => new WorkTime(common(a.spans, b.spans)), first) : new WorkTime([]);
  }

  /** The span that holds an instant, else the next; as many as there are where it lies beyond all. */
  private spanAt(at: number): number {
    let [low, high] = [0, this.spans.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.spans[middle]![1] <= at) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  /** The first instant of work from one on; undefined where there is none any more. */
  next(at: number): number | undefined {
    const span = this.spans[this.spanAt(at)];
    return span && Math.max(at, span[0]);
  }

  /** When so many minutes are worked that are begun at an instant; undefined where there is no time for them. */
  after(at: number, minutes: number): number | undefined {
    const start = this.next(at);
    if (start === undefined || minutes <= 0) return start;
    let i = this.spanAt(start);
    let left = minutes * MS_PER_MINUTE - (this.spans[i]![1] - start);
    while (left > 0) {
      const span = this.spans[++i];
      if (!span) return undefined;
      left -= span[1] - span[0];
    }
    return this.spans[i]![1] + left;
  }

  /** When so many minutes must be begun at the latest to be worked by an instant; undefined where that was before all work. */
  back(by: number, minutes: number): number | undefined {
    let i = this.spanAt(by);
    // By the beginning of a span is by the end of the one before.
    if (i === this.spans.length || this.spans[i]![0] >= by) i--;
    if (i < 0) return undefined;
    const end = Math.min(by, this.spans[i]![1]);
    let left = minutes * MS_PER_MINUTE - (end - this.spans[i]![0]);
    while (left > 0) {
      const span = this.spans[--i];
      if (!span) return undefined;
      left -= span[1] - span[0];
    }
    return this.spans[i]![0] - left;
  }

  /** Minutes of work between two instants. */
  between(from: number, until: number): number {
    return this.until(until) - this.until(from);
  }

  private until(at: number): number {
    const i = this.spanAt(at);
    const span = this.spans[i];
    if (!span) {
      const last = this.spans.at(-1);
      return last ? this.before.at(-1)! + (last[1] - last[0]) / MS_PER_MINUTE : 0;
    }
    return this.before[i]! + Math.max(0, at - span[0]) / MS_PER_MINUTE;
  }

  /** The spans between two instants, cut off at them: what a bar is drawn of. */
  within(from: number, until: number): Span[] {
    const found: Span[] = [];
    for (let i = this.spanAt(from); i < this.spans.length && this.spans[i]![0] < until; i++)
      found.push([Math.max(from, this.spans[i]![0]), Math.min(until, this.spans[i]![1])]);
    return found;
  }
}

function common(a: readonly Span[], b: readonly Span[]): Span[] {
  const found: Span[] = [];
  for (let i = 0, j = 0; i < a.length && j < b.length;) {
    const from = Math.max(a[i]![0], b[j]![0]);
    const until = Math.min(a[i]![1], b[j]![1]);
    if (until > from) found.push([from, until]);
    if (a[i]![1] < b[j]![1]) i++;
    else j++;
  }
  return found;
}
