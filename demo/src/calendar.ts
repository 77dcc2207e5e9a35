import { chained } from '@/core/shell/job/ladder-order';
import { NEW_STEP, type Person, type Rung, type Step } from '@/core/shell/job/entities';
import type { JobBuilder } from './builder';

const HOURS = { days: [1, 2, 3, 4, 5], starts: 8 * 60, ends: 16 * 60 + 30, noiseStarts: 9 * 60, noiseEnds: 15 * 60 };
const person = (n: number, name: string, more: Partial<Person> = {}): Person => ({
  ...{
    id: `00000000-0000-4000-8000-000000000a0${n}`,
    name,
    kind: 'person',
    ...HOURS,
    retiredAt: null,
    roles: [],
    owner: false,
  },
  ...more,
});
/** Alva has the office besides, and Ronja comes three days a week. */
const PEOPLE = {
  alva: person(1, 'Alva', { starts: 9 * 60, ends: 14 * 60 }),
  nils: person(2, 'Nils'),
  ronja: person(3, 'Ronja', { days: [2, 3, 4] }),
  welder: person(4, 'The welder', {
    kind: 'tool',
    days: [1, 2, 3, 4, 5, 6, 7],
    starts: 0,
    ends: 1440,
    noiseStarts: 0,
    noiseEnds: 1440,
  }),
} as const;
type Who = keyof typeof PEOPLE;

const H = 60;
const DAY = 24 * H;

interface Said extends Partial<
  Pick<Step, 'minutes' | 'waits' | 'curesAt' | 'keeps' | 'tendEvery' | 'noise' | 'outdoor'>
> {
  readonly who?: readonly Who[];
  /** Titles of what it needs; what stands before it on the ladder where nothing is said. */
  readonly after?: readonly string[];
  readonly about?: string;
}

const FLOOR = 'Left sill panel and rear floor section';
const LEG = 'Rust dissolver on the left rear chassis leg';
const CUT = 'Scribe and label the cut lines, then cut';
const PULL = 'Pull back what moved';
const FIT = 'Fit the new panels dry, doors hung';
const PRIME = 'Strip the closed faces of the sill and prime them';
const WELD = 'Weld, measuring tacked and after each side';
const SEAL = 'Seal the seams of sill and floor';
const WAX = 'Cavity wax into the sill';
const COLD = 'Measure cold, on the same support';
const RINSE = 'Wash the shell down outdoors';

/** What the estate's steps take, and what they wait for. */
const ESTATE: Readonly<Record<string, Said>> = {
  'Fit the braces and measure again': { minutes: 5 * H, who: ['nils', 'ronja'] },
  [CUT]: { minutes: 9 * H, who: ['nils'], noise: true, about: 'Left outer sill' },
  [LEG]: { minutes: 30, waits: 4 * DAY, curesAt: 16, tendEvery: DAY, who: ['nils'], after: [] },
  [RINSE]: { minutes: 2 * H, who: ['alva'], outdoor: true, after: [LEG] },
  [PULL]: { minutes: 8 * H, who: ['nils', 'ronja'], after: [CUT] },
  [FLOOR]: { minutes: 0, waits: 21 * DAY, after: [], about: 'Left outer sill' },
  [FIT]: { minutes: 7 * H, who: ['nils', 'alva'], after: [PULL, FLOOR] },
  [PRIME]: {
    minutes: 2 * H,
    waits: 45,
    curesAt: 16,
    keeps: 4 * DAY,
    who: ['nils'],
    after: [FIT, LEG],
    about: 'Left outer sill',
  },
  [WELD]: { minutes: 10 * H, who: ['nils', 'welder'], noise: true, after: [PRIME], about: 'Left outer sill' },
  [SEAL]: { minutes: 90, waits: DAY, curesAt: 18, who: ['ronja'], after: [WELD] },
  [WAX]: { minutes: H, waits: 12 * H, curesAt: 18, who: ['nils'], after: [SEAL] },
  [COLD]: { minutes: 3 * H, who: ['ronja', 'alva'], after: [WELD, RINSE] },
  'Sign the record': { minutes: 30, who: ['alva'], after: [COLD, WAX] },
};

const ADDED: readonly (readonly [Rung, string])[] = [
  ['cut', RINSE],
  ['weld', PRIME],
  ['weld', SEAL],
  ['weld', WAX],
];

/** Steps that come one after another, as the ladder has them. */
export function inTurn(job: JobBuilder): void {
  for (const need of chained(job.rows.steps)) job.add('stepNeeds', need);
}

/** The estate's calendar: three people and one welder, a part three weeks out, a day for the sealer, one day off. */
export function solbrisCalendar(job: JobBuilder, author: string): void {
  const { later, jobId } = job;
  const last = Math.max(...job.rows.steps.map(({ ordinal }) => ordinal));
  ADDED.forEach(([rung, title], i) =>
    job.add('steps', {
      ...{ ...NEW_STEP, id: later.uuid(), jobId, rung, title, ordinal: last + 1 + i, note: '', needs: '', version: 1 },
    }),
  );
  for (const each of Object.values(PEOPLE)) job.add('people', each);
  const idOf = (title: string) => job.rows.steps.find((step) => step.title === title)!.id;
  const onLadder = chained(job.rows.steps);
  job.rows.steps.forEach((step, i) => {
    const { who = [], after, about, ...said } = ESTATE[step.title] ?? {};
    const item = job.rows.workItems.find(({ name }) => name === about);
    (job.rows.steps as Step[])[i] = { ...step, ...said, itemId: item?.id ?? null };
    for (const each of who) job.add('stepPeople', { stepId: step.id, personId: PEOPLE[each].id });
    const needs = after
      ? after.map(idOf)
      : onLadder.flatMap(({ stepId, needsId }) => (stepId === step.id ? needsId : []));
    for (const needsId of needs) job.add('stepNeeds', { stepId: step.id, needsId });
  });
  for (const [day, name] of [
    ['2026-12-24', 'Christmas'],
    ['2026-12-25', 'Christmas'],
    ['2026-12-31', 'New Year'],
  ] as const)
    job.add('closedDays', { id: `00000000-0000-4000-8000-0000${day.replaceAll('-', '')}`, day, kind: 'closed', name });
  const braces = idOf('Fit the braces and measure again');
  for (const minutes of [150, 90])
    job.wait(3).add('bookings', { id: later.uuid(), stepId: braces, minutes, at: job.now(), author, note: '' });
}
