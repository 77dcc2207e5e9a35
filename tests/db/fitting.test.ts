import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { settingsFor } from '@/core/plan/panels/setting-templates';
import { fittingPage } from '@/core/report/pages/fitting';
import { NEW_HUNG, NEW_SEAM } from '@/core/shell/job/entities';
import { Job } from '@/core/shell/job/job';
import { archiveDocuments, readArchiveDocuments } from '@/formats/archive/documents';
import { addSeam } from '@/server/actions/chart';
import * as actions from '@/server/actions/fitting';
import { withdraw } from '@/server/actions/work';
import { benchPerTest, faultsOf, valueOf } from '../support/bench';

const shop = benchPerTest();
const refusal = (outcome: Parameters<typeof faultsOf>[0]) =>
  faultsOf(outcome)
    .map(({ message }) => message)
    .join(' ');
const page = async () => fittingPage(Job.of(await shop().rows()));

/** A door as its form sends it. */
function door(code = 'DL') {
  const { jobId } = shop();
  const id = randomUUID();
  const panel = {
    ...NEW_HUNG,
    id,
    jobId,
    kind: 'door' as const,
    side: 'left' as const,
    long: 1000,
    high: 880,
    version: 1,
  };
  const hung = { ...panel, hungAt: 'front' as const };
  return {
    item: { id, jobId, kind: 'hung' as const, code, name: 'Left door', version: 1 },
    panel: hung,
    seams: [],
    settings: settingsFor(hung).map((each) => ({ ...each, id: randomUUID(), hungId: id })),
  };
}

const hold = (hungId: string, to: Parameters<typeof actions.holdPanel>[0]['to'], reason = '', joint = '') =>
  actions.holdPanel({ id: randomUUID(), hungId, joint, to, reason });

describe('a panel that is fitted', () => {
  it('is named, corrected with how it was kept, and taken back', async () => {
    const made = door();
    valueOf(await actions.addHungPanel(made));
    const [view] = (await page()).panels;
    expect(view).toMatchObject({ panel: { code: 'DL', long: 1000 }, hang: { ok: false, kind: 'noSeams' } });
    expect(view!.settings).toHaveLength(6);
    const { settings: _, ...again } = made;
    valueOf(await actions.correctHungPanel({ ...again, panel: { ...made.panel, long: 1012 } }));
    expect((await page()).panels[0]!.panel).toMatchObject({ long: 1012, version: 2 });
    expect((await shop().rows()).changes).toMatchObject([{ tableName: 'hung_panel', before: { long: 1000 } }]);
    const late = await actions.correctHungPanel({ ...again, panel: { ...made.panel, long: 990 } });
    expect(refusal(late)).toMatch(/somebody else changed this/);
    const row = { jobId: shop().jobId, tableName: 'work_item' as const, rowId: made.panel.id };
    valueOf(await withdraw({ id: randomUUID(), ...row, kind: 'withdrawn', reason: 'named twice' }));
    expect((await page()).panels).toEqual([]);
  });

  it('refuses what belongs to another panel, and a setting that ends before it begins', async () => {
    const [left, right] = [door(), door('DR')];
    valueOf(await actions.addHungPanel(left));
    expect(refusal(await actions.addHungPanel({ ...right, settings: left.settings }))).toMatch(/another panel/);
    const turned = left.settings.map((each) => ({ ...each, least: 2, most: -2 }));
    const hungId = left.panel.id;
    expect(refusal(await actions.setPanelSettings({ hungId, settings: turned, effects: [] }))).toMatch(
      /not below the least/,
    );
    valueOf(await actions.setPanelSettings({ hungId, settings: left.settings.slice(1), effects: [] }));
    expect((await page()).panels[0]!.settings).toHaveLength(5);
  });

  it('goes up the ladder when what the rung needs is there, and back for a reason', async () => {
    const made = door();
    valueOf(await actions.addHungPanel(made));
    const hungId = made.panel.id;
    valueOf(await hold(hungId, 'clamped'));
    valueOf(await hold(hungId, 'clamped'));
    expect((await shop().rows()).workEvents.filter(({ itemId }) => itemId === hungId)).toHaveLength(1);
    expect(refusal(await hold(hungId, 'dowelled'))).toMatch(/Name the dowels/);
    const dowel = { id: randomUUID(), hungId, kind: 'dowel' as const, name: 'D1', joint: null, place: 'rear flange' };
    valueOf(await actions.addFixing(dowel));
    valueOf(await hold(hungId, 'dowelled'));
    expect(refusal(await hold(hungId, 'tacked'))).toMatch(/Let the clamp go once/);
    expect(refusal(await hold(hungId, 'off'))).toMatch(/say why it goes back/);
    valueOf(await hold(hungId, 'off', 'to be dressed'));
    const { held, closeOut } = await page();
    expect(held[0]).toMatchObject({ rung: 'off', timesOff: 1 });
    expect(closeOut).toMatchObject([{ panel: 'DL', fixing: { name: 'D1' } }]);
    valueOf(await actions.closeFixing({ id: dowel.id, open: false }));
    valueOf(await actions.closeFixing({ id: dowel.id, open: false }));
    expect((await page()).closeOut).toEqual([]);
  });

  it('takes each joint up by itself, and keeps one at which something was done', async () => {
    const made = door();
    valueOf(await actions.addHungPanel(made));
    const hungId = made.panel.id;
    for (const name of ['head', 'foot', 'slip'])
      valueOf(await actions.putPanelJoint({ hungId, name, edge: null, jointId: null }));
    valueOf(await actions.putPanelJoint({ hungId, name: 'foot', edge: 'bottom', jointId: null }));
    expect(refusal(await hold(hungId, 'clamped', '', 'nowhere'))).toMatch(/has no joint "nowhere"/);
    valueOf(await hold(hungId, 'clamped', '', 'head'));
    valueOf(await hold(hungId, 'clamped', '', 'head'));
    const stands = async () => (await page()).held[0]!.joints.map(({ joint, rung }) => `${joint.name} ${rung}`).sort();
    expect(await stands()).toEqual(['foot off', 'head clamped', 'slip off']);
    expect((await shop().rows()).workEvents.filter(({ itemId }) => itemId === hungId)).toHaveLength(1);
    expect(refusal(await actions.removePanelJoint({ hungId, name: 'head' }))).toMatch(/stays in the record/);
    valueOf(await actions.removePanelJoint({ hungId, name: 'slip' }));
    valueOf(await hold(hungId, 'clamped'));
    expect(await stands()).toEqual(['foot clamped', 'head clamped']);
    expect(refusal(await hold(hungId, 'gripped', '', 'foot'))).toMatch(/say why it goes back/);
    valueOf(await hold(hungId, 'gripped', 'to be dressed', 'foot'));
    expect(await stands()).toEqual(['foot gripped', 'head clamped']);
    // A name it is let go under is a joint.
    valueOf(await actions.addLetGo({ id: randomUUID(), hungId, place: 'heel', sprung: 0.4, most: 1 }));
    expect(await stands()).toEqual(['foot gripped', 'head clamped', 'heel off']);
  });

  it('keeps shims, measures, laps, allowances, trims and checks, and goes to another shop with all of it', async () => {
    const { jobId } = shop();
    const [made, under] = [door(), door('DI')];
    valueOf(await actions.addHungPanel(made));
    valueOf(await actions.addHungPanel(under));
    const hungId = made.panel.id;
    const id = () => randomUUID();
    const shim = { id: id(), jobId, thickness: 0.5, pieces: 4 };
    expect(refusal(await actions.setShims({ jobId, shims: [shim, { ...shim, id: id() }] }))).toMatch(/named twice/);
    valueOf(await actions.setShims({ jobId, shims: [shim] }));
    const measure = {
      id: id(),
      hungId,
      thing: 'opening' as const,
      what: 'low' as const,
      wanted: 1000,
      value: 998,
      sd: 0.5,
    };
    const [a, b] = (await shop().rows()).points;
    const corners = [
      { hungId, corner: 'firstLow' as const, pointId: a!.id },
      { hungId, corner: 'lastLow' as const, pointId: a!.id },
    ];
    expect(refusal(await actions.setPanelMeasures({ hungId, measures: [measure], corners }))).toMatch(/two corners/);
    corners[1]!.pointId = b!.id;
    valueOf(await actions.setPanelMeasures({ hungId, measures: [measure], corners }));
    const packer = { id: id(), jobId, name: 'front left', least: 0, most: 9, step: null, inNow: 3 };
    const seam = {
      ...NEW_SEAM,
      id: id(),
      jobId,
      code: 'DFL',
      name: 'front edge',
      side: 'left' as const,
      pairing: '',
      version: 1,
    };
    const station = { id: id(), seamId: seam.id, number: 1, name: 'top' };
    valueOf(await addSeam({ seam, stations: [station], targets: [] }));
    const effects = [{ packerId: packer.id, stationId: station.id, gap: 0.5, flush: 0 }];
    expect(refusal(await actions.setBodyPackers({ jobId, packers: [{ ...packer, inNow: 12 }], effects: [] }))).toMatch(
      /between the least and the most/,
    );
    expect(refusal(await actions.setBodyPackers({ jobId, packers: [], effects }))).toMatch(/another job/);
    valueOf(await actions.setBodyPackers({ jobId, packers: [packer], effects }));
    const lap = { id: id(), jobId, overId: hungId, underId: under.panel.id, what: '', done: false };
    valueOf(await actions.putLap(lap));
    expect(refusal(await actions.putLap({ ...lap, id: id(), underId: null }))).toMatch(/what lies under it/);
    const paint = { id: id(), jobId, seamId: null, name: 'paint', gap: -0.4, flush: 0, fitted: false };
    valueOf(await actions.setAllowances({ jobId, allowances: [paint] }));
    const trim = {
      id: id(),
      hungId,
      kind: 'edge' as const,
      place: 'rear',
      edge: 'post',
      isAt: 415,
      mustBe: 412,
      done: false,
    };
    valueOf(await actions.putTrim(trim));
    valueOf(await actions.putTrim({ ...trim, done: true }));
    const check = { id: id(), jobId, hungId, kind: 'latch' as const, place: 'striker', wanted: 0, under: 1, over: 1 };
    valueOf(await actions.addFitChecks({ jobId, checks: [check] }));
    valueOf(await actions.readFitCheck({ id: id(), checkId: check.id, value: 2, sd: 0.3 }));
    expect(refusal(await actions.removeFitCheck({ id: check.id }))).toMatch(/stays in the record/);
    valueOf(await actions.addLetGo({ id: id(), hungId, place: 'foot', sprung: 0.4, most: 1 }));
    const found = await page();
    const view = found.panels.find(({ panel }) => panel.id === hungId)!;
    expect(view.trims).toMatchObject([{ done: true, advice: { kind: 'trim', mark: 412 } }]);
    expect(found.checks).toMatchObject([{ panel: 'DL', judged: { verdict: 'outside' } }]);

    const rows = await shop().rows();
    const read = readArchiveDocuments(archiveDocuments(rows));
    if (!read.ok) throw new Error(JSON.stringify(read.faults));
    for (const table of [
      'hungPanels',
      'panelSettings',
      'bodyPackers',
      'packerEffects',
      'openingCorners',
      'shims',
      'panelMeasures',
      'laps',
      'allowances',
      'trims',
      'fitChecks',
      'fitReadings',
      'panelJoints',
      'letGos',
    ] as const)
      expect(read.value[table], table).toEqual(rows[table]);
  });
});
