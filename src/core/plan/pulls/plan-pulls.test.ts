import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../../tests/support/demo-rows';
import { loopModel, pullHome } from '../../../../tests/support/pull-loop';
import { dot, norm, type Vector } from '../../maths/geometry/vector';
import { openHolds, pullingAdvice, pullingPage } from '../../report/pages/pulling';
import { NEW_PULL, type CodedPull, type Hold } from '../../shell/job/entities';
import type { JobRows } from '../../shell/job/job-rows';
import { Job } from '../../shell/job/job';
import { displaced } from '../../structure/stiffness';
import { isCleared, rigKey } from './rig-check';
import { pullModel, type PullModel } from './pull-model';
import { advisePulls } from './plan-pulls';
import { MARGIN, rigForces } from './rig';
import { GONE, tooFarGone } from './too-far-gone';
import { loadOf, tryPull } from './try-pull';
import { watchedIn, workPull } from './worked-pull';

const rows = demoRows('solbris');
const job = Job.of(rows);
const modelOf = (of: Job, holds: readonly Hold[] = openHolds(of)): PullModel => {
  const result = pullModel(of, holds);
  if (!result.ok) throw new Error(result.why);
  return result.model;
};
const model = modelOf(job);
const nodeOf = (code: string) => model.cut.structure.model.nodes.findIndex((node) => node.code === code);
const [p1] = job.pulls as [CodedPull];
const advice = advisePulls(job, model);

describe('the forces of a pull', () => {
  const directions: readonly Vector[] = [
    [1, 0, 0],
    [0, -1, 0],
    [0.6, -0.64, 0.48],
  ];

  it.each(directions)('%s %s %s: what the holds give back balances it, in forces and in moments', (...direction) => {
    const unrated = modelOf(
      job,
      openHolds(job).map((hold) => ({ ...hold, rating: null })),
    );
    const rig = rigForces(unrated, { node: nodeOf('R3L'), direction, rated: null, ramArea: null });
    expect(rig.unbalanced).toBeLessThan(1e-5);
    expect(rig.reactions.reduce((sum, { share }) => sum + dot(share, direction), 0)).toBeCloseTo(-1, 5);
    expect(rig.never).toBeUndefined();
  });

  it('say what bears what it may first, with its margin, and the pressure of that at the pump', () => {
    const free = rigForces(model, { node: nodeOf('R4L'), direction: [1, 0, 0], rated: null, ramArea: null });
    const hardest = free.reactions.filter(({ hold }) => hold)[0]!;
    const rated = (newtons: number) =>
      rigForces(model, { node: nodeOf('R4L'), direction: [1, 0, 0], rated: newtons, ramArea: 2000 });
    expect(rated(1000).never).toEqual({ newtons: MARGIN * 1000, by: 'rated' });
    // 800 N on 20 cm² are 4 bar.
    expect(rated(1000).pressure).toBeCloseTo(4, 9);
    const holds = openHolds(job).map((hold) => ({ ...hold, rating: 2000 }));
    const weak = rigForces(modelOf(job, holds), {
      node: nodeOf('R4L'),
      direction: [1, 0, 0],
      rated: 1e6,
      ramArea: null,
    });
    expect(weak.never!.by).toBe(hardest.node);
    expect(weak.never!.newtons).toBeCloseTo((MARGIN * 2000) / hardest.size, 6);
  });

  it('of a jack between two points stay between them', () => {
    const jack = { node: nodeOf('R4L'), against: nodeOf('R4R'), direction: [0, -1, 0] as const };
    const rig = rigForces(model, { ...jack, rated: null, ramArea: null });
    expect(rig.unbalanced).toBeLessThan(1e-5);
    const into = rig.reactions.reduce((sum, { share }) => sum + share[1], 0);
    expect(Math.abs(into)).toBeLessThan(1e-5);
  });
});

describe('one pull on the model', () => {
  it('leaves its place moved as far as was asked, and comes home by what it was further under load', () => {
    const at = { node: nodeOf('R3L'), direction: [1, 0, 0] as const };
    const tried = tryPull(model, at, 6)!;
    const [on, off] = [tried.loaded, tried.released].map((moves) => moves[6 * at.node]!) as [number, number];
    expect(off).toBeGreaterThan(5.8);
    expect(off).toBeLessThan(6.2);
    expect(tried.springBack).toBeCloseTo(on - off, 9);
  });

  it('has the influence of the frame it stands on: unit forces displace as the solver says', () => {
    const { influence, at } = workPull(job, model, p1, 0)!;
    const unit = displaced(model.stiffness, loadOf(model, { node: at.node, direction: [0, 1, 0] }));
    const node = nodeOf('D1L');
    [0, 1, 2].forEach((k) => expect(influence[1]![3 * node + k]).toBeCloseTo(unit[6 * node + k]!, 8));
    // Maxwell: what a force here moves there, a force there moves here.
    const back = displaced(model.stiffness, loadOf(model, { node, direction: [1, 0, 0] }));
    expect(influence[0]![3 * node]).toBeCloseTo(back[6 * at.node]!, 8);
  });

  it('is watched at its own point first, then where it comes along, then where nothing may change; one stroke less of it', () => {
    const worked = workPull(job, model, p1, 0)!;
    expect(worked.watch[0]).toMatchObject({ pointId: p1.pointId, axis: 0, wanted: true });
    const still = worked.watch.filter(({ wanted }) => !wanted);
    expect(still.length).toBeGreaterThan(0);
    for (const { pointId, stop, axis, loaded } of still) {
      const { off, limit } = model.kept.find((each) => each.pointId === pointId)!;
      // Before it comes to its limit from where it stands.
      expect(off[axis]! + stop).toBeLessThan(limit);
      expect(off[axis]! + stop).toBeGreaterThan(-limit);
      expect(Math.sign(stop)).toBe(Math.sign(loaded));
    }
    const part = watchedIn(worked, { target: worked.tried!.reach / 4, rest: 0 }, 0);
    expect(part.watch[0]!.loaded).toBeCloseTo((worked.shown * worked.tried!.reach) / 4, 6);
    expect(part.watch[1]!.loaded).toBeCloseTo(worked.watch[1]!.loaded / 4, 6);
    expect(part.watch.at(-1)!.stop).toBe(worked.watch.at(-1)!.stop);
  });

  it('says that its place is held, and that the rig is too weak', () => {
    const held: CodedPull = { ...p1, pointId: job.pointCalled('C1L')!.id };
    expect(workPull(job, model, held, 0)!.isHeld).toBe(true);
    expect(workPull(job, model, { ...p1, rated: 500 }, 0)!.pastRating).toBe(true);
    expect(workPull(job, model, { ...p1, rated: 900_000 }, 0)!.isHeld).toBe(false);
  });
});

describe('the pulls that are proposed', () => {
  it('bring what is out nearer, and the worst of it by much', () => {
    const error = (which: 'before' | 'after') =>
      advice.points.reduce((sum, point) => sum + (norm(point[which]) / point.limit) ** 2, 0);
    expect(advice.proposals.length).toBeGreaterThan(0);
    // What stands right is not to be lost: no more is asked of one round.
    expect(error('after')).toBeLessThan(0.75 * error('before'));
  });

  it('move nothing that stands right past its limit, the holds counted that they ask for', () => {
    for (const { moves, limit } of advice.watched) expect(Math.abs(moves)).toBeLessThanOrEqual(limit);
    for (const { without, limit } of advice.holds) expect(without).toBeGreaterThan(limit);
  });

  it('come centre first, and leave out what was declined', () => {
    const order = advice.proposals.map(({ what }) => what.section);
    expect(order).toEqual(order.toSorted((a, b) => Number(b === 'centre') - Number(a === 'centre')));
    const result = pullingAdvice(job, () => undefined);
    if (!result.ok) throw new Error(result.why);
    const { key } = result.advice.proposals[0]!;
    const decided = {
      ...{ id: job.row.id, jobId: job.row.id, kind: 'pull' as const, key, basis: '', shown: '' },
      ...{
        choice: 'declined' as const,
        reason: 'no anchor',
        at: '2026-11-27T08:00:00.000Z',
        author: 'Nils',
        personId: null,
      },
    };
    const without = pullingAdvice(Job.of({ ...rows, adviceTaken: [...rows.adviceTaken, decided] }), () => undefined);
    expect(without.ok && without.advice.proposals.map((each) => each.key)).not.toContain(key);
  });

  it('bring a hidden shell home that is not the model, and leave what stood right where it was', () => {
    const { outside, disturbed, strokes } = pullHome(job, loopModel(job), 3, 'plan');
    expect(outside).toEqual([]);
    expect(disturbed).toBeLessThan(1);
    expect(strokes).toBeLessThan(60);
  });
});

describe('where pulling will not do', () => {
  const at = { pointId: p1.pointId, node: nodeOf('R4L') };

  it('says so of torn metal, and of metal that is gone', () => {
    const entry = { ...rows.logEntries[0]!, id: p1.id, text: 'torn beside the hanger', supersedes: null };
    const torn: JobRows = {
      ...rows,
      logEntries: [...rows.logEntries, entry],
      logSubjects: [...rows.logSubjects, { ...rows.logSubjects[0]!, entryId: entry.id, pointId: p1.pointId }],
      findingDetails: [...rows.findingDetails, { ...rows.findingDetails[0]!, entryId: entry.id, sort: 'crack' }],
    };
    expect(tooFarGone(Job.of(torn), model.cut, at)).toMatchObject({ by: 'crack', text: 'torn beside the hanger' });
    const { structure } = model.cut;
    const thin = (condition: number) => ({
      structure: {
        ...structure,
        model: { ...structure.model, members: structure.model.members.map((member) => ({ ...member, condition })) },
      },
    });
    expect(tooFarGone(job, thin(1 - GONE - 0.01), at)).toMatchObject({ by: 'rust' });
    expect(tooFarGone(job, thin(1 - GONE + 0.01), at)).toBeUndefined();
  });

  it.each([
    ['lodd', 'allUndecided'],
    ['kvist', 'noRound'],
  ] as const)('%s: %s', (name, why) => {
    const result = pullingAdvice(Job.of(demoRows(name)), () => undefined);
    expect(result).toMatchObject({ ok: false, why });
  });
});

describe('a rig', () => {
  it('is another with another direction, rating or hold, and is looked at again then', () => {
    const holds = openHolds(job);
    const key = rigKey(p1, holds, []);
    expect(rigKey({ ...p1, note: 'something else', aimX: 3 }, holds, [])).toBe(key);
    expect(rigKey({ ...p1, dirX: 0, dirY: 1, dirZ: 0 }, holds, [])).not.toBe(key);
    expect(rigKey({ ...p1, rated: 10 }, holds, [])).not.toBe(key);
    expect(rigKey(p1, holds.slice(1), [])).not.toBe(key);
    const event = { ...rows.workEvents[0]!, itemId: p1.id, kind: 'cleared' as const, key };
    expect([isCleared([event], p1.id, key), isCleared([event], p1.id, 'stroke 1')]).toEqual([true, false]);
  });
});

describe('the place for pulling', () => {
  it('learns what comes home in a region from the pulls beside it', () => {
    const other: CodedPull = { ...p1, ...NEW_PULL, id: job.row.id, pointId: job.pointCalled('R3L')!.id };
    const { code: _, ...row } = other;
    const item = { ...job.item(p1.id), id: other.id, code: 'P2', name: 'P2' };
    const page = pullingPage(Job.of({ ...rows, pulls: [...rows.pulls, row], workItems: [...rows.workItems, item] }));
    const [first, second] = page.pulls;
    expect(second!.course.strokes).toEqual([]);
    expect(second!.spring.strokes).toBe(first!.spring.strokes);
  });

  it('leaves a stroke out that contradicts itself', () => {
    const released = rows.readings.find(({ pullId, phase }) => pullId === p1.id && phase === 'released')!;
    const wrong = rows.readings.map((each) => (each === released ? { ...each, value: each.value + 10 } : each));
    const [view] = pullingPage(Job.of({ ...rows, readings: wrong })).pulls;
    expect(view!.contradicts).toEqual([0]);
    expect(view!.spring.strokes).toBe(0);
  });
});
