import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { weldingPage } from '@/core/report/pages/welding';
import { NEW_WELD_SEAM, type WeldSeam } from '@/core/shell/job/entities';
import { Job } from '@/core/shell/job/job';
import { archiveDocuments, readArchiveDocuments } from '@/formats/archive/documents';
import { insert } from '@/db/table';
import { savePanel } from '@/server/actions/cut';
import { readAxles, saveCrack, saveStiffener, saveWeldSeam, setWeldMarks } from '@/server/actions/welding';
import { recordItemEvent, withdraw } from '@/server/actions/work';
import { weldedElsewhere } from '@/db/welds';
import { store } from '@/server/store';
import { demoRows } from '../support/demo-rows';
import { benchPerTest, faultsOf, valueOf } from '../support/bench';

const shop = benchPerTest();
const refusal = (outcome: Parameters<typeof faultsOf>[0]) =>
  faultsOf(outcome)
    .map(({ message }) => message)
    .join(' ');

/** A panel with one joint, written as the cut plan writes it. */
async function joined() {
  const { jobId } = shop();
  const [panelId, jointId] = [randomUUID(), randomUUID()];
  const item = {
    id: panelId,
    jobId,
    kind: 'panel' as const,
    code: `panel ${panelId.slice(0, 4)}`,
    name: 'Sill',
    version: 1,
  };
  const panel = { ...demoRows('solbris').panels[0]!, id: panelId, jobId, stageId: null, version: 1 };
  const { database } = await store();
  await database.transaction(async (tx) => {
    await insert(tx, 'workItems', [
      item,
      { ...item, id: jointId, kind: 'joint' as const, code: `joint ${jointId.slice(0, 4)}`, name: 'floor' },
    ]);
    await insert(tx, 'panels', [panel]);
    await insert(tx, 'joints', [
      {
        ...{ id: jointId, jobId, panelId, beside: 'floor', kind: 'spots' as const, version: 1 },
        ...{ thicknessA: 0.9, thicknessB: 0.9, factorySpots: 10 },
      },
    ]);
  });
  const seam: WeldSeam = {
    ...NEW_WELD_SEAM,
    ...{ id: jointId, jobId, kind: 'plug', process: 'mig', long: 400, flange: 18 },
  };
  return {
    panelId,
    jointId,
    seam,
    corner: { id: randomUUID(), seamId: jointId, what: 'corner' as const, starts: 130, ends: 130 },
  };
}

describe('a joint that is welded again', () => {
  it('is said, corrected with how it was kept, ticked off, and goes to another shop', async () => {
    const { jointId, seam, corner } = await joined();
    expect(refusal(await saveWeldSeam({ seam, stretches: [{ ...corner, starts: 390, ends: 410 }] }))).toMatch(
      /beyond the end/,
    );
    expect(refusal(await saveWeldSeam({ seam, stretches: [{ ...corner, ends: 90 }] }))).toMatch(/ends after it begins/);
    valueOf(await saveWeldSeam({ seam, stretches: [corner] }));
    valueOf(await saveWeldSeam({ seam: { ...seam, school: 'centre' }, stretches: [] }));
    const rows = await shop().rows();
    expect(rows.weldSeams).toMatchObject([{ id: jointId, school: 'centre', version: 2 }]);
    expect(rows.changes).toMatchObject([{ tableName: 'weld_seam', before: { school: 'coolest' } }]);
    expect(refusal(await saveWeldSeam({ seam, stretches: [] }))).toMatch(/somebody else changed this/);
    valueOf(await saveWeldSeam({ seam: { ...seam, version: 2 }, stretches: [corner] }));
    const tick = { itemId: jointId, kind: 'ticked' as const, key: '9.0', reason: '', value: null };
    valueOf(await recordItemEvent({ ...tick, id: randomUUID() }));
    valueOf(await recordItemEvent({ ...tick, id: randomUUID() }));
    const after = await shop().rows();
    expect(after.workEvents.filter(({ itemId }) => itemId === jointId)).toHaveLength(1);
    expect(weldingPage(Job.of(after)).joints[0]!.plan).toMatchObject({ done: [{ key: '9.0' }], stretches: [corner] });
    const read = readArchiveDocuments(archiveDocuments(after));
    if (!read.ok) throw new Error(JSON.stringify(read.faults));
    expect(read.value.weldSeams).toEqual(after.weldSeams);
    expect(read.value.weldStretches).toEqual(after.weldStretches);
  });

  it('goes with its joint when the panel is joined otherwise, unless it is begun', async () => {
    const { panelId, jointId, seam, corner } = await joined();
    valueOf(await saveWeldSeam({ seam, stretches: [corner] }));
    const rows = await shop().rows();
    const saved = {
      item: rows.workItems.find(({ id }) => id === panelId)!,
      panel: rows.panels.find(({ id }) => id === panelId)!,
      ...{ points: [], parts: [], lines: [], joints: [] },
    };
    valueOf(
      await recordItemEvent({ id: randomUUID(), itemId: jointId, kind: 'ticked', key: '9.0', reason: '', value: null }),
    );
    expect(refusal(await savePanel(saved as never))).toMatch(/begun to be welded: it stays/);
    const other = await joined();
    valueOf(await saveWeldSeam({ seam: other.seam, stretches: [] }));
    const now = await shop().rows();
    valueOf(
      await savePanel({
        ...saved,
        item: now.workItems.find(({ id }) => id === other.panelId)!,
        panel: now.panels.find(({ id }) => id === other.panelId)!,
      } as never),
    );
    expect((await shop().rows()).weldSeams.map(({ id }) => id)).toEqual([jointId]);
  });

  it('keeps what it shrank, with who said it first, corrects the shop’s range, and then stays with its panel', async () => {
    const { panelId, jointId, seam } = await joined();
    valueOf(await saveWeldSeam({ seam, stretches: [] }));
    const mark = { id: randomUUID(), seamId: jointId, runs: 'across' as const, before: 100, cold: 99.8, sd: 0.05 };
    expect(refusal(await setWeldMarks({ seamId: jointId, marks: [{ ...mark, seamId: panelId }] }))).toMatch(
      /another joint/,
    );
    valueOf(await setWeldMarks({ seamId: jointId, marks: [mark] }));
    const [first] = (await shop().rows()).weldMarks;
    expect(first).toMatchObject({ ...mark, author: expect.any(String) });
    valueOf(await setWeldMarks({ seamId: jointId, marks: [mark, { ...mark, id: randomUUID(), cold: 99.7 }] }));
    const rows = await shop().rows();
    expect(rows.weldMarks.find(({ id }) => id === mark.id)).toEqual(first);
    expect(weldingPage(Job.of(rows)).factor).toMatchObject({ joints: 1 });
    // Another job of the shop is corrected by it too.
    const { database } = await store();
    const elsewhere = await weldedElsewhere(database, randomUUID());
    expect(elsewhere.map(({ seam: { id }, marks }) => [id, marks.length])).toEqual([[jointId, 2]]);
    expect(await weldedElsewhere(database, shop().jobId)).toEqual([]);
    const other = weldingPage(Job.of(demoRows('maake')), elsewhere);
    expect(other.factor.usual).toBeCloseTo(weldingPage(Job.of(rows)).factor.usual, 9);
    const saved = {
      item: rows.workItems.find(({ id }) => id === panelId)!,
      panel: rows.panels.find(({ id }) => id === panelId)!,
      ...{ points: [], parts: [], lines: [], joints: [] },
    };
    expect(refusal(await savePanel(saved as never))).toMatch(/begun to be welded: it stays/);
  });

  it('is laid in turn with another seam of its panel, and by itself again when that goes', async () => {
    const [one, other] = [await joined(), await joined()];
    const turned = { ...one.seam, inTurnWithId: other.jointId };
    expect(refusal(await saveWeldSeam({ seam: turned, stretches: [] }))).toMatch(/another seam of the same panel/);
    const { database } = await store();
    await database.query('update joint set panel_id = $1 where id = $2', [one.panelId, other.jointId]);
    valueOf(await saveWeldSeam({ seam: { ...other.seam, id: other.jointId }, stretches: [] }));
    valueOf(await saveWeldSeam({ seam: turned, stretches: [] }));
    const rows = await shop().rows();
    const plans = weldingPage(Job.of(rows)).joints.map(({ plan }) => plan!);
    expect(plans.map(({ inTurnWith }) => inTurnWith!.id).toSorted()).toEqual([one.jointId, other.jointId].toSorted());
    const numbers = plans.flatMap((plan) => plan.plans[0]!.numbers!).toSorted((a, b) => a - b);
    expect(numbers).toEqual(numbers.map((_, i) => i + 1));
    expect(
      refusal(await saveWeldSeam({ seam: { ...other.seam, inTurnWithId: other.jointId }, stretches: [] })),
    ).not.toBe('');
    const joint = (id: string) => ({
      item: rows.workItems.find((each) => each.id === id)!,
      joint: rows.joints.find((each) => each.id === id)!,
    });
    valueOf(
      await savePanel({
        item: rows.workItems.find(({ id }) => id === one.panelId)!,
        panel: rows.panels.find(({ id }) => id === one.panelId)!,
        ...{ points: [], parts: [], lines: [], joints: [joint(one.jointId)] },
      } as never),
    );
    expect((await shop().rows()).weldSeams).toMatchObject([{ id: one.jointId, inTurnWithId: null }]);
  });
});

describe('cracks, stiffeners and axles', () => {
  const itemOf = (kind: 'crack' | 'stiffener', id: string, code: string) => ({
    ...{ id, jobId: shop().jobId, kind, code, name: code, version: 1 },
  });

  it('are kept, corrected with how they were, and taken back', async () => {
    const { jobId } = shop();
    const [crackId, ribId] = [randomUUID(), randomUUID()];
    const crack = {
      ...{ id: crackId, jobId, place: 'Left A post', long: 60, thickness: 1, toEdge: false, process: 'mig' as const },
      ...{ cause: '', version: 1 },
    };
    const rib = {
      ...{ id: ribId, jobId, kind: 'rib' as const, part: 'S1L-S2L', otherPart: '', long: 300, width: 40, height: 15 },
      ...{ thickness: 1, version: 1 },
    };
    valueOf(await saveCrack({ item: itemOf('crack', crackId, 'CR1'), crack }));
    expect(refusal(await saveCrack({ item: itemOf('stiffener', crackId, 'CR1'), crack }))).toMatch(/no crack/);
    valueOf(await saveStiffener({ item: itemOf('stiffener', ribId, 'ST1'), stiffener: rib }));
    expect(
      faultsOf(
        await saveStiffener({ item: itemOf('stiffener', randomUUID(), 'ST2'), stiffener: { ...rib, height: null } }),
      ),
    ).toMatchObject([{ path: expect.stringMatching(/height$/) }]);
    valueOf(
      await saveCrack({
        item: { ...itemOf('crack', crackId, 'CR1'), name: 'Left B post' },
        crack: { ...crack, long: 72 },
      }),
    );
    const rows = await shop().rows();
    expect(rows.cracks).toMatchObject([{ long: 72, version: 2 }]);
    expect(rows.changes.map(({ tableName }) => tableName).toSorted()).toEqual(['crack', 'work_item']);
    const tick = { itemId: crackId, kind: 'ticked' as const, key: 'drill', reason: '', value: null };
    valueOf(await recordItemEvent({ ...tick, id: randomUUID() }));
    expect(weldingPage(Job.of(await shop().rows())).stiffening.cracks[0]!.done).toEqual(['drill']);
    const taken = {
      id: randomUUID(),
      jobId,
      tableName: 'work_item' as const,
      rowId: ribId,
      kind: 'withdrawn' as const,
    };
    valueOf(await withdraw({ ...taken, reason: 'not needed' } as never));
    expect(Job.of(await shop().rows()).stiffeners).toEqual([]);
    const read = readArchiveDocuments(archiveDocuments(rows));
    if (!read.ok) throw new Error(JSON.stringify(read.faults));
    expect([read.value.cracks, read.value.stiffeners]).toEqual([rows.cracks, rows.stiffeners]);
  });

  it('reads axles once however often it is sent, and never changes what was read', async () => {
    const { jobId } = shop();
    const roundId = await shop().openRound('cold');
    const reading = {
      ...{ id: randomUUID(), jobId, roundId, leftBase: 2400, rightBase: 2398, sd: 1, most: 5 },
      ...{ leftDiagonal: 2715, rightDiagonal: null, frontTrack: 1270, rearTrack: 1270 },
    };
    expect(faultsOf(await readAxles(reading))).toMatchObject([{ message: 'both diagonals, or neither' }]);
    for (let k = 0; k < 2; k++) valueOf(await readAxles({ ...reading, rightDiagonal: 2714 }));
    expect((await shop().rows()).axleReadings).toHaveLength(1);
    const { database } = await store();
    await expect(database.query('update axle_reading set left_base = 1')).rejects.toThrow();
  });
});
