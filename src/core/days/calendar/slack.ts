import { MS_PER_MINUTE } from '../../maths/units/time';
import { neededBy, type CalendarTask, type PlannedStep, type StepToPlan, type WorkTimes } from './schedule';

/** How much later a step may begin without the last of them ending later. */
export interface Slack {
  readonly id: string;
  /** The latest instant, ms since 1970. */
  readonly latest: number;
  /** Minutes of its people's work until then. */
  readonly minutes: number;
}

/**
 * The latest beginning of every step, backwards from the end: before what needs it, its waiting between, and before what
 * its people do after it in this plan (Kelley, Critical-path planning and scheduling: mathematical basis, 1961; the order of
 * a worker's steps is taken as it is planned).
 */
export function slackOf({ steps }: CalendarTask, planned: readonly PlannedStep[], times: WorkTimes): Slack[] {
  const end = Math.max(...planned.map(({ ready }) => ready));
  const at = new Map(planned.map((each) => [each.id, each]));
  const after = neededBy(steps);
  const next = afterwards(steps, at);
  const stepOf = new Map(steps.map((step) => [step.id, step]));
  const latest = new Map<string, number>();
  const late = (id: string): number => {
    const known = latest.get(id) ?? latestOf(stepOf.get(id)!);
    latest.set(id, known);
    return known;
  };
  const latestOf = (step: StepToPlan): number => {
    const { id, wait, minutes } = step;
    const { starts } = at.get(id)!;
    if (step.is.kind !== 'open') return starts;
    const needed = after.get(id)!;
    const ready = needed.length > 0 ? Math.min(...needed.map(late)) : end;
    const ends = Math.min(ready - wait * MS_PER_MINUTE, ...(next.get(id) ?? []).map(late));
    return Math.max(starts, minutes > 0 ? (times.of(step).back(ends, minutes) ?? starts) : ends);
  };
  return steps.map((step) => {
    const { id } = step;
    return { id, latest: late(id), minutes: times.of(step).between(at.get(id)!.starts, late(id)) };
  });
}

/** What each worker of a step does next after it. */
function afterwards(steps: CalendarTask['steps'], at: ReadonlyMap<string, PlannedStep>): Map<string, string[]> {
  const next = new Map<string, string[]>();
  const workers = new Set(steps.flatMap(({ people }) => people));
  for (const worker of workers) {
    const own = steps
      .filter(({ people, is, minutes }) => people.includes(worker) && is.kind !== 'worked' && minutes > 0)
      .toSorted((a, b) => at.get(a.id)!.starts - at.get(b.id)!.starts);
    own.slice(1).forEach(({ id }, i) => next.set(own[i]!.id, [...(next.get(own[i]!.id) ?? []), id]));
  }
  return next;
}

/**
 * The steps that set the end, from the first: each could not begin before the one before it was over, or before its people
 * were free of it.
 */
export function criticalPath(planned: readonly PlannedStep[]): string[] {
  const at = new Map(planned.map((each) => [each.id, each]));
  const path: string[] = [];
  let last = planned.reduce<PlannedStep | undefined>((a, b) => (a && a.ready >= b.ready ? a : b), undefined);
  while (last) {
    path.unshift(last.id);
    last = 'id' in last.cause ? at.get(last.cause.id) : undefined;
  }
  return path;
}
