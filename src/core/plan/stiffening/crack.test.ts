import { describe, expect, it } from 'vitest';
import type { Crack } from '../../shell/job/entities';
import { CRACK_STEPS, crackPlan } from './crack';

const CRACK: Crack = {
  ...{ id: 'c', jobId: 'j', place: 'Left A post', long: 60, thickness: 1, toEdge: false, process: 'mig' },
  ...{ cause: '', version: 1 },
};

describe('a crack', () => {
  it('is drilled past both its ends, with a drill for its sheet', () => {
    expect(crackPlan(CRACK)).toMatchObject({ drill: 3, beyond: 2, holes: 2, weld: 64, gap: 1 });
    expect(crackPlan({ ...CRACK, thickness: 2.5, toEdge: true, process: 'tig' })).toMatchObject({
      ...{ drill: 5, beyond: 5, holes: 1, weld: 65, gap: 0 },
    });
  });

  it('still bears many times the stress at the hole, by Inglis', () => {
    // Half of 64 mm and a radius of 1.5 mm.
    expect(crackPlan(CRACK).concentration).toBeCloseTo(1 + 2 * Math.sqrt(33.5 / 1.5), 9);
    const { concentration } = crackPlan({ ...CRACK, toEdge: true });
    expect(concentration).toBeCloseTo(1.12 * (1 + 2 * Math.sqrt((62 + 1.5) / 1.5)), 9);
  });

  it('is welded from end to end as a butt seam, and looked at again', () => {
    const { layout, steps } = crackPlan(CRACK);
    expect(layout.places.length).toBe(2);
    expect(steps.map(({ kind }) => kind)).toEqual([...CRACK_STEPS]);
    expect(steps.every(({ minutes }) => minutes > 0)).toBe(true);
    const drilled = (crack: Crack) => crackPlan(crack).steps.find(({ kind }) => kind === 'drill')!.minutes;
    expect(drilled(CRACK)).toBe(2 * drilled({ ...CRACK, toEdge: true }));
  });
});
