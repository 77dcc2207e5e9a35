import { MS_PER_MINUTE } from '../../maths/units/time';
import { lateBy, neededBy, type CalendarTask, type PlannedStep } from './schedule';
import type { Slack } from './slack';

/** What is up with a calendar at its moment. */
export interface Today {
  /** Steps that can be begun now, the most pressing first. */
  readonly can: readonly { readonly id: string; readonly slack: number }[];
  /** Steps whose work is done and that still wait, with when they are over. */
  readonly waiting: readonly { readonly id: string; readonly until: number }[];
  /** What keeps only for a while: until when what needs it must be begun, and whether the plan is too late for it. */
  readonly keeping: readonly { readonly id: string; readonly until: number; readonly late: boolean }[];
}

/** What can be begun now, what waits, and what must not wait longer. */
export function today(task: CalendarTask, planned: readonly PlannedStep[], slacks: readonly Slack[]): Today {
  const at = new Map(planned.map((each) => [each.id, each]));
  const slack = new Map(slacks.map((each) => [each.id, each.minutes]));
  const after = neededBy(task.steps);
  const { now } = task;
  const isOpen = new Set(task.steps.filter(({ is }) => is.kind === 'open').map(({ id }) => id));
  const ready = (id: string) => (at.get(id)?.ready ?? now) <= now && !isOpen.has(id);
  const can = task.steps
    .filter(({ id, needs, notBefore }) => isOpen.has(id) && needs.every(ready) && (notBefore ?? now) <= now)
    .map(({ id }) => ({ id, slack: slack.get(id)! }));
  const waiting = task.steps.flatMap(({ id, is }) =>
    is.kind === 'worked' && is.ready > now ? [{ id, until: is.ready }] : [],
  );
  const keeping = task.steps.flatMap((step) => {
    const open = (after.get(step.id) ?? []).some((next) => isOpen.has(next));
    const here = at.get(step.id)!;
    const past = step.is.kind === 'worked' || lateBy(step, here, after, at) > 0;
    if (step.keeps === undefined || !open || !past) return [];
    return [
      {
        id: step.id,
        until: here.ends + step.keeps * MS_PER_MINUTE,
        late: lateBy(step, here, after, at) > 0,
      },
    ];
  });
  return {
    can: can.toSorted((a, b) => a.slack - b.slack),
    waiting: waiting.toSorted((a, b) => a.until - b.until),
    keeping: keeping.toSorted((a, b) => a.until - b.until),
  };
}
