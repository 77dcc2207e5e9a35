import { describe, expect, it } from 'vitest';
import { NEW_WELD_SEAM, type WeldSeam } from '../../shell/job/entities';
import { layOut } from './layout';
import { weldOrder } from './order';
import { heatAt, inTurnWith, schoolsOf, weldBy, weldTask } from './schools';

const SEAM: WeldSeam = {
  ...NEW_WELD_SEAM,
  ...{ id: 's', jobId: 'j', kind: 'plug', process: 'mig', long: 400, flange: 18 },
};
const JOINT = { thicknessA: 0.9, thicknessB: 1.2, factorySpots: 8 };
const taskOf = (spots: number, more: Partial<WeldSeam> = {}) => {
  const seam = { ...SEAM, ...more };
  return weldTask(seam, JOINT, layOut(seam, { ...JOINT, factorySpots: spots }, []));
};
const plugs = (plan: { readonly order: readonly { readonly plug: number }[] }) => plan.order.map(({ plug }) => plug);

describe('the schools of welding a seam', () => {
  it('lay every place once, from the middle with skips, in steps back, in turn, or from the end that is held', () => {
    const task = taskOf(8);
    expect(plugs(weldBy('centre', task, 'both'))).toEqual([3, 5, 1, 7, 4, 2, 6, 0]);
    expect(plugs(weldBy('backStep', task, 'last'))).toEqual([2, 1, 0, 5, 4, 3, 7, 6]);
    expect(plugs(weldBy('backStep', task, 'first'))).toEqual([5, 6, 7, 2, 3, 4, 0, 1]);
    expect(plugs(weldBy('inTurn', task, 'last'))).toEqual([0, 4, 1, 5, 2, 6, 3, 7]);
    expect(plugs(weldBy('oneEnd', task, 'first'))).toEqual([7, 6, 5, 4, 3, 2, 1, 0]);
    for (const n of [1, 2, 5, 9])
      for (const school of ['coolest', 'centre', 'backStep', 'inTurn', 'oneEnd'] as const)
        expect(plugs(weldBy(school, taskOf(n), 'both')).toSorted((a, b) => a - b)).toEqual(
          taskOf(n).plugs.map((_, i) => i),
        );
  });

  it('is nowhere later than the best of all orders where the coolest is sought', () => {
    const task = taskOf(8);
    const best = weldOrder(task);
    if (!best.ok) throw new Error();
    expect(weldBy('coolest', task, 'both').finished).toBe(best.finished);
    for (const school of schoolsOf(SEAM))
      expect(weldBy(school, task, 'both').finished).toBeGreaterThanOrEqual(best.finished - 1e-6);
  });

  it('gains by skips where there are too many to search, and waits where one works beside hot metal', () => {
    const task = taskOf(60, { long: 1600 });
    const [run, skips] = [weldBy('oneEnd', task, 'last'), weldBy('coolest', task, 'both')];
    expect(skips.finished).toBeLessThan(0.8 * run.finished);
    expect(run.waits).toBeGreaterThan(20);
    expect(run.waited).toBeCloseTo(
      run.finished - task.plugs.reduce((sum, { seconds }) => sum + seconds, 0) - 59 * task.moving,
      0,
    );
    const warm = Math.max(...heatAt(task, run.order, run.finished + 60));
    expect(run.hottest!.rise).toBeCloseTo(warm, 9);
  });

  it('makes a TIG seam in one go', () => {
    const task = taskOf(8, { kind: 'butt', process: 'tig' });
    expect(weldBy('oneEnd', task, 'last')).toMatchObject({ waits: 0, waited: 0 });
    expect(schoolsOf({ process: 'tig' })[0]).toBe('oneEnd');
  });

  it('lays two seams in turn, a place here and a place there, each from its middle, with one count', () => {
    const [a, b] = [taskOf(8), taskOf(6)];
    const [mine, other] = inTurnWith([a, b], ['both', 'both'], false);
    expect(plugs(mine)).toEqual(plugs(weldBy('centre', a, 'both')));
    expect(plugs(other)).toEqual(plugs(weldBy('centre', b, 'both')));
    expect(mine.numbers).toEqual([1, 3, 5, 7, 9, 11, 13, 14]);
    expect(other.numbers).toEqual([2, 4, 6, 8, 10, 12]);
    const begun = [...mine.order, ...other.order].map((each) => each.begun).toSorted((x, y) => x - y);
    begun.slice(1).forEach((at, i) => expect(at - begun[i]!).toBeGreaterThan(a.moving));
    // The other side cools meanwhile: less waiting than for both one after the other.
    const after = weldBy('centre', a, 'both').waited + weldBy('centre', b, 'both').waited;
    expect(mine.waited).toBeLessThan(after);
    // Where they lie on each other they heat each other.
    expect(inTurnWith([a, a], ['both', 'both'], true)[0].waited).toBeGreaterThan(
      inTurnWith([a, a], ['both', 'both'], false)[0].waited,
    );
  });
});
