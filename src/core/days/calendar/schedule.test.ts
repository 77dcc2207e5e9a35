import { describe, expect, it } from 'vitest';
import { seeded } from '../../maths/random/seeded';
import { MS_PER_HOUR, MS_PER_MINUTE } from '../../maths/units/time';
import { schedule, WorkTimes, type CalendarTask, type PlannedStep, type StepToPlan } from './schedule';
import { criticalPath, slackOf } from './slack';
import { today } from './today';
import { firstThings } from './tomorrow';
import type { ShopClock } from './work-time';

/** A shop in which the clock shows universal time. */
const UTC: ShopClock = {
  at: (day, minute) => Date.parse(`${day}T00:00:00Z`) + minute * MS_PER_MINUTE,
  dayOf: (at) => new Date(at).toISOString().slice(0, 10),
  minuteOf: (at) => new Date(at).getUTCHours() * 60 + new Date(at).getUTCMinutes(),
};
/** And one in which clocks go back by an hour at three in the night of 25 October 2026. */
const CHANGE = Date.parse('2026-10-25T01:00:00Z');
const NORTHERN: ShopClock = {
  at: (day, minute) => {
    const summer = UTC.at(day, minute) - 2 * MS_PER_HOUR;
    return summer < CHANGE ? summer : summer + MS_PER_HOUR;
  },
  dayOf: (at) => UTC.dayOf(at + (at < CHANGE ? 2 : 1) * MS_PER_HOUR),
  minuteOf: (at) => UTC.minuteOf(at + (at < CHANGE ? 2 : 1) * MS_PER_HOUR),
};

const WEEK = [1, 2, 3, 4, 5];
const worker = (id: string) => ({ id, hours: { days: WEEK, starts: 8 * 60, ends: 16 * 60 } });
const step = (
  id: string,
  minutes: number,
  needs: readonly string[] = [],
  more: Partial<StepToPlan> = {},
): StepToPlan => ({
  ...{ id, minutes, needs, wait: 0, people: ['Nils'], noise: false, outdoor: false, is: { kind: 'open' } },
  ...more,
});
// A Monday, before work.
const MONDAY = Date.parse('2026-10-19T06:00:00Z');
const task = (steps: readonly StepToPlan[], more: Partial<CalendarTask> = {}): CalendarTask => ({
  ...{ steps, workers: ['Nils', 'Alva', 'Ronja'].map(worker), closed: [], wet: [], clock: UTC, now: MONDAY },
  ...more,
});
const H = 60;

function plan(of: CalendarTask): PlannedStep[] {
  const planned = schedule(of);
  if (!Array.isArray(planned)) throw new Error(JSON.stringify(planned));
  return planned;
}
/** `A Mon 8:00–12:00` */
const told = (of: CalendarTask): string[] =>
  plan(of).map(({ id, starts, ends }) => {
    const says = (at: number) => new Date(at).toISOString().slice(8, 16).replace('T', ' ');
    return `${id} ${says(starts)} – ${says(ends)}`;
  });
const pathOf = (of: CalendarTask) => criticalPath(plan(of)).join(' ');
const slacks = (of: CalendarTask) =>
  Object.fromEntries(slackOf(of, plan(of), new WorkTimes(of)).map(({ id, minutes }) => [id, minutes]));

describe('a calendar', () => {
  it('does one after another, on through nights and a weekend', () => {
    // 8 + 24 + 12 hours of eight a day: Monday, Tuesday to Thursday, Friday and half of the Monday after.
    expect(told(task([step('A', 8 * H), step('B', 24 * H, ['A']), step('C', 12 * H, ['B'])]))).toEqual([
      'A 19 08:00 – 19 16:00',
      'B 20 08:00 – 22 16:00',
      'C 23 08:00 – 26 12:00',
    ]);
  });

  it('finds the critical path and the slack of a network worked by hand', () => {
    // By hand, each by somebody of their own: A 4 h, then B 6 h and C 2 h beside each other, D 3 h after both, E 1 h after C.
    const of = task([
      step('A', 4 * H),
      step('B', 6 * H, ['A']),
      step('C', 2 * H, ['A'], { people: ['Alva'] }),
      step('D', 3 * H, ['B', 'C']),
      step('E', 1 * H, ['C'], { people: ['Ronja'] }),
    ]);
    expect(told(of)).toEqual([
      'A 19 08:00 – 19 12:00',
      'B 19 12:00 – 20 10:00',
      'C 19 12:00 – 19 14:00',
      'D 20 10:00 – 20 13:00',
      'E 19 14:00 – 19 15:00',
    ]);
    expect(pathOf(of)).toBe('A B D');
    // C may end when D begins, 4 h later; E when all ends: from 14:00 to 12:00 the next day, 6 h of work.
    expect(slacks(of)).toEqual({ A: 0, B: 0, C: 4 * H, D: 0, E: 6 * H });
  });

  it('has a shared welder, a closed day and curing in its critical path', () => {
    // By hand: one welder. Both legs want it (left 6 h, right 5 h); the longer way behind it is the left one, whose sealer
    // cures 24 h. Tuesday is closed.
    const shared = { people: ['Nils', 'welder'] };
    const other = { people: ['Alva', 'welder'] };
    const of = task(
      [
        step('right', 5 * H, [], other),
        step('left', 6 * H, [], shared),
        step('seal', 1 * H, ['left'], { wait: 24 * H }),
        step('paint', 2 * H, ['seal']),
        step('dress', 1 * H, ['right'], { people: ['Alva'] }),
      ],
      {
        closed: ['2026-10-20'],
        workers: [...['Nils', 'Alva'].map(worker), { id: 'welder', hours: { days: WEEK, starts: 0, ends: 1440 } }],
      },
    );
    expect(told(of)).toEqual([
      'right 19 14:00 – 21 11:00',
      'left 19 08:00 – 19 14:00',
      'seal 19 14:00 – 19 15:00',
      'paint 21 08:00 – 21 10:00',
      'dress 21 11:00 – 21 12:00',
    ]);
    // It ends with the right leg, which had to wait for the welder, not with the paint.
    expect(pathOf(of)).toBe('left right dress');
    expect(slacks(of)).toMatchObject({ left: 0, right: 0, dress: 0, paint: 2 * H });
  });

  it('lets a day’s curing end an hour earlier by the clock when clocks go back', () => {
    // Sealed on Saturday until 16:00 summer time: 24 h later the clock shows 15:00.
    const weekend = { id: 'Nils', hours: { days: [6, 7], starts: 8 * 60, ends: 16 * 60 } };
    const of = task([step('seal', 8 * H, [], { wait: 24 * H }), step('wax', 1 * H, ['seal'])], {
      clock: NORTHERN,
      now: NORTHERN.at('2026-10-24', 7 * 60),
      workers: [weekend],
    });
    const [seal, wax] = plan(of);
    expect(seal!.ends).toBe(NORTHERN.at('2026-10-24', 16 * 60));
    expect(wax!.starts).toBe(NORTHERN.at('2026-10-25', 15 * 60));
    expect(wax!.starts - seal!.ends).toBe(24 * MS_PER_HOUR);
    // A step of the night through which they go back is as long as it is.
    expect(NORTHERN.at('2026-10-25', 8 * 60) - NORTHERN.at('2026-10-24', 8 * 60)).toBe(25 * MS_PER_HOUR);
  });

  it('waits for a part three weeks out without taking anybody, and others go on meanwhile', () => {
    const of = task([
      step('order', 0, [], { wait: 21 * 24 * H, people: [] }),
      step('fit', 2 * H, ['order']),
      step('brace', 3 * H),
    ]);
    const [order, fit, brace] = plan(of);
    expect(fit!.starts).toBe(UTC.at('2026-11-09', 8 * 60));
    expect(order!.ready).toBe(MONDAY + 21 * 24 * MS_PER_HOUR);
    expect(brace!.starts).toBe(UTC.at('2026-10-19', 8 * 60));
    expect(pathOf(of)).toBe('order fit');
  });

  it('keeps noise to its hours and outdoor work off wet days', () => {
    const loud = { ...worker('Nils'), noise: { starts: 10 * 60, ends: 12 * 60 } };
    const of = task(
      [step('grind', 3 * H, [], { noise: true }), step('wash', 1 * H, [], { outdoor: true, people: ['Alva'] })],
      { workers: [loud, worker('Alva')], wet: ['2026-10-19'] },
    );
    expect(told(of)).toEqual(['grind 19 10:00 – 20 11:00', 'wash 20 08:00 – 20 09:00']);
  });

  it('primes no earlier than what covers it can follow, and says when it is too late all the same', () => {
    // The paint needs a gun that comes on Friday; the primer keeps two days.
    const gun = UTC.at('2026-10-23', 8 * 60);
    const steps = [step('prime', 1 * H, [], { keeps: 48 * H }), step('paint', 2 * H, ['prime'], { notBefore: gun })];
    const [prime, paint] = plan(task(steps));
    expect(paint!.starts).toBe(gun);
    expect(paint!.starts - prime!.ends).toBeLessThanOrEqual(48 * MS_PER_HOUR);
    expect(prime!.cause).toEqual({ kind: 'kept' });
    const worked = { kind: 'worked', at: MONDAY, ready: MONDAY } as const;
    const of = task([{ ...steps[0]!, is: worked }, steps[1]!]);
    const { keeping } = today(of, plan(of), slackOf(of, plan(of), new WorkTimes(of)));
    expect(keeping).toEqual([{ id: 'prime', until: MONDAY + 48 * MS_PER_HOUR, late: true }]);
  });

  it('goes on with what is begun, by what is booked on it, and moves what follows', () => {
    const now = UTC.at('2026-10-19', 13 * 60);
    const is = { kind: 'begun', at: UTC.at('2026-10-19', 8 * 60), booked: 2 * H } as const;
    expect(told(task([step('A', 8 * H, [], { is }), step('B', 1 * H, ['A'])], { now }))).toEqual([
      'A 19 08:00 – 20 11:00',
      'B 20 11:00 – 20 12:00',
    ]);
  });

  it('says what can be begun now, the most pressing first, and what still waits', () => {
    const now = UTC.at('2026-10-19', 9 * 60);
    const cures = { kind: 'worked', at: MONDAY, ready: UTC.at('2026-10-20', 9 * 60) } as const;
    const of = task(
      [
        step('seal', 1 * H, [], { is: cures }),
        step('wax', 1 * H, ['seal']),
        step('tidy', 1 * H, [], { people: ['Ronja'] }),
        step('cut', 8 * H, [], { people: ['Alva'] }),
        step('weld', 24 * H, ['cut'], { people: ['Alva'] }),
      ],
      { now },
    );
    const { can, waiting } = today(of, plan(of), slackOf(of, plan(of), new WorkTimes(of)));
    expect(can.map(({ id }) => id)).toEqual(['cut', 'tidy']);
    expect(waiting).toEqual([{ id: 'seal', until: cures.ready }]);
  });

  it('says what is first tomorrow, for everybody: what goes on, when they are there again', () => {
    // Friday afternoon.
    const now = UTC.at('2026-10-23', 15 * 60);
    const begun = { kind: 'begun', at: UTC.at('2026-10-23', 8 * 60), booked: 0 } as const;
    const of = task(
      [
        step('cut', 8 * H, [], { is: begun }),
        step('weld', 4 * H, ['cut']),
        step('seal', 1 * H, ['cut'], { people: ['Ronja'] }),
      ],
      { now },
    );
    const said = firstThings(of, plan(of)).map(({ worker, id, at, goesOn }) => [
      worker,
      id,
      new Date(at).toISOString(),
      goesOn,
    ]);
    expect(said).toEqual([
      ['Nils', 'cut', '2026-10-26T08:00:00.000Z', true],
      ['Ronja', 'seal', '2026-10-26T15:00:00.000Z', false],
    ]);
  });

  it('names steps that need each other in a circle, and one whose people are never there together', () => {
    expect(schedule(task([step('A', H, ['C']), step('B', H, ['A']), step('C', H, ['B'])]))).toEqual({
      kind: 'circle',
      ids: ['C', 'A', 'B'],
    });
    const night = { id: 'Ronja', hours: { days: WEEK, starts: 20 * 60, ends: 22 * 60 } };
    const of = task([step('A', H, [], { people: ['Nils', 'Ronja'] })], { workers: [worker('Nils'), night] });
    expect(schedule(of)).toEqual({ kind: 'never', id: 'A' });
  });

  it.each([1, 2, 3, 4, 5, 6, 7, 8, 9, 10])(
    'never does two things with the same hands, nor any before its needs (%i)',
    (seed) => {
      const random = seeded(seed);
      const pick = <T>(list: readonly T[]) => list[Math.floor(random.next() * list.length)]!;
      const steps = Array.from({ length: 60 }, (_, i) =>
        step(
          `s${i}`,
          Math.floor(random.next() * 600),
          Array.from({ length: 2 }, () => `s${Math.floor(random.next() * i)}`).filter(
            () => i > 0 && random.next() < 0.6,
          ),
          { people: [pick(['Nils', 'Alva', 'Ronja'])], wait: random.next() < 0.2 ? 1440 : 0 },
        ),
      );
      const of = task(steps);
      const planned = plan(of);
      const at = new Map(planned.map((each) => [each.id, each]));
      for (const { id, needs, people } of steps) {
        for (const need of needs) expect(at.get(id)!.starts).toBeGreaterThanOrEqual(at.get(need)!.ready);
        for (const other of steps)
          if (other.id !== id && other.people[0] === people[0] && other.minutes > 0)
            expect(at.get(id)!.ends <= at.get(other.id)!.starts || at.get(id)!.starts >= at.get(other.id)!.ends).toBe(
              true,
            );
      }
      const late = slackOf(of, planned, new WorkTimes(of));
      for (const { minutes } of late) expect(minutes).toBeGreaterThanOrEqual(0);
      // What sets the end has no slack but what a night leaves behind curing.
      const path = new Set(criticalPath(planned));
      const end = Math.max(...planned.map(({ ready }) => ready));
      for (const { id, latest } of late)
        if (path.has(id) && at.get(id)!.ready === end) expect(latest).toBe(at.get(id)!.starts);
    },
  );
});
