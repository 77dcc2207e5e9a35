import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../../tests/support/demo-rows';
import type { Vector } from '../../maths/geometry/vector';
import { pullingPage } from '../../report/pages/pulling';
import type { Hold, Plate } from '../../shell/job/entities';
import { Job } from '../../shell/job/job';
import { displaced } from '../../structure/stiffness';
import { barPull, EYE, isStraight, plateRows } from './bars';
import { movedAt } from './moves';
import { advisePulls } from './plan-pulls';
import { pullModel, type PullModel } from './pull-model';
import { rigForces } from './rig';
import { along, loadOf, sharesOf, tryPull } from './try-pull';

const rows = demoRows('solbris');
const job = Job.of(rows);
const clamp = (code: string): Hold => ({
  ...{ id: '', itemId: '', kind: 'clamp', rating: null },
  pointId: job.pointCalled(code)!.id,
});
const modelOf = (): PullModel => {
  const result = pullModel(job, ['C1L', 'C1R', 'S3L', 'S3R'].map(clamp));
  if (!result.ok) throw new Error(result.why);
  return result.model;
};
const held = { model: modelOf() };
const nodeOf = (code: string) => held.model.cut.structure.model.nodes.findIndex((node) => node.code === code);

/** The left rear leg pushed in to the right by so much at each of its points, mm; all else stands right. */
function pushedIn(depths: Readonly<Record<string, number>>): PullModel {
  const wanted = Object.entries(depths).map(([code, depth]) => ({
    ...{ pointId: job.pointCalled(code)!.id, node: nodeOf(code), limit: 3, weighedLimit: 3, isOut: true },
    move: [0, -depth, 0] as Vector,
  }));
  return { ...held.model, wanted, kept: [] };
}

describe('places that were pushed in along one line', () => {
  it('are one row, with how far the deepest stands in beyond the others', () => {
    const [row, ...more] = plateRows(pushedIn({ R1L: 6, R2L: 16, R3L: 7, R4L: 5 }));
    expect(more).toEqual([]);
    expect(row!.places.map(({ node }) => node)).toEqual(['R1L', 'R2L', 'R3L', 'R4L'].map(nodeOf));
    expect(row!.deepest.node).toBe(nodeOf('R2L'));
    // The line through 6, 7 and 5 by least squares at 2210, 3000 and 3240 is 6.07 at 2650.
    expect(row!.bow).toBeCloseTo(9.93, 2);
    expect(isStraight(row!)).toBe(false);
  });

  it('are none where they are two, or go different ways', () => {
    expect(plateRows(pushedIn({ R1L: 6, R2L: 9 }))).toEqual([]);
    expect(plateRows(pushedIn({ R1L: 6, R2L: 9, R3L: -7 }))).toEqual([]);
  });

  it('are pulled at the deepest alone until a bar goes through, and no further', () => {
    const { proposals } = advisePulls(job, pushedIn({ R1L: 6, R2L: 16, R3L: 7, R4L: 5 }));
    const first = proposals[0]!;
    expect(first.what.pointId).toBe(job.pointCalled('R2L')!.id);
    expect(first.what.gain).toBeLessThanOrEqual(10);
    expect(first.why).toContainEqual(expect.objectContaining({ kind: 'deepestFirst' }));
    expect(proposals.every(({ what }) => what.plates === undefined)).toBe(true);
  });

  it('then all together by a bar, the force shared so that each goes as far as it is out', () => {
    const model = pushedIn({ R1L: 8, R2L: 10, R3L: 11, R4L: 11 });
    const [row] = plateRows(model);
    expect(row!.bow).toBeLessThan(EYE);
    const bar = barPull(model, row!)!;
    expect(sharesOf(bar).reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 12);
    const under = displaced(model.stiffness, loadOf(model, bar));
    const used = sharesOf(bar).map(({ node }) => {
      const { move } = model.wanted.find((each) => each.node === node)!;
      return movedAt(under, node)[1] / move[1];
    });
    for (const share of used) expect(share / used[0]!).toBeCloseTo(1, 6);
    const [first] = advisePulls(job, model).proposals;
    expect(first!.what.plates!.length).toBe(bar.plates!.length);
    expect(first!.why).toContainEqual(expect.objectContaining({ kind: 'bar' }));
  });
});

describe('a bar through several plates', () => {
  const bar = {
    ...{ node: nodeOf('R3L'), direction: [0, -1, 0] as Vector },
    plates: [
      { node: nodeOf('R1L'), share: 0.3 },
      { node: nodeOf('R4L'), share: 0.25 },
    ],
  };

  it('is held in balance, each plate with its share', () => {
    const rig = rigForces(held.model, { ...bar, rated: null, ramArea: null });
    expect(rig.unbalanced).toBeLessThan(1e-5);
    expect(loadOf(held.model, bar)[6 * nodeOf('R3L') + 1]).toBeCloseTo(-0.45, 12);
  });

  it('leaves its own place moved as far as was asked', () => {
    const tried = tryPull(held.model, bar, 5)!;
    expect(along(tried.released, bar)).toBeGreaterThan(4.85);
    expect(along(tried.released, bar)).toBeLessThan(5.15);
  });

  it('is a fact of its pull: what the model says of it changes with its plates', () => {
    const [pull] = job.pulls;
    const plates: Plate[] = [
      { id: pull!.jobId, itemId: pull!.id, pointId: job.pointCalled('R2L')!.id, share: 0.4 },
      { id: pull!.roundId, itemId: pull!.id, pointId: job.pointCalled('R3L')!.id, share: 0.3 },
    ];
    const [alone] = pullingPage(job).pulls;
    const [barred] = pullingPage(Job.of({ ...rows, plates })).pulls;
    expect(barred!.plates.map(({ code }) => code)).toEqual(['R2L', 'R3L']);
    expect(barred!.worked!.at.plates).toHaveLength(2);
    expect(barred!.worked!.stays).not.toEqual(alone!.worked!.stays);
  });
});
