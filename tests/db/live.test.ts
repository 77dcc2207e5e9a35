import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import '../support/request';
import { benchPerTest, valueOf } from '../support/bench';
import type { Database } from '@/db/database';
import type { LiveEvent } from '@/formats/live';
import { createJob } from '@/server/actions/jobs';
import { putMember } from '@/server/actions/people';
import { addStep } from '@/server/actions/steps';
import { live, type Listener } from '@/server/live';
import { rowsAt, rowsWithin } from '@/server/rows-at';
import { store } from '@/server/store';
import { takeTapeEntry } from '@/server/readings';

const shop = benchPerTest();

/** A window of a job that writes down what it hears. */
function ear(jobId: string, name = 'Nils', more: Partial<Listener> = {}) {
  const heard: LiveEvent[] = [];
  let ended = false;
  const window = randomUUID();
  const close = live().listen({
    ...{ jobId, window, name, mayHear: async () => true },
    hear: (event) => void heard.push(event),
    end: () => void (ended = true),
    ...more,
  });
  const kinds = () => heard.map(({ kind }) => kind).filter((kind) => kind !== 'here');
  return { heard, kinds, window, close, ended: () => ended };
}
const aMoment = () => new Promise((resolve) => setTimeout(resolve, 5));
const step = (jobId: string) => ({
  ...{ id: randomUUID(), jobId, rung: 'weld' as const, title: 'Seal', note: '', needs: '' },
});

describe('open windows of a job', () => {
  it('hear what a transaction of it changed, not what happens to others, and all of them what the shop’s own is', async () => {
    const [here, elsewhere] = [ear(shop().jobId), ear(randomUUID())];
    valueOf(await addStep(step(shop().jobId)));
    await aMoment();
    expect([here.kinds(), elsewhere.kinds()]).toEqual([['rows'], []]);
    valueOf(await putMember({ id: randomUUID(), name: 'Ulf', roles: [], owner: false, here: true }));
    await aMoment();
    expect([here.kinds(), elsewhere.kinds()]).toEqual([['rows', 'rows'], ['rows']]);
    // What was refused changed nothing.
    expect((await addStep({ ...step(shop().jobId), jobId: randomUUID() })).ok).toBe(false);
    await aMoment();
    expect(here.kinds()).toEqual(['rows', 'rows']);
    for (const each of [here, elsewhere]) each.close();
  });

  it('hear a line of a tape but the one that typed it, and know it for one', async () => {
    const roundId = await shop().openRound('As found');
    const [typing, looking] = [ear(shop().jobId), ear(shop().jobId)];
    const line = await shop().height(roundId, 'F1L', 541);
    valueOf(await live().from({ window: typing.window, tape: true }, () => takeTapeEntry(line, randomUUID)));
    await aMoment();
    expect(typing.kinds()).toEqual([]);
    expect(looking.heard.find(({ kind }) => kind === 'rows')).toMatchObject({ tape: true });
    live().relay(shop().jobId, typing.window, { kind: 'hello', roundId });
    await aMoment();
    expect([typing.kinds(), looking.kinds().at(-1)]).toEqual([[], 'hello']);
    for (const each of [typing, looking]) each.close();
  });

  it('know who else is there, until they close', async () => {
    const one = ear(shop().jobId, 'Nils');
    const others = [ear(shop().jobId, 'Ronja'), ear(shop().jobId, 'Ronja')];
    await aMoment();
    const last = () => one.heard.findLast(({ kind }) => kind === 'here');
    expect(last()).toEqual({ kind: 'here', others: [{ name: 'Ronja', windows: 2 }] });
    others[0]!.close();
    await aMoment();
    expect(last()).toEqual({ kind: 'here', others: [{ name: 'Ronja', windows: 1 }] });
    others[1]!.close();
    await aMoment();
    expect(last()).toEqual({ kind: 'here', others: [] });
    one.close();
  });

  it('hear nothing more once whoever looks was sent away', async () => {
    let may = true;
    const sent = ear(shop().jobId, 'Nils', { mayHear: async () => may });
    may = false;
    valueOf(await addStep(step(shop().jobId)));
    await aMoment();
    expect([sent.kinds(), sent.ended()]).toEqual([[], true]);
    sent.close();
  });
});

describe('a job that is read again', () => {
  it('is the same while nobody writes to it, whatever is written to others', async () => {
    const { database } = await store();
    const first = await rowsAt(database, shop().jobId);
    const other = { ...shop().fields(), id: randomUUID() };
    valueOf(await createJob({ ...other, afterId: null }));
    valueOf(await addStep(step(other.id)));
    expect(await rowsAt(database, shop().jobId)).toBe(first);
    valueOf(await addStep(step(shop().jobId)));
    const later = await rowsAt(database, shop().jobId);
    expect(later!.steps).toHaveLength(first!.steps.length + 1);
    expect(later!.points).toBe(first!.points);
  });

  it('within a transaction is not waited for outside of it', async () => {
    const { database } = await store();
    valueOf(await addStep(step(shop().jobId)));
    let release = (): void => undefined;
    const held = new Promise<void>((resolve) => (release = resolve));
    let isReading = (): void => undefined;
    const reading = new Promise<void>((resolve) => (isReading = resolve));
    const waiting: Database = {
      ...database,
      query: async (sql, parameters) => {
        if (!sql.includes('journal_mark')) {
          isReading();
          await held;
        }
        return database.query(sql, parameters);
      },
    };
    const outside = rowsAt(waiting, shop().jobId);
    await reading;
    const inside = await database.transaction((tx) => rowsWithin(tx, shop().jobId));
    release();
    expect(inside).toEqual(await outside);
  });
});
