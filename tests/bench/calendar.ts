import { schedule, WorkTimes, type CalendarTask, type StepToPlan } from '@/core/days/calendar/schedule';
import { slackOf } from '@/core/days/calendar/slack';
import { seeded } from '@/core/maths/random/seeded';
import { shopClock } from '@/formats/shop-time';
import type { Case } from './case';

const random = seeded(3);
const WORKERS = ['a', 'b', 'c'];
/** Three hundred steps of three people, each needing up to two before it. */
const steps = Array.from({ length: 300 }, (_, i): StepToPlan => {
  const before = () => `s${Math.floor(random.next() * i)}`;
  return {
    ...{ id: `s${i}`, minutes: Math.floor(random.next() * 300), wait: random.next() < 0.2 ? 1440 : 0 },
    needs: i === 0 ? [] : [before(), before()].filter(() => random.next() < 0.6),
    people: [WORKERS[Math.floor(random.next() * WORKERS.length)]!],
    ...{ noise: random.next() < 0.3, outdoor: random.next() < 0.1, is: { kind: 'open' } },
  };
});
const task: CalendarTask = {
  steps,
  workers: WORKERS.map((id) => ({
    ...{ id, hours: { days: [1, 2, 3, 4, 5], starts: 480, ends: 960 }, noise: { starts: 540, ends: 900 } },
  })),
  ...{ closed: [], wet: [], clock: shopClock('Europe/Stockholm'), now: Date.parse('2026-11-27T20:00:00Z') },
};
const times = new WorkTimes(task);

/** The calendar: three hundred steps planned anew, as while one is dragged, and with the slack. */
export const calendar: readonly Case[] = [
  { of: 'calendar', what: '300 steps planned anew', run: () => schedule(task, times) },
  {
    of: 'calendar',
    what: '300 steps, with the slack of each',
    run: () => {
      const planned = schedule(task, times);
      return Array.isArray(planned) ? slackOf(task, planned, times) : planned;
    },
  },
];
