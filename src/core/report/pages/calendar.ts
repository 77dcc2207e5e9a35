import { calendarRows, curedIn, type CalendarRows } from '../../days/calendar/task';
import { schedule } from '../../days/calendar/schedule';
import { firstThings } from '../../days/calendar/tomorrow';
import type { ShopClock } from '../../days/calendar/work-time';
import { isFinished, ladderOf, type LadderStep } from '../../days/ladder';
import type { ClosedDay, Person, Timer } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';

/** A step on its place in the calendar: what is said of it, and what was booked on it. */
export interface CalendarStep extends LadderStep {
  readonly needs: readonly string[];
  readonly people: readonly string[];
  /** Minutes worked on it. */
  readonly booked: number;
  /** What it waits, at the warmth that is said, minutes. */
  readonly wait: number;
}

/** What the calendar is drawn and planned of. */
export interface CalendarPage {
  readonly rows: CalendarRows;
  /** In the order of the ladder, also those that are dropped. */
  readonly steps: readonly CalendarStep[];
  /** What a step can be about. */
  readonly items: readonly { readonly id: string; readonly code: string; readonly name: string }[];
  readonly people: readonly Person[];
  readonly closedDays: readonly ClosedDay[];
  /** That nobody has heard yet. */
  readonly timers: readonly Timer[];
}

/** @param now ms since 1970 */
export function calendarPage(job: Job, now: number): CalendarPage {
  const { rows } = job;
  return {
    rows: calendarRows(job, now),
    steps: ladderOf(job)
      .rungs.flatMap((rung) => rung.steps)
      .map((each) => ({
        ...each,
        needs: rows.stepNeeds.flatMap(({ stepId, needsId }) => (stepId === each.step.id ? [needsId] : [])),
        people: rows.stepPeople.flatMap(({ stepId, personId }) => (stepId === each.step.id ? [personId] : [])),
        booked: rows.bookings.reduce((sum, { stepId, minutes }) => (stepId === each.step.id ? sum + minutes : sum), 0),
        wait: curedIn(each.step.waits ?? 0, each.step.curesAt),
      })),
    items: rows.workItems
      .filter(({ id, kind }) => kind !== 'setUp' && kind !== 'stage' && !job.withdrawal(id))
      .map(({ id, code, name }) => ({ id, code, name: [...panelOf(job, id), name].join(', ') })),
    people: rows.people,
    closedDays: rows.closedDays,
    timers: openTimers(job),
  };
}

/** The panel that a joint of the cut plan is of; none where the item is no joint. */
const panelOf = (job: Job, itemId: string): readonly string[] =>
  job.rows.joints.flatMap(({ id, panelId }) => (id === itemId ? [job.item(panelId).name] : []));

/** What somebody does first on their next day, in words that a page can show. */
export interface TomorrowFirst {
  /** Empty where nobody is named for it. */
  readonly who: string;
  readonly title: string;
  readonly at: string;
  readonly goesOn: boolean;
}

/**
 * What is first tomorrow, for everybody; nothing where nobody said yet how long anything takes, or where it cannot be planned.
 *
 * @param now ms since 1970
 */
export function tomorrowFirst(job: Job, now: number, clock: ShopClock): TomorrowFirst[] {
  if (job.rows.steps.every(({ minutes }) => minutes === null)) return [];
  const task = { ...calendarRows(job, now), clock };
  const planned = schedule(task);
  if (!Array.isArray(planned)) return [];
  return firstThings(task, planned).map(({ worker, id, at, goesOn }) => ({
    who: job.rows.people.find((each) => each.id === worker)?.name ?? '',
    title: job.rows.steps.find((step) => step.id === id)!.title,
    at: new Date(at).toISOString(),
    goesOn,
  }));
}

export const openTimers = (job: Job): readonly Timer[] => job.rows.timers.filter(({ heardAt }) => heardAt === null);

/** Hours booked against what was planned, of the steps that are finished, minutes. */
export function bookedAgainstPlan(steps: readonly CalendarStep[]): {
  readonly planned: number;
  readonly booked: number;
} {
  const finished = steps.filter((each) => isFinished(each) && each.booked > 0 && each.step.minutes !== null);
  return {
    planned: finished.reduce((sum, { step }) => sum + step.minutes!, 0),
    booked: finished.reduce((sum, { booked }) => sum + booked, 0),
  };
}
