import type { PlannedStep } from '@/core/days/calendar/schedule';
import type { CalendarPage, CalendarStep } from '@/core/report/pages/calendar';
import { RUNG_WORD } from '@/core/report/vocabulary/words';

export const LANE_VIEWS = ['people', 'panels', 'steps'] as const;
export type LaneView = (typeof LANE_VIEWS)[number];

/** A lane of the calendar: its steps on as many lines as it takes that none lies over another. */
export interface Lane {
  readonly key: string;
  readonly name: string;
  readonly lines: readonly (readonly PlannedStep[])[];
}

/** The lanes by who does it, by what it is done to, or a step each. */
export function lanesOf(view: LaneView, page: CalendarPage, planned: readonly PlannedStep[]): Lane[] {
  const stepOf = new Map(page.steps.map((each) => [each.step.id, each]));
  const lanes = new Map<string, { name: string; steps: PlannedStep[] }>();
  for (const at of planned) {
    const step = stepOf.get(at.id)!;
    for (const [key, name] of keysOf(view, page, step))
      lanes.set(key, { name, steps: [...(lanes.get(key)?.steps ?? []), at] });
  }
  return [...lanes].map(([key, { name, steps }]) => ({ key, name, lines: linesOf(steps) }));
}

function keysOf(view: LaneView, page: CalendarPage, { step, people }: CalendarStep): [key: string, name: string][] {
  if (view === 'steps') return [[step.id, step.title]];
  if (view === 'panels') {
    const item = page.items.find(({ id }) => id === step.itemId);
    return item ? [[item.id, item.name]] : [[step.rung, RUNG_WORD[step.rung]]];
  }
  const named = page.people.filter(({ id }) => people.includes(id));
  return named.length > 0 ? named.map(({ id, name }) => [id, name]) : [['', 'Nobody named']];
}

function linesOf(steps: readonly PlannedStep[]): PlannedStep[][] {
  const lines: PlannedStep[][] = [];
  for (const step of steps.toSorted((a, b) => a.starts - b.starts)) {
    const free = lines.find((line) => line.at(-1)!.ready <= step.starts);
    if (free) free.push(step);
    else lines.push([step]);
  }
  return lines;
}
