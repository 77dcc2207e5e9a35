import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { isShopTable, JOB_TABLE_NAMES, type JobRows } from '@/core/shell/job/job-rows';
import type { Database } from '@/db/database';
import { countJobs, listJobs, loadJob } from '@/db/jobs';
import { migrate } from '@/db/migrate';
import { addContent, addPart, contentOf, removeOrphanedContent } from '@/db/photographs';
import { nextSequence, standingReadings } from '@/db/readings';
import { insert, update } from '@/db/table';
import { demoRows } from '../support/demo-rows';
import { pglite, postgres } from '../support/engines';

const code = (promise: Promise<unknown>) =>
  promise.then(
    () => 'accepted',
    (error: { code?: string }) => error.code,
  );

describe.each([pglite, postgres])('the schema on $name', (engine) => {
  let database: Database;
  const rows: JobRows = demoRows('solbris');
  const jobId = rows.jobs[0]!.id;

  beforeAll(async () => {
    database = await engine.open();
    await migrate(database);
    await migrate(database);
    for (const photograph of rows.photographs) await addContent(database, photograph.id, new Uint8Array([1, 2, 3]));
    await database.transaction(async (tx) => {
      for (const table of JOB_TABLE_NAMES)
        await insert(tx, table, rows[table] as never[], {
          skipExisting: isShopTable(table),
        });
    });
  });
  afterAll(() => database.close());

  it('gives back every row of a job as it was put in', async () => {
    const loaded = (await loadJob(database, jobId))!;
    const sorted = (list: readonly unknown[]) => list.map((row) => JSON.stringify(sortKeys(row))).sort();
    for (const table of JOB_TABLE_NAMES) {
      if (isShopTable(table)) continue;
      expect(sorted(loaded[table]), table).toEqual(sorted(rows[table]));
    }
  });

  it('gives the rows read before of every table that is as it was then, and new ones of what changed', async () => {
    const last = (await loadJob(database, jobId))!;
    const again = (await loadJob(database, jobId, last))!;
    for (const table of JOB_TABLE_NAMES) expect(again[table], table).toBe(last[table]);
    const [step] = last.steps;
    await database.query('update step set title = $2 where id = $1', [step!.id, 'Another title']);
    const later = (await loadJob(database, jobId, again))!;
    await database.query('update step set title = $2 where id = $1', [step!.id, step!.title]);
    expect(JOB_TABLE_NAMES.filter((table) => later[table] !== last[table])).toEqual(['steps']);
    expect(later.steps.find(({ id }) => id === step!.id)!.title).toBe('Another title');
    expect(later).toEqual({ ...(await loadJob(database, jobId))!, steps: later.steps });
  });

  it('keeps the order of the tape', async () => {
    const loaded = (await loadJob(database, jobId))!;
    const sequences = loaded.readings
      .filter((each) => each.roundId === rows.rounds[0]!.id)
      .map((each) => each.sequence);
    expect(sequences).toEqual([...sequences].sort((a, b) => a - b));
    expect(await nextSequence(database, rows.rounds[0]!.id)).toBe(Math.max(...sequences) + 1);
  });

  it('lists the job with its counts', async () => {
    const [job] = await listJobs(database);
    expect(job).toMatchObject({
      id: jobId,
      pointCount: 51,
      roundCount: 2,
      readingCount: rows.readings.length,
      recordCount: 0,
    });
  });

  it('lists the jobs in which a text is found, so many of them and no more, and counts the rest', async () => {
    const [job] = await listJobs(database);
    const some = job!.name.slice(2, 7).toUpperCase();
    expect((await listJobs(database, { find: some })).map(({ id }) => id)).toEqual([jobId]);
    // Signs that mean something to a pattern are signs like others.
    for (const find of ['%', '_', 'no such job']) expect(await listJobs(database, { find })).toEqual([]);
    expect(await listJobs(database, { most: 0 })).toEqual([]);
    expect(await countJobs(database, some)).toEqual({ all: 1, inHand: 1, away: 0 });
    expect(await countJobs(database, 'no such job')).toEqual({ all: 1, inHand: 0, away: 0 });
  });

  it('refuses to change or delete a reading, a strike or a log entry', async () => {
    for (const table of ['reading', 'reading_strike', 'log_entry', 'instrument_version', 'step_event']) {
      expect(await code(database.query(`update ${table} set id = id`)), `update ${table}`).toBe('23001');
      expect(await code(database.query(`delete from ${table}`)), `delete ${table}`).toBe('23001');
    }
  });

  it('refuses a reading without its round, its subject or its points', async () => {
    const reading = rows.readings[0]!;
    const fresh = { ...reading, id: crypto.randomUUID() };
    expect(await code(insert(database, 'readings', [{ ...fresh, roundId: crypto.randomUUID() }]))).toBe('23503');
    expect(await code(insert(database, 'readings', [{ ...fresh, pointId: null }]))).toBe('23514');
    expect(await code(insert(database, 'readings', [{ ...fresh, pointId: crypto.randomUUID() }]))).toBe('23503');
    expect(await code(insert(database, 'readings', [{ ...fresh, quantity: 'distance' }]))).toBe('23514');
  });

  it('refuses an accepted deviation without the reference it was accepted against', async () => {
    const subject = {
      id: crypto.randomUUID(),
      entryId: rows.logEntries[0]!.id,
      pointId: rows.points[0]!.id,
      dimensionId: null,
    };
    expect(
      await code(insert(database, 'logSubjects', [{ ...subject, acceptedDeviation: 1.2, referenceId: null }])),
    ).toBe('23514');
  });

  it('refuses a dimension that ends at another job’s point', async () => {
    const other = demoRows('lodd');
    await insert(database, 'jobs', other.jobs);
    await insert(database, 'points', other.points);
    const dimension = {
      ...rows.dimensions[0]!,
      id: crypto.randomUUID(),
      code: 'new',
      toPointId: other.points[0]!.id,
    };
    expect(await code(insert(database, 'dimensions', [dimension]))).toBe('23503');
  });

  it('writes an edited row once and tells the one who comes later', async () => {
    const point = rows.points.find((each) => each.code === 'K3')!;
    const first = await update(database, 'points', { ...point, name: 'Tunnel hole, rear' });
    expect(first).toMatchObject({ ok: true, row: { name: 'Tunnel hole, rear', version: 2 } });
    const late = await update(database, 'points', { ...point, name: 'Something else' });
    expect(late).toMatchObject({ ok: false, current: { name: 'Tunnel hole, rear', version: 2 } });
  });

  it('makes a repeated delivery harmless', async () => {
    await insert(database, 'readings', rows.readings.slice(0, 5), { skipExisting: true });
    expect((await loadJob(database, jobId))!.readings).toHaveLength(rows.readings.length);
  });

  it('knows which readings of a line still stand', async () => {
    const struck = rows.readingStrikes[0]!;
    const lineId = rows.readings.find((each) => each.id === struck.readingId)!.lineId;
    expect(await standingReadings(database, [lineId])).toHaveLength(0);
    expect(await standingReadings(database, [rows.readings[0]!.lineId])).toHaveLength(3);
  });

  it('refuses a row that names a row of another job', async () => {
    const other = demoRows('lodd');
    const [own, theirs] = [rows.points[0]!.id, other.points[0]!.id];
    const id = () => crypto.randomUUID();
    const at = '2026-11-24T08:00:00.000Z';
    const round = rows.rounds[0]!;
    const attempts = {
      control: insert(database, 'roundControls', [{ roundId: round.id, pointId: theirs }]),
      condition: insert(database, 'pointConditions', [
        { id: id(), roundId: round.id, pointId: theirs, kind: 'worn', at, author: 'Nils', personId: null },
      ]),
      reading: insert(database, 'readings', [{ ...rows.readings[0]!, id: id(), pointId: theirs }]),
      reference: insert(database, 'referencePoints', [{ ...rows.referencePoints[0]!, id: id(), pointId: theirs }]),
      choice: insert(database, 'referenceChoices', [
        {
          ...{
            id: id(),
            jobId: round.jobId,
            pointId: own,
            dimensionId: null,
            at,
            author: 'Nils',
            personId: null,
            reason: '',
          },
          referenceId: other.references[0]!.id,
        },
      ]),
      subject: insert(database, 'logSubjects', [
        {
          ...{ id: id(), entryId: rows.logEntries[0]!.id, pointId: theirs, dimensionId: null },
          ...{ acceptedDeviation: null, referenceId: null },
        },
      ]),
      substitute: insert(database, 'points', [{ ...rows.points[0]!, id: id(), code: 'ZZ9', substituteForId: theirs }]),
      hold: insert(database, 'holds', [
        { id: id(), itemId: rows.pulls[0]!.id, pointId: theirs, kind: 'clamp', rating: null },
      ]),
      mine: insert(database, 'roundControls', [{ roundId: round.id, pointId: own }], { skipExisting: true }),
    };
    const codes = Object.fromEntries(
      await Promise.all(Object.entries(attempts).map(async ([what, attempt]) => [what, await code(attempt)])),
    );
    expect(codes).toEqual({
      ...Object.fromEntries(Object.keys(attempts).map((what) => [what, '23503'])),
      mine: 'accepted',
    });
  });

  it('streams the parts of a picture in order and drops content nobody named', async () => {
    const id = crypto.randomUUID();
    await addContent(database, id, new Uint8Array([9]));
    await addPart(database, id, 1, new Uint8Array([3, 4]));
    await addPart(database, id, 0, new Uint8Array([1, 2]));
    const parts: number[] = [];
    for await (const part of contentOf(database, id)) parts.push(...part);
    expect(parts).toEqual([1, 2, 3, 4]);
    await removeOrphanedContent(database);
    const [{ count }] = (await database.query<{ count: number }>(
      'select count(*)::int as count from photograph_content',
    )) as [{ count: number }];
    expect(count).toBe(rows.photographs.length);
  });

  it('undoes a transaction that throws', async () => {
    await database
      .transaction(async (tx) => {
        await insert(tx, 'memberLines', [
          {
            id: crypto.randomUUID(),
            jobId,
            fromPointId: rows.points[0]!.id,
            toPointId: rows.points[1]!.id,
          },
        ]);
        throw new Error('stop');
      })
      .catch(() => undefined);
    expect((await loadJob(database, jobId))!.memberLines).toHaveLength(rows.memberLines.length);
  });
});

const sortKeys = (row: unknown): unknown =>
  row !== null && typeof row === 'object' && !Array.isArray(row)
    ? Object.fromEntries(
        Object.entries(row)
          .sort(([a], [b]) => a.localeCompare(b))
          .map(([key, value]) => [key, sortKeys(value)]),
      )
    : Array.isArray(row)
      ? row.map(sortKeys)
      : row;
