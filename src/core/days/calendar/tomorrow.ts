import { dayAfter } from './work-time';
import { WorkTimes, type CalendarTask, type PlannedStep } from './schedule';

/** What somebody does first on their next day. */
export interface FirstThing {
  /** Who, by their identity; empty where nobody is named for it. */
  readonly worker: string;
  readonly id: string;
  /** ms since 1970 */
  readonly at: number;
  /** It was begun before. */
  readonly goesOn: boolean;
}

/** For everybody what is first from the next midnight on, whoever begins first before the others. */
export function firstThings(task: CalendarTask, planned: readonly PlannedStep[]): FirstThing[] {
  const { steps, clock, now } = task;
  const times = new WorkTimes(task);
  const stepOf = new Map(steps.map((step) => [step.id, step]));
  const midnight = clock.at(dayAfter(clock.dayOf(now)), 0);
  const at = new Map(planned.map((each) => [each.id, each]));
  const open = steps.filter(({ is, minutes }) => is.kind !== 'worked' && minutes > 0);
  const workers = new Set(open.flatMap(({ people }) => (people.length > 0 ? people : [''])));
  return [...workers]
    .flatMap((worker): FirstThing[] => {
      const own = open
        .filter(({ people }) => (worker === '' ? people.length === 0 : people.includes(worker)))
        .map(({ id }) => at.get(id)!)
        .filter(({ ends }) => ends > midnight)
        .toSorted((a, b) => a.starts - b.starts);
      const [first] = own;
      if (!first) return [];
      const goesOn = first.starts < midnight;
      // It goes on when its people are there again, not at midnight.
      const begins = goesOn ? (times.of(stepOf.get(first.id)!).next(midnight) ?? midnight) : first.starts;
      return [{ worker, id: first.id, at: begins, goesOn }];
    })
    .toSorted((a, b) => a.at - b.at);
}
