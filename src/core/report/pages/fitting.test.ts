import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../../tests/support/demo-rows';
import { Job } from '../../shell/job/job';
import type { JobRows } from '../../shell/job/job-rows';
import { heldPanels, holdingFaults, movesTo } from '../../plan/panels/holding';
import { seamsAsLastRead } from '../../round/judge/last-read';
import { asItIs } from '../../plan/panels/fewest-settings';
import { hidden } from '../../plan/panels/hidden';
import {
  byPointsText,
  hangText,
  hiddenText,
  holdingFaultText,
  inOrder,
  instruction,
  separationText,
  wayWords,
} from '../fitting-words';
import { fittingPage } from './fitting';

const rows = demoRows('solbris');
const job = Job.of(rows);
const page = fittingPage(job);
const words = { length: (mm: number) => mm.toFixed(1) };
const view = (code: string) => page.panels.find(({ panel }) => panel.code === code)!;
const panelOf = (of: Job, code: string) => of.hungPanels.find((each) => each.code === code)!;
const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;

describe('the place for fitting', () => {
  it('blames the opening of the left door, whose post foot was pushed in, and sends it to pulls', () => {
    const { separation, edges } = view('DL');
    expect(separation).toMatchObject({ says: 'opening', panel: { isWrong: false } });
    expect(separationText(separation!, edges, words)).toMatch(/too small along the bottom.*pulls or braces/);
  });

  it('leaves a door alone that hangs as it should', () => {
    const { hang } = view('DR');
    if (!hang.ok) throw new Error(hang.kind);
    expect(hang.plan.settings.every(({ advised }) => advised === 0)).toBe(true);
    expect(hangText(hang.plan)).toMatch(/hangs as well as its settings allow/);
  });

  it('says what to do in the order it is done, with the shims that are there', () => {
    const { hang } = view('DL');
    if (!hang.ok) throw new Error(hang.kind);
    const steps = inOrder(hang.plan.settings).flatMap(
      (each) => instruction(each, each.advised, rows.shims, words) ?? [],
    );
    expect(steps[0]).toMatch(/^Lower hinge \d\.\d forward$/);
    expect(steps.join('; ')).toMatch(/a shim of \d\.\d from under it|shim of/);
  });

  it('knows which way a setting goes, at a door, a lid and a tailgate', () => {
    expect(wayWords({ along: [0, -1, 0], way: 'out' })).toEqual(['outward', 'inward']);
    expect(wayWords({ along: [0, 0, 1], way: 'out' })).toEqual(['up', 'down']);
    expect(wayWords({ along: [0, 1, 0], way: 'high' })).toEqual(['to the right', 'to the left']);
    expect(wayWords({ along: [1, 0, 0], way: 'long' })).toEqual(['rearward', 'forward']);
  });

  it('takes the opening from its datum points too, in the round its gaps were read in', () => {
    const { byPoints, separation, edges, measures } = view('DR');
    expect(measures).toEqual([]);
    const idOf = (code: string) => rows.points.find((each) => each.code === code)!.id;
    // By hand: the chart's own distance between the lower hinge bolt and the post foot.
    const [a, b] = ['A1R', 'B1R'].map((each) => job.references.points.get(idOf(each))!.row);
    const low = byPoints!.lengths.find(({ what }) => what === 'low')!;
    expect(low.wanted).toBeCloseTo(Math.hypot(a!.x - b!.x, a!.y - b!.y, a!.z - b!.z), 9);
    expect([low.between, byPoints!.round.name]).toEqual([['A1R', 'B1R'], 'As found']);
    expect(byPoints!.lengths).toHaveLength(6);
    expect(byPointsText(byPoints!, edges, words)).toMatch(/In As found .* along the bottom \(A1R – B1R\)/i);
    expect(separation!.says).toBe('cannotTell');
    // A chart that has the post foot 6 mm further to the rear: the opening is too short along its foot, and the points say so.
    const moved = fittingPage(
      Job.of({
        ...rows,
        referencePoints: rows.referencePoints.map((each) =>
          each.pointId === idOf('B1R') ? { ...each, x: each.x + 6 } : each,
        ),
      }),
    ).panels.find(({ panel }) => panel.code === 'DR')!;
    expect(moved.separation!.opening.isWrong).toBe(true);
    const foot = moved.separation!.opening.lengths.find(({ what }) => what === 'low')!;
    expect(foot.value).toBeLessThan(-3);
    expect(foot.verdict).toBe('outside');
  });

  it('warns of an opening that is wrong behind gaps that look right by shims, or by a spacer left out', () => {
    const { panel, hang } = view('DL');
    if (!hang.ok) throw new Error(hang.kind);
    const right = hang.plan.stations.map((each) => ({
      ...each,
      gap: { ...each.gap, now: each.gap.target + 0.5 },
      ...(each.flush ? { flush: { ...each.flush, now: each.flush.target } } : {}),
    }));
    const shimmed = (inNow: number) =>
      Job.of({
        ...rows,
        panelSettings: rows.panelSettings.map((each) =>
          each.hungId === panel.id && each.name === 'Lower hinge' && each.kind === 'shims' ? { ...each, inNow } : each,
        ),
      });
    expect(hidden(job, panel, right, { ok: false, kind: 'noSettings' })).toBeUndefined();
    const by = hidden(shimmed(-1.5), panel, right, { ok: false, kind: 'noSettings' });
    expect(by).toEqual({ by: 'now', settings: ['Lower hinge'] });
    expect(hiddenText(by!)).toMatch(/look right only by .* Lower hinge: the opening is wrong/);
    expect(hidden(shimmed(-1.5), panel, hang.plan.stations, hang)).toBeUndefined();
    const settings = hang.plan.settings.map((each) => ({ ...each, advised: 1 }));
    const all = { ...hang.plan, settings, after: right.map(asItIs) };
    expect(hidden(job, panel, hang.plan.stations, { ok: true, plan: all })).toEqual({ by: 'advice' });
  });

  it('leaves room for what is not fitted yet', () => {
    const [seam] = rows.seams;
    const without = (fitted: boolean): JobRows => ({
      ...rows,
      allowances: [{ id: uuid(1), jobId: job.row.id, seamId: seam!.id, name: 'seal', gap: -0.4, flush: 0.2, fitted }],
    });
    const gap = (of: JobRows) =>
      seamsAsLastRead(Job.of(of)).seams[0]!.stations.find(({ quantity }) => quantity === 'gap')!.target!;
    expect(gap(without(false)).value - gap(without(true)).value).toBeCloseTo(0.4, 9);
    expect(gap(without(false)).toCome).toBeCloseTo(-0.4, 9);
  });
});

describe('the holding ladder', () => {
  const at = '2026-11-25T10:00:00.000Z';
  const left = panelOf(job, 'DL');
  const joined = (more: Partial<JobRows>): JobRows => ({ ...rows, ...more });
  const kinds = (of: JobRows, to: 'dowelled' | 'tacked' | 'clamped', code = 'DL') =>
    holdingFaults(Job.of(of), panelOf(Job.of(of), code), to).map(({ kind }) => kind);

  it('asks for named dowels, and for nothing on the way back', () => {
    expect(kinds(rows, 'dowelled')).toEqual(['unfixed']);
    expect(kinds(rows, 'clamped')).toEqual([]);
    const dowel = {
      id: uuid(2),
      hungId: left.id,
      kind: 'dowel' as const,
      name: 'D1',
      joint: null,
      place: '',
      closedAt: null,
      closedBy: '',
    };
    expect(kinds(joined({ fixings: [...rows.fixings, dowel] }), 'dowelled')).toEqual([]);
  });

  it('tacks nothing that was not let go, springs, was not read again, or is a stand-in', () => {
    const test = {
      id: uuid(3),
      hungId: left.id,
      place: 'foot',
      sprung: 2,
      most: 1,
      at,
      author: 'Nils',
      personId: null,
    };
    expect(kinds(rows, 'tacked')).toEqual(['notLetGo', 'gapsNotRead']);
    const panelJoints = [{ hungId: left.id, name: 'foot', edge: null, jointId: null }];
    expect(kinds(joined({ panelJoints, letGos: [test] }), 'tacked')).toEqual(['springs', 'gapsNotRead']);
    const eased = { ...test, id: uuid(4), sprung: 0.4, at: '2026-11-25T11:00:00.000Z' };
    expect(kinds(joined({ panelJoints, letGos: [test, eased] }), 'tacked')).toEqual(['gapsNotRead']);
    const standIn = rows.hungPanels.map((each) => (each.id === left.id ? { ...each, standIn: true } : each));
    expect(kinds(joined({ panelJoints, letGos: [eased], hungPanels: standIn }), 'tacked')).toEqual([
      'standIn',
      'gapsNotRead',
    ]);
  });

  it('traps no lap, no bracket and no face that wants paint', () => {
    const right = panelOf(job, 'DR');
    const bonnet = panelOf(job, 'BN');
    const laps = [
      { id: uuid(5), jobId: job.row.id, overId: left.id, underId: bonnet.id, what: '', done: false },
      {
        id: uuid(6),
        jobId: job.row.id,
        overId: left.id,
        underId: null,
        what: 'primer on the closed face',
        done: false,
      },
    ];
    expect(kinds(joined({ laps }), 'tacked')).toEqual(['notLetGo', 'gapsNotRead', 'lap', 'under']);
    const tacked = { ...rows.workEvents.at(-1)!, id: uuid(7), itemId: left.id, kind: 'tacked' as const, key: '', at };
    const trapped = joined({ laps, workEvents: [...rows.workEvents, tacked] });
    expect(kinds(trapped, 'tacked', 'BN')).toContain('trapped');
    const floats = rows.hungPanels.map((each) => (each.id === left.id ? { ...each, floatsUntilId: right.id } : each));
    expect(kinds(joined({ hungPanels: floats }), 'dowelled')).toContain('floats');
    expect(holdingFaultText({ kind: 'lap', under: 'BN', at: 'off' }, words)).toMatch(/shut out/);
  });

  const joint = (name: string, edge: 'front' | 'rear' | null = null) => ({
    hungId: left.id,
    name,
    edge,
    jointId: null,
  });

  it('clamps the end first that fights hardest', () => {
    const sprang = (n: number, place: string, sprung: number) => ({
      ...{ id: uuid(20 + n), hungId: left.id, place, sprung, most: 1, at, author: 'Nils', personId: null },
    });
    const letGos = [sprang(1, 'head', 2), sprang(2, 'foot', 0.8), sprang(3, 'head', 0.3)];
    const panelJoints = ['head', 'foot', 'middle'].map((name) => joint(name));
    const held = heldPanels(Job.of(joined({ letGos, panelJoints }))).find(({ panel }) => panel.code === 'DL')!;
    expect(held.joints.map((each) => [each.joint.name, each.letGo?.sprung])).toEqual([
      ['foot', 0.8],
      ['head', 0.3],
      ['middle', undefined],
    ]);
  });

  describe('of a panel with joints of its own', () => {
    const went = (n: number, key: string, kind: 'clamped' | 'tacked' | 'off') => ({
      ...{ ...rows.workEvents.at(-1)!, id: uuid(30 + n), itemId: left.id, key, kind, at },
    });
    const panelJoints = [joint('front flange', 'front'), joint('rear flange', 'rear')];
    const withEvents = (...events: ReturnType<typeof went>[]) =>
      Job.of(joined({ panelJoints, workEvents: [...rows.workEvents, ...events] }));
    const stands = (of: Job) => {
      const held = heldPanels(of).find(({ panel }) => panel.code === 'DL')!;
      return [held.rung, ...held.joints.map(({ rung }) => rung)];
    };

    it('a joint begins where the whole panel was, and the panel is where its slackest joint is', () => {
      expect(stands(withEvents())).toEqual(['pinned', 'pinned', 'pinned']);
      expect(stands(withEvents(went(1, 'rear flange', 'tacked')))).toEqual(['pinned', 'pinned', 'tacked']);
      expect(stands(withEvents(went(1, 'front flange', 'clamped')))).toEqual(['clamped', 'clamped', 'pinned']);
    });

    it('the whole panel brings up what is below, and comes back only where nothing is', () => {
      const of = withEvents(went(1, 'rear flange', 'tacked'));
      const panel = panelOf(of, 'DL');
      expect(movesTo(of, panel, 'dowelled')).toEqual(['front flange']);
      expect(movesTo(of, panel, 'off')).toEqual(['front flange', 'rear flange']);
      expect(movesTo(of, panel, 'tacked', 'rear flange')).toEqual([]);
    });

    it('each is let go by itself, on dowels of its own, with the gaps that it moves read again', () => {
      const of = withEvents();
      const panel = panelOf(of, 'DL');
      const seam = (edge: string) =>
        rows.panelSeams.flatMap((each) =>
          each.hungId === left.id && each.edge === edge ? job.seams.filter(({ id }) => id === each.seamId) : [],
        );
      const unread = (name: string) =>
        holdingFaults(of, panel, 'tacked', name).flatMap((fault) => (fault.kind === 'gapsNotRead' ? fault.seams : []));
      for (const [name, far] of [
        ['front flange', 'rear'],
        ['rear flange', 'front'],
      ] as const) {
        const codes = seam(far).map(({ code }) => code);
        expect(codes.length).toBeGreaterThan(0);
        expect(unread(name).filter((code) => codes.includes(code))).toEqual([]);
        expect(holdingFaults(of, panel, 'tacked', name)).toContainEqual({ kind: 'notLetGo', joint: name });
      }
      expect(
        new Set(holdingFaults(of, panel, 'tacked').flatMap((f) => (f.kind === 'notLetGo' ? f.joint : []))),
      ).toEqual(new Set(['front flange', 'rear flange']));
      const dowel = { hungId: left.id, kind: 'dowel' as const, place: '', closedAt: null, closedBy: '' };
      const fixings = [{ ...dowel, id: uuid(40), name: 'D1', joint: 'rear flange' }];
      const doweled = Job.of(joined({ panelJoints, fixings }));
      expect(holdingFaults(doweled, panel, 'dowelled', 'rear flange')).toEqual([]);
      expect(holdingFaults(doweled, panel, 'dowelled', 'front flange')).toEqual([
        { kind: 'unfixed', wants: 'dowel', joint: 'front flange' },
      ]);
    });

    it('is off when its last joint is', () => {
      const of = withEvents(went(1, 'rear flange', 'off'));
      expect(heldPanels(of).find(({ panel }) => panel.code === 'DL')!.timesOff).toBe(0);
      const off = withEvents(went(1, 'rear flange', 'off'), went(2, 'front flange', 'off'));
      expect(heldPanels(off).find(({ panel }) => panel.code === 'DL')!.timesOff).toBe(1);
    });
  });

  it('counts how often a panel came off', () => {
    const off = (['off', 'gripped', 'off'] as const).map((kind, n) => ({
      ...{ ...rows.workEvents.at(-1)!, id: uuid(10 + n), itemId: left.id, kind, key: '', at },
    }));
    const held = heldPanels(Job.of(joined({ workEvents: [...rows.workEvents, ...off] })));
    expect(held.find(({ panel }) => panel.code === 'DL')).toMatchObject({ rung: 'off', timesOff: 2 });
  });
});
