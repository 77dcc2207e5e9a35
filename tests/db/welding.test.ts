import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { weldingPage } from '@/core/report/pages/welding';
import type { WeldSeam } from '@/core/shell/job/entities';
import { Job } from '@/core/shell/job/job';
import { archiveDocuments, readArchiveDocuments } from '@/formats/archive/documents';
import { insert } from '@/db/table';
import { savePanel } from '@/server/actions/cut';
import { saveWeldSeam } from '@/server/actions/welding';
import { recordItemEvent } from '@/server/actions/work';
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
    ...{ id: jointId, jobId, kind: 'plug', process: 'mig', long: 400, flange: 18, pitch: null, version: 1 },
    ...{ firstPointId: null, lastPointId: null, freeEnd: 'both', school: 'coolest', openFor: null, clampedFor: null },
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
});
