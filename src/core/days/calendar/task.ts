import { MS_PER_MINUTE } from '../../maths/units/time';
import type { Person, Step } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { byLadder } from '../../shell/job/ladder-order';
import { ladderOf, type LadderStep } from '../ladder';
import type { CalendarTask, StepIs, StepToPlan, Worker } from './schedule';

/** A calendar's task but for the clock, which a page brings itself. */
export type CalendarRows = Omit<CalendarTask, 'clock'>;

/** A step of which nobody said how long it takes, min. */
export const UNSAID_MINUTES = 60;

/**
 * How long something cures where it is so warm: half as long for every 10 °C more (van 't Hoff's rule of thumb, Études de
 * dynamique chimique, 1884, which puts the factor between 2 and 3). The maker's sheet rules.
 *
 * @param minutes at 20 °C
 * @param degrees °C; empty where warmth is no matter
 */
export const curedIn = (minutes: number, degrees: number | null): number =>
  degrees === null ? minutes : minutes * 2 ** ((20 - degrees) / 10);

/** The steps of a job as its calendar plans them; what was dropped is left out, and what needed it needs what it needed. */
export function calendarRows(job: Job, now: number): CalendarRows {
  const steps = ladderOf(job)
    .rungs.flatMap((rung) => rung.steps)
    .toSorted((a, b) => byLadder(a.step, b.step));
  const needs = needsThrough(job, steps);
  const people = job.rows.people.filter(({ retiredAt }) => retiredAt === null);
  return {
    now,
    workers: people.map(workerOf),
    closed: job.rows.closedDays.flatMap(({ kind, day }) => (kind === 'closed' ? day : [])),
    wet: job.rows.closedDays.flatMap(({ kind, day }) => (kind === 'wet' ? day : [])),
    steps: steps
      .filter(({ state }) => state !== 'dropped')
      .map((each) => ({
        ...toPlan(job, each),
        needs: needs.get(each.step.id)!,
        people: job.rows.stepPeople.flatMap(({ stepId, personId }) =>
          stepId === each.step.id && people.some(({ id }) => id === personId) ? [personId] : [],
        ),
      })),
  };
}

const workerOf = ({ id, kind, days, starts, ends, noiseStarts, noiseEnds }: Person): Worker =>
  kind === 'tool'
    ? { id, hours: { days: [1, 2, 3, 4, 5, 6, 7], starts: 0, ends: 1440 } }
    : { id, hours: { days, starts, ends }, noise: { starts: noiseStarts, ends: noiseEnds } };

/** What every step needs that was not dropped. */
function needsThrough(job: Job, steps: readonly LadderStep[]): Map<string, readonly string[]> {
  const dropped = new Set(steps.filter(({ state }) => state === 'dropped').map(({ step }) => step.id));
  const own = (id: string) => job.rows.stepNeeds.flatMap((need) => (need.stepId === id ? [need.needsId] : []));
  const through = (id: string, seen: readonly string[]): string[] =>
    own(id).flatMap((need) =>
      !dropped.has(need) ? [need] : seen.includes(need) ? [] : through(need, [...seen, need]),
    );
  return new Map(steps.map(({ step: { id } }) => [id, [...new Set(through(id, [id]))]]));
}

function toPlan(job: Job, { step, state, event }: LadderStep): Omit<StepToPlan, 'needs' | 'people'> {
  const wait = curedIn(step.waits ?? 0, step.curesAt);
  const later = [
    ...(step.notBefore === null ? [] : [Date.parse(step.notBefore)]),
    ...(state === 'missing' && event?.until ? [Date.parse(event.until)] : []),
  ];
  return {
    ...{ id: step.id, minutes: step.minutes ?? UNSAID_MINUTES, wait, noise: step.noise, outdoor: step.outdoor },
    ...(step.keeps === null ? {} : { keeps: curedIn(step.keeps, step.curesAt) }),
    ...(later.length > 0 ? { notBefore: Math.max(...later) } : {}),
    is: whereIs(job, step, { state, wait, ...(event ? { event } : {}) }),
  };
}

function whereIs(
  job: Job,
  { id, minutes }: Step,
  { state, event, wait }: Pick<LadderStep, 'state' | 'event'> & { readonly wait: number },
): StepIs {
  if (!event || state === 'open') return { kind: 'open' };
  const at = Date.parse(event.at);
  // A part on order is no work: it is waited for until the day that was said.
  if (state === 'missing')
    return minutes === 0 && event.until ? { kind: 'worked', at, ready: Date.parse(event.until) } : { kind: 'open' };
  if (state === 'begun')
    return {
      ...{ kind: 'begun', at },
      booked: job.rows.bookings.reduce(
        (sum, each) => (each.stepId === id && each.at >= event.at ? sum + each.minutes : sum),
        0,
      ),
    };
  const ready = at + wait * MS_PER_MINUTE;
  if (state === 'curing') return { kind: 'worked', at, ready: event.until ? Date.parse(event.until) : ready };
  // Whoever said that it cures, and then that it is done, means that it is cured.
  const cured = job.stepEvents.some((each) => each.stepId === id && each.kind === 'curing');
  return { kind: 'worked', at, ready: cured ? at : ready };
}
