import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../../tests/support/demo-rows';
import { norm, subtract } from '../../maths/geometry/vector';
import { NEW_WELD_SEAM, type WeldSeam } from '../../shell/job/entities';
import { Job } from '../../shell/job/job';
import { clock, layoutFaultText, layoutNoteText, layoutText, schoolText } from '../weld-words';
import { placeKey, stillWarm, tooWarmBeside, weldingPage } from './welding';

const rows = demoRows('solbris');
const joint = rows.joints.find(({ factorySpots }) => factorySpots === 14)!;
const words = { length: (mm: number) => `${mm.toFixed(1)} mm` };
const idOf = (code: string) => rows.points.find((each) => each.code === code)!.id;
const seam: WeldSeam = {
  ...NEW_WELD_SEAM,
  ...{ id: joint.id, jobId: joint.jobId, kind: 'plug', process: 'mig', long: 400, flange: 18, school: 'centre' },
};
const pageOf = (more: Partial<WeldSeam> = {}, extra = {}) =>
  weldingPage(Job.of({ ...rows, weldSeams: [{ ...seam, ...more }], weldStretches: [], ...extra }));
const planOf = (...of: Parameters<typeof pageOf>) =>
  pageOf(...of).joints.find((each) => each.joint.id === joint.id)!.plan!;

describe('the place for welding', () => {
  it('lists the joints the cut made, and marks out those that are said', () => {
    const page = pageOf();
    expect(page.joints.map(({ joint: { id } }) => id).toSorted()).toEqual(rows.joints.map(({ id }) => id).toSorted());
    expect(page.joints.filter(({ plan }) => plan)).toHaveLength(1);
    const { layout, plans } = planOf();
    expect(layout.places).toHaveLength(14);
    expect(plans.map(({ school }) => school)).toEqual(['coolest', 'centre', 'backStep', 'inTurn']);
    expect(layoutText(seam, layout, words)).toMatch(/^14 plugs along 400.0 mm; about \d+ min .*, \d+ g of wire$/);
    expect(schoolText(plans[0]!)).toMatch(/^\d+:\d\d/);
  });

  it('lays plugs along the chart’s line between the points at its ends', () => {
    const { task, layout } = planOf({ firstPointId: idOf('S1L'), lastPointId: idOf('S2L') });
    const [first, last] = ['S1L', 'S2L'].map((code) => {
      const { x, y, z } = Job.of(rows).references.points.get(idOf(code))!.row;
      return [x, y, z] as const;
    });
    const share = layout.places[3]!.along / 400;
    const whole = norm(subtract(last!, first!));
    expect(norm(subtract(task.plugs[3]!.at, first!))).toBeCloseTo(share * whole, 9);
    expect(norm(subtract(task.plugs[3]!.at, last!))).toBeCloseTo((1 - share) * whole, 9);
  });

  it('knows what is ticked, until it is taken back or the seam is marked out anew', () => {
    const key = placeKey(planOf().layout.places[0]!.along);
    const event = (kind: 'ticked' | 'unticked', n: number) => ({
      ...{ id: `e${n}`, itemId: joint.id, kind, key, at: `2026-11-27T10:0${n}:00.000Z`, author: 'Nils' },
      ...{ reason: '', value: null },
    });
    expect(planOf({}, { workEvents: [event('ticked', 1)] }).done).toMatchObject([{ key }]);
    expect(planOf({}, { workEvents: [event('ticked', 1), event('unticked', 2)] }).done).toEqual([]);
  });

  it('warns of a joint on the same panel that is still hot, by when it was ticked, until it has cooled', () => {
    const beside = rows.joints.find((each) => each.panelId === joint.panelId && each.id !== joint.id)!;
    const at = '2026-11-27T10:00:00.000Z';
    const keys = planOf()
      .layout.places.slice(0, 3)
      .map(({ along }) => placeKey(along));
    const page = pageOf(
      {},
      {
        weldSeams: [seam, { ...seam, id: beside.id }],
        workEvents: keys.map((key, n) => ({
          ...{ id: `e${n}`, itemId: joint.id, kind: 'ticked', key, at, author: 'Nils', reason: '', value: null },
        })),
      },
    ).joints;
    const view = page.find((each) => each.joint.id === beside.id)!;
    const after = (seconds: number) => tooWarmBeside(page, view, Date.parse(at) + 1000 * seconds);
    expect(after(5)).toMatchObject([{ beside: joint.beside }]);
    expect(after(1800)).toEqual([]);
    const self = page.find((each) => each.joint.id === joint.id)!;
    expect(tooWarmBeside(page, self, Date.parse(at) + 5000)).toEqual([]);
    // By hand: the middle of three plugs 29 mm apart, five seconds after, in 0.9 mm of steel.
    const { seconds, energy } = self.plan!.task.plugs[1]!;
    const [k, c, d, h] = [50, 7850 * 490, 0.0009, 15];
    const r = (self.plan!.layout.places[1]!.along - self.plan!.layout.places[0]!.along) / 1000;
    const one = (energy / (4 * Math.PI * k * d * 5)) * Math.exp((-2 * h * 5) / (c * d));
    const other = one * Math.exp(-(r ** 2) / (4 * (k / c) * 5));
    expect(seconds).toBeGreaterThan(1);
    expect(stillWarm(self.plan!, Date.parse(at) + 5000)).toBeCloseTo(one + 2 * other, 6);
  });

  it('says in words what speaks against it and what is to be done', () => {
    const said = (faults: readonly { readonly kind: string }[]) =>
      faults.map((fault) => layoutFaultText(fault as never, words)).join(' ');
    const { layout } = planOf({ flange: 9 });
    expect(said(layout.faults)).toMatch(/flange is 9.0 mm wide and such a hole wants 12.0 mm/);
    expect(said([{ kind: 'soft', what: 'lead', from: 1, to: 2 } as never])).toMatch(
      /lead from 1.0 mm to 2.0 mm: nothing is welded/,
    );
    expect(said([{ kind: 'noThickness' }, { kind: 'noProcess' }])).toMatch(/How thick.*Say what it is welded with/);
    expect(said([{ kind: 'tooNear', pitch: 9, least: 18 } as never])).toMatch(/near as 9.0 mm/);
    const note = (each: object) => layoutNoteText(each as never, words);
    expect(note({ kind: 'backing', numbers: [3, 4] })).toMatch(/behind places 3 and 4, counted from the first end/);
    expect(note({ kind: 'unreachable', numbers: [1, 2, 3, 4, 5, 6, 7] })).toMatch(/gets to 7 places/);
    expect(note({ kind: 'gap', gap: 0.9 })).toMatch(/up to 0.9 mm/);
    expect(note({ kind: 'gap', gap: 0 })).toBe('The edges touch.');
    expect(note({ kind: 'more', count: 19, factory: 14 })).toBe('19 places where the factory had 14.');
    expect(note({ kind: 'bondCold' })).toMatch(/No heat/);
    expect([clock(59.6), clock(245)]).toEqual(['1:00', '4:05']);
  });

  it('bonds without an order', () => {
    const { plans, layout } = planOf({ kind: 'bond', process: null, openFor: 20, clampedFor: 240 });
    expect(plans).toEqual([]);
    expect(layoutText({ ...seam, kind: 'bond' }, layout, words)).toBe('Bonded along 400.0 mm');
    const timed = { ...seam, kind: 'bond' as const, openFor: 20, clampedFor: 240 };
    expect(layoutText(timed, layout, words)).toBe('Bonded along 400.0 mm, open for 20 min, clamped for 240 min');
    const tig = { ...seam, kind: 'butt' as const, process: 'tig' as const };
    expect(layoutText(tig, { ...layout, stops: [130] }, words)).toMatch(/; stops at 130.0 mm$/);
  });
});
