import { SHOP_HOURS } from '../../shell/people';
import { MS_PER_MINUTE } from '../../maths/units/time';
import { circleOf } from './circle';
import { WorkTime, type Hours, type ShopClock } from './work-time';

/** Somebody, or a thing there is one of, that a step takes for itself while it goes on. */
export interface Worker {
  readonly id: string;
  readonly hours: Hours;
  /** When noise may be made; none where that is no matter. */
  readonly noise?: Omit<Hours, 'days'>;
}

/** A step as it is planned, and what came of it so far; instants are ms since 1970. */
export interface StepToPlan {
  readonly id: string;
  /** Work, minutes. */
  readonly minutes: number;
  /** From the end of its work until what needs it can begin: curing, waiting for a part; minutes by the clock. */
  readonly wait: number;
  /** What needs it must be begun so long after its work ends, minutes; none where it keeps. */
  readonly keeps?: number;
  readonly needs: readonly string[];
  /** All of them are taken at once; none: it takes nobody's time, and goes on in the shop's hours. */
  readonly people: readonly string[];
  readonly noise: boolean;
  readonly outdoor: boolean;
  readonly notBefore?: number;
  readonly is: StepIs;
}

export type StepIs =
  | { readonly kind: 'open' }
  /** Begun then, with so many minutes booked on it. */
  | { readonly kind: 'begun'; readonly at: number; readonly booked: number }
  /** Its work ended then, and what needs it can begin at another instant. */
  | { readonly kind: 'worked'; readonly at: number; readonly ready: number };

/** What a step could not begin before. */
export type Cause =
  { readonly kind: 'need' | 'busy'; readonly id: string } | { readonly kind: 'notBefore' | 'now' | 'kept' };

export interface PlannedStep {
  readonly id: string;
  readonly starts: number;
  /** Of its work. */
  readonly ends: number;
  /** When what needs it can begin. */
  readonly ready: number;
  readonly cause: Cause;
}

export type NoSchedule =
  /** Steps that need each other in a circle. */
  | { readonly kind: 'circle'; readonly ids: readonly string[] }
  /** The people of a step are never there together, or not as long as it takes. */
  | { readonly kind: 'never'; readonly id: string };

export interface CalendarTask {
  readonly steps: readonly StepToPlan[];
  readonly workers: readonly Worker[];
  /** Days on which nobody works, and on which nothing is done outdoors. */
  readonly closed: readonly string[];
  readonly wet: readonly string[];
  readonly clock: ShopClock;
  readonly now: number;
}

const ALL_DAY = { starts: 0, ends: 24 * 60 };

/** When every step can be worked at; those of the same people in the same hours are worked out once. */
export class WorkTimes {
  private readonly known = new Map<string, WorkTime>();
  private readonly ofStep = new WeakMap<object, WorkTime>();
  private readonly ofHours = new Map<string, WorkTime>();
  constructor(private readonly task: Omit<CalendarTask, 'steps'>) {}

  of(step: Pick<StepToPlan, 'people' | 'noise' | 'outdoor'>): WorkTime {
    const known = this.ofStep.get(step) ?? this.find(step);
    this.ofStep.set(step, known);
    return known;
  }

  private find({ people, noise, outdoor }: Pick<StepToPlan, 'people' | 'noise' | 'outdoor'>): WorkTime {
    const key = `${[...people].sort().join()} ${noise} ${outdoor}`;
    const known = this.known.get(key) ?? this.make(people, noise, outdoor);
    this.known.set(key, known);
    return known;
  }

  private make(people: readonly string[], noise: boolean, outdoor: boolean): WorkTime {
    const { workers } = this.task;
    const some = workers.filter(({ id }) => people.includes(id));
    const hours = some.length > 0 ? some.map((each) => each.hours) : [SHOP_HOURS];
    const quiet = noise ? some.flatMap((each) => each.noise ?? []).map((each) => ({ ...ALL_DAYS, ...each })) : [];
    return WorkTime.together([...hours, ...quiet].map((each) => this.hours(each, outdoor)));
  }

  private hours(hours: Hours, outdoor: boolean): WorkTime {
    const { closed, wet, clock, now } = this.task;
    const key = `${hours.days.join()} ${hours.starts} ${hours.ends} ${outdoor}`;
    const known =
      this.ofHours.get(key) ?? WorkTime.of(hours, new Set(outdoor ? [...closed, ...wet] : closed), clock, now);
    this.ofHours.set(key, known);
    return known;
  }
}

const ALL_DAYS: Hours = { days: [1, 2, 3, 4, 5, 6, 7], ...ALL_DAY };

/** The steps that need each step. */
export function neededBy(steps: readonly StepToPlan[]): ReadonlyMap<string, readonly string[]> {
  const found = new Map<string, string[]>(steps.map(({ id }) => [id, []]));
  for (const { id, needs } of steps) for (const need of new Set(needs)) found.get(need)?.push(id);
  return found;
}

/** So often what keeps only for a while is begun later, so that what needs it comes in time. */
const LATER = 8;

/**
 * Plans every step as early as it can be, by the serial scheme: of the steps whose needs are planned, that with the longest
 * way still behind it takes the first time at which all its people are free (Kolisch, Hartmann: Heuristic algorithms for the
 * resource-constrained project scheduling problem, 1999). What keeps only for a while is then begun as late as it may be.
 *
 * @param times of the same task: worked out once where many plans of it are made
 */
export function schedule(task: CalendarTask, times = new WorkTimes(task)): PlannedStep[] | NoSchedule {
  const after = neededBy(task.steps);
  const circle = circleOf(task.steps.flatMap(({ id, needs }) => needs.map((needsId) => ({ stepId: id, needsId }))));
  if (circle) return { kind: 'circle', ids: circle };
  const tails = tailsOf(task.steps, after);
  const later = new Map<string, number>();
  for (let round = 0; ; round++) {
    const planned = forward(task, times, { tails, after }, later);
    if (!Array.isArray(planned) || round === LATER) return planned;
    if (!putOff(task, times, planned, after, later)) return planned;
  }
}

/** The longest way from every step to the end, minutes of work and waiting; of steps that go in no circle. */
function tailsOf(steps: readonly StepToPlan[], after: ReadonlyMap<string, readonly string[]>): readonly number[] {
  const stepOf = new Map(steps.map((step) => [step.id, step]));
  const tails = new Map<string, number>();
  const tail = (id: string): number => {
    const { minutes, wait } = stepOf.get(id)!;
    const known = tails.get(id) ?? minutes + wait + Math.max(0, ...after.get(id)!.map(tail));
    tails.set(id, known);
    return known;
  };
  return steps.map(({ id }) => tail(id));
}

function forward(
  { steps, now }: CalendarTask,
  times: WorkTimes,
  { tails, after }: { readonly tails: readonly number[]; readonly after: ReadonlyMap<string, readonly string[]> },
  later: ReadonlyMap<string, number>,
): PlannedStep[] | NoSchedule {
  const planned = new Map<string, PlannedStep>();
  const busy = new Map<string, PlannedStep[]>();
  const put = (step: StepToPlan, at: PlannedStep) => {
    planned.set(step.id, at);
    for (const worker of step.people) {
      const own = busy.get(worker) ?? [];
      own.splice(firstAfter(own, at.starts), 0, at);
      busy.set(worker, own);
    }
  };
  const inOrder = steps.map((step, i) => ({ step, tail: tails[i]! })).toSorted((a, b) => b.tail - a.tail);
  // What is begun takes its people first, and what was worked at is where it was.
  for (const { step } of inOrder) {
    const { id, is, minutes, wait } = step;
    if (is.kind === 'worked')
      planned.set(id, { id, starts: is.at, ends: is.at, ready: is.ready, cause: { kind: 'now' } });
    if (is.kind !== 'begun') continue;
    const ends = times.of(step).after(now, Math.max(0, minutes - is.booked));
    if (ends === undefined) return { kind: 'never', id };
    put(step, { id, starts: is.at, ends, ready: ends + wait * MS_PER_MINUTE, cause: { kind: 'now' } });
  }
  const waiting = inOrder.flatMap(({ step }) => (planned.has(step.id) ? [] : step));
  const known = new Set(steps.map(({ id }) => id));
  const lacking = new Map(
    waiting.map(({ id, needs }) => [
      id,
      [...new Set(needs)].filter((need) => known.has(need) && !planned.has(need)).length,
    ]),
  );
  while (waiting.length > 0) {
    const [step] = waiting.splice(
      waiting.findIndex(({ id }) => lacking.get(id) === 0),
      1,
    );
    const at = firstTime(step!, times.of(step!), earliest(step!, planned, later.get(step!.id), now), busy);
    if (!at) return { kind: 'never', id: step!.id };
    put(step!, at);
    for (const next of after.get(step!.id)!) lacking.set(next, lacking.get(next)! - 1);
  }
  return steps.map(({ id }) => planned.get(id)!);
}

/** From one step on the first of those one after another behind which there are so many minutes. */
function lastWithout(steps: readonly PlannedStep[], from: number, minutes: number): PlannedStep {
  let i = from;
  while (i + 1 < steps.length && steps[i + 1]!.starts - steps[i]!.ends < minutes * MS_PER_MINUTE) i++;
  return steps[i]!;
}

/** Where among steps one after another the first stands that ends after an instant. */
function firstAfter(steps: readonly PlannedStep[], at: number): number {
  let [low, high] = [0, steps.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (steps[middle]!.ends <= at) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** The instant before which a step cannot begin, and why. */
function earliest(
  { needs, notBefore }: StepToPlan,
  planned: ReadonlyMap<string, PlannedStep>,
  later: number | undefined,
  now: number,
): { readonly at: number; readonly cause: Cause } {
  let found: { at: number; cause: Cause } = { at: now, cause: { kind: 'now' } };
  const take = (at: number | undefined, cause: Cause) => {
    if (at !== undefined && at > found.at) found = { at, cause };
  };
  for (const id of needs) take(planned.get(id)?.ready, { kind: 'need', id });
  take(notBefore, { kind: 'notBefore' });
  take(later, { kind: 'kept' });
  return found;
}

/** The first time at which all its people are there and free for as long as it takes. */
function firstTime(
  { id, minutes, wait, people }: StepToPlan,
  time: WorkTime,
  from: { readonly at: number; readonly cause: Cause },
  busy: ReadonlyMap<string, readonly PlannedStep[]>,
): PlannedStep | undefined {
  let { at, cause } = from;
  const others = people.map((worker) => busy.get(worker) ?? []);
  for (;;) {
    // What takes no work, as a part on order, begins at once, also at night.
    const starts = minutes > 0 ? time.next(at) : at;
    const ends = starts === undefined ? undefined : minutes > 0 ? time.after(starts, minutes) : starts;
    if (starts === undefined || ends === undefined) return undefined;
    const [other] = others.flatMap((own) => {
      const first = firstAfter(own, starts);
      return own[first] && own[first].starts < ends ? lastWithout(own, first, minutes) : [];
    });
    if (!other) return { id, starts, ends, ready: ends + wait * MS_PER_MINUTE, cause };
    at = other.ends;
    cause = { kind: 'busy', id: other.id };
  }
}

/** Begins what keeps only for a while later, where what needs it comes too late; whether there was any such. */
function putOff(
  { steps }: CalendarTask,
  times: WorkTimes,
  planned: readonly PlannedStep[],
  after: ReadonlyMap<string, readonly string[]>,
  later: Map<string, number>,
): boolean {
  const of = new Map(planned.map((each) => [each.id, each]));
  let some = false;
  for (const step of steps) {
    const at = of.get(step.id)!;
    const late = lateBy(step, at, after, of);
    if (late <= 0 || step.is.kind !== 'open') continue;
    const time = times.of(step);
    const end = time.next(at.ends + late * MS_PER_MINUTE);
    if (end === undefined) continue;
    const back = time.back(end, step.minutes);
    // Ended the evening before it is too early still: it is begun in the morning.
    const starts = back !== undefined && time.after(back, step.minutes)! >= end ? back : end;
    if (starts <= at.starts) continue;
    later.set(step.id, starts);
    some = true;
  }
  return some;
}

/** How long after it stopped keeping the last of what needs it begins, minutes; not above 0 where all is in time. */
export function lateBy(
  { id, keeps }: StepToPlan,
  { ends }: PlannedStep,
  after: ReadonlyMap<string, readonly string[]>,
  planned: ReadonlyMap<string, PlannedStep>,
): number {
  if (keeps === undefined) return 0;
  const begins = (after.get(id) ?? []).map((next) => planned.get(next)!.starts);
  return begins.length === 0 ? 0 : (Math.max(...begins) - ends) / MS_PER_MINUTE - keeps;
}
