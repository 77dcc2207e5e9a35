import { CHECK_SD, usualChecks } from '@/core/plan/panels/fit-checks';
import { settingsFor } from '@/core/plan/panels/setting-templates';
import { NEW_HUNG, type HungPanel, type PanelEdge, type PanelMeasure } from '@/core/shell/job/entities';
import type { JobBuilder } from './builder';

interface Hung extends Pick<HungPanel, 'kind' | 'side' | 'long' | 'high' | 'hungAt'> {
  readonly code: string;
  readonly name: string;
  readonly seams: readonly (readonly [code: string, edge: PanelEdge, turned?: boolean])[];
}

/** A panel with its hinges as they are on most cars. */
function hung(job: JobBuilder, { code, name, seams, ...panel }: Hung): string {
  const { later, jobId } = job;
  const id = later.uuid();
  job.add('workItems', { id, jobId, kind: 'hung', code, name, version: 1 });
  job.add('hungPanels', { ...NEW_HUNG, ...panel, id, jobId, version: 1 });
  for (const [seam, edge, turned = false] of seams) {
    const { id: seamId } = job.rows.seams.find((each) => each.code === seam)!;
    job.add('panelSeams', { hungId: id, seamId, edge, turned });
  }
  for (const setting of settingsFor(panel)) job.add('panelSettings', { ...setting, id: later.uuid(), hungId: id });
  return id;
}

/** The estate's doors and bonnet: hung to see how they sit; the left door is right, and its opening leans in at the B post foot. */
export function solbrisPanels(job: JobBuilder, author: string): void {
  const { later, jobId } = job;
  const door = { kind: 'door', long: 1010, high: 880, hungAt: 'front' } as const;
  const left = hung(job, {
    ...{ ...door, code: 'DL', name: 'Left door', side: 'left' },
    seams: [
      ['DFL', 'front'],
      ['DBL', 'rear'],
    ],
  });
  const right = hung(job, {
    ...{ ...door, code: 'DR', name: 'Right door', side: 'right' },
    seams: [
      ['DFR', 'front'],
      ['DBR', 'rear'],
    ],
  });
  hung(job, {
    ...{ code: 'BN', name: 'Bonnet', kind: 'bonnet', side: 'centre', long: 1040, high: 1180, hungAt: 'rear' },
    seams: [
      ['BNL', 'left'],
      ['BNR', 'right'],
    ],
  });
  for (const thickness of [0.5, 0.8, 1.5]) job.add('shims', { id: later.uuid(), jobId, thickness, pieces: 4 });
  // The post foot stands 2.6 mm forward and 5 mm inward: the opening is short along its foot and across one diagonal.
  const wanted = { low: 1019, highUp: 1019, front: 889, rear: 889, down: 1352.3, up: 1352.3, twist: 0 } as const;
  const off = {
    panel: { low: 0.2, highUp: -0.3, front: 0.1, rear: 0.2, down: -0.1, up: 0.3, twist: 0.4 },
    opening: { low: -2.8, highUp: 0.3, front: -0.2, rear: 0.1, down: -2.1, up: 0.2, twist: 4.6 },
  } as const;
  for (const thing of ['panel', 'opening'] as const)
    for (const what of Object.keys(wanted) as PanelMeasure['what'][]) {
      const value = wanted[what] + off[thing][what];
      job.add('panelMeasures', {
        ...{ id: later.uuid(), hungId: left, thing, what, wanted: wanted[what], value: Number(value.toFixed(1)) },
        ...{ sd: 0.4, at: job.now(), author },
      });
    }
  for (const [corner, code] of [
    ['firstLow', 'A1R'],
    ['lastLow', 'B1R'],
    ['lastHigh', 'B2R'],
    ['firstHigh', 'A2R'],
  ] as const)
    job.add('openingCorners', {
      hungId: right,
      corner,
      pointId: job.rows.points.find((each) => each.code === code)!.id,
    });
  for (const [hungId, name, place] of [
    [left, 'S1', 'upper hinge, front hole'],
    [left, 'S2', 'lower hinge, front hole'],
    [right, 'S1', 'upper hinge, front hole'],
  ] as const)
    job.add('fixings', {
      id: later.uuid(),
      hungId,
      kind: 'screw',
      name,
      joint: null,
      place,
      closedAt: null,
      closedBy: '',
    });
  for (const itemId of [left, right])
    for (const kind of ['gripped', 'clamped', 'pinned'] as const)
      job.wait(4).add('workEvents', {
        ...{ id: later.uuid(), itemId, kind, key: '', at: job.now(), author, reason: '', value: null },
      });
  const sill = { kind: 'skin', side: 'left', long: 1480, high: 190, hungAt: null, seams: [] } as const;
  const inner = hung(job, { ...sill, code: 'SI', name: 'Left inner sill' });
  const outer = hung(job, { ...sill, code: 'SO', name: 'Left outer sill' });
  job.add('laps', { id: later.uuid(), jobId, overId: outer, underId: inner, what: '', done: false });
  job.add('laps', {
    ...{ id: later.uuid(), jobId, overId: outer, underId: null, done: false },
    what: 'weld-through primer on the closed faces',
  });
  const ofCut = new Map(job.rows.joints.map((joint) => [joint.beside, joint.id]));
  for (const [name, edge] of [
    ['A post foot', 'front'],
    ['B post foot', null],
    ['floor flange', 'bottom'],
  ] as const)
    job.add('panelJoints', { hungId: inner, name, edge, jointId: ofCut.get(name) ?? null });
  for (const [key, kind] of [
    ['A post foot', 'gripped'],
    ['A post foot', 'clamped'],
    ['B post foot', 'gripped'],
  ] as const)
    job.wait(4).add('workEvents', {
      ...{ id: later.uuid(), itemId: inner, kind, key, at: job.now(), author, reason: '', value: null },
    });
  const doors = job.rows.hungPanels
    .filter(({ kind }) => kind === 'door')
    .map(({ id, kind, side }) => ({ id, kind, side }));
  const read: Readonly<Record<string, number>> = { latch: 0.6, jointStep: -0.3, swage: 0.4, lamp: 0.5 };
  for (const check of usualChecks(doors)) {
    const checkId = later.uuid();
    job.add('fitChecks', { ...check, id: checkId, jobId });
    const value = check.hungId === left && check.kind === 'swage' ? 1.8 : read[check.kind];
    if (value !== undefined)
      job.add('fitReadings', { id: later.uuid(), checkId, value, sd: CHECK_SD[check.kind], at: job.now(), author });
  }
  job.add('allowances', {
    ...{ id: later.uuid(), jobId, seamId: null, name: 'paint on both edges', gap: -0.4, flush: 0, fitted: true },
  });
}
