import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../tests/support/demo-rows';
import { springBacksOf } from './pulls/came-home';
import { Job } from '../shell/job/job';
import { isShopTable, JOB_TABLE_NAMES, JOB_TABLES, SHOP_TABLES, type JobRows } from '../shell/job/job-rows';
import { nextCar } from './next-car';

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;
const AT = '2026-12-01T08:00:00.000Z';
const FIELDS = {
  ...{ id: '11111111-1111-4111-8111-111111111111', name: 'The second', shell: 'The same model' },
  ...{ identityNumber: '', owner: 'Somebody else', shop: '', driverSide: 'left' as const, bench: '' },
};
function second(rows: JobRows, springs = springBacksOf(Job.of(rows))): JobRows {
  let count = 0;
  const newId = () => `22222222-2222-4222-8222-${String(++count).padStart(12, '0')}`;
  return nextCar(Job.of(rows), springs, { fields: FIELDS, at: AT, author: 'Ronja', personId: null, newId });
}
const named = (value: unknown): string[] =>
  typeof value === 'string'
    ? UUID.test(value)
      ? [value]
      : []
    : value !== null && typeof value === 'object'
      ? Object.values(value).flatMap(named)
      : [];

const DEMOS = ['solbris', 'lodd', 'maake', 'kvist'] as const;

describe.each(DEMOS)('the car after %s', (name) => {
  const first = demoRows(name);
  const rows = second(first);

  it('has rows as the schema has them, which name each other and nothing of the first', () => {
    const own = new Set<string>([FIELDS.id]);
    const shop = new Set(SHOP_TABLES.flatMap((table) => rows[table].map(({ id }) => id)));
    for (const table of JOB_TABLE_NAMES)
      for (const row of rows[table]) {
        expect(JOB_TABLES[table].safeParse(row).error?.issues, table).toBeUndefined();
        if (!isShopTable(table) && 'id' in row) own.add(row.id);
      }
    for (const table of JOB_TABLE_NAMES)
      if (!isShopTable(table))
        for (const row of rows[table])
          expect(
            named(row).filter((id) => !own.has(id) && !shop.has(id)),
            table,
          ).toEqual([]);
    expect(
      named(JOB_TABLE_NAMES.filter((table) => !isShopTable(table)).map((table) => rows[table])).length,
    ).toBeGreaterThan(100);
  });

  it('has nothing that was found, read or done on the first', () => {
    for (const table of [
      'rounds',
      'readings',
      'logEntries',
      'signedRecords',
      'pulls',
      'cracks',
      'stepEvents',
      'bookings',
    ] as const)
      expect(rows[table], table).toEqual([]);
    expect(rows.workEvents.every(({ kind, at }) => kind === 'planned' && at === AT)).toBe(true);
    expect(rows.jobs).toMatchObject([{ ...FIELDS, note: '', startedAt: AT, putAwayAt: null, version: 1 }]);
    expect(rows.members.every(({ condition }) => condition === 1)).toBe(true);
  });

  it('has the chart in use as its first edition, to the last figure', () => {
    const [chart] = first.references.filter(({ kind, inUse }) => kind === 'chart' && inUse);
    const heights = (of: JobRows, referenceId: string | undefined) =>
      of.referencePoints
        .filter((row) => row.referenceId === referenceId)
        .map(({ pointId, x, y, z }) => [of.points.find(({ id }) => id === pointId)!.code, x, y, z])
        .sort();
    expect(heights(rows, rows.references[0]?.id)).toEqual(heights(first, chart?.id));
    expect(rows.references.map(({ edition, inUse, editionOf }) => [edition, inUse, editionOf])).toEqual(
      chart ? [[1, true, null]] : [],
    );
  });
});

describe('what is taken over from the first car', () => {
  const first = demoRows('solbris');

  it('is of braces those that were fitted, planned again', () => {
    const job = Job.of(first);
    const fitted = job.braces.filter(({ id }) =>
      job.braceEvents.some((each) => each.braceId === id && each.kind === 'fitted'),
    );
    const rows = second(first);
    expect(fitted.length).toBeGreaterThan(0);
    expect(Job.of(rows).braces.map(({ code }) => code)).toEqual(fitted.map(({ code }) => code));
    expect(rows.workEvents).toHaveLength(fitted.length);
  });

  it('is of hours what was booked, less what was taken back, and of a dropped step what it stood between', () => {
    const [a, b, c] = first.steps.slice(0, 3);
    const booking = (id: string, minutes: number) => ({
      ...{ id, stepId: a!.id, minutes, at: AT, author: 'Ronja', personId: null, note: '' },
    });
    const rows = second({
      ...first,
      steps: first.steps.slice(0, 3),
      stepPeople: [],
      bookings: [booking(b!.id, 90), booking(c!.id, -30)],
      stepNeeds: [
        { stepId: b!.id, needsId: a!.id },
        { stepId: c!.id, needsId: b!.id },
      ],
      stepEvents: [
        { id: a!.id, stepId: b!.id, kind: 'dropped', until: null, at: AT, author: 'Ronja', personId: null, note: '' },
      ],
    });
    expect(rows.steps.map(({ title, minutes }) => [title, minutes])).toEqual([
      [a!.title, 60],
      [c!.title, c!.minutes],
    ]);
    expect(rows.stepNeeds).toEqual([{ stepId: rows.steps[1]!.id, needsId: rows.steps[0]!.id }]);
  });

  it('is not what was taken back, nor what hangs on it', () => {
    const panel = first.panels[0]!;
    const back = {
      ...{
        id: panel.id,
        jobId: panel.jobId,
        tableName: 'work_item' as const,
        rowId: panel.id,
        kind: 'withdrawn' as const,
      },
      ...{ at: AT, author: 'Ronja', personId: null, reason: 'it stays' },
    };
    const rows = second({ ...first, withdrawals: [back] });
    expect(rows.panels).toHaveLength(first.panels.length - 1);
    const left = new Set(rows.panels.map(({ id }) => id));
    for (const table of ['joints', 'panelParts', 'panelPoints', 'cutLines'] as const)
      expect(
        rows[table].every(({ panelId }) => left.has(panelId)),
        table,
      ).toBe(true);
  });

  it('is what the metal came home by, stroke for stroke, and goes on from there to the third', () => {
    const job = Job.of(DEMOS.map(demoRows).find((rows) => springBacksOf(Job.of(rows)).length > 0)!);
    const springs = springBacksOf(job);
    expect(springs[0]).toMatchObject({ car: job.row.name });
    expect(springs.every(({ by }) => by > -1)).toBe(true);
    const rows = second(job.rows, springs);
    expect(rows.springBacks.map(({ ordinal, by }) => [ordinal, by])).toEqual(springs.map(({ by }, i) => [i, by]));
    expect(springBacksOf(Job.of(rows))).toEqual(springs);
  });
});
