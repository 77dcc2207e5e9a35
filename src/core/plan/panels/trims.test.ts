import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../../tests/support/demo-rows';
import { Job } from '../../shell/job/job';
import { judgedChecks, usualChecks } from './fit-checks';
import { spotIndex, trimAdvice } from './trims';

describe('a new panel that does not fit', () => {
  it('is trimmed where it is too long, with the line measured from the edge that stays', () => {
    expect(trimAdvice({ kind: 'edge', isAt: 415.2, mustBe: 412 })).toMatchObject({ kind: 'trim', mark: 412 });
    expect(trimAdvice({ kind: 'edge', isAt: 409, mustBe: 412 })).toEqual({ kind: 'short', by: 3 });
    expect(trimAdvice({ kind: 'edge', isAt: 412.2, mustBe: 412 })).toEqual({ kind: 'fits' });
  });

  it('has its holes slotted and its beads relieved', () => {
    expect(trimAdvice({ kind: 'hole', isAt: 82, mustBe: 80 })).toEqual({ kind: 'slot', by: 2, towards: true });
    expect(trimAdvice({ kind: 'hole', isAt: 79, mustBe: 80 })).toEqual({ kind: 'slot', by: 1, towards: false });
    expect(trimAdvice({ kind: 'bead', isAt: 30, mustBe: 34 })).toEqual({ kind: 'relieve', by: 4, mark: 34 });
  });

  it('is indexed by its spots against the old ones', () => {
    const spots = [1.2, 0.8, 1].map((by) => ({ kind: 'spot' as const, isAt: 100 + by, mustBe: 100 }));
    const index = spotIndex(spots)!;
    expect(index.by).toBeCloseTo(1, 9);
    // Standard deviation of 1.2, 0.8, 1.0 is 0.2; of their mean 0.2/√3.
    expect(index.sd).toBeCloseTo(0.2 / Math.sqrt(3), 9);
    expect(spotIndex([])).toBeUndefined();
  });
});

describe('what is read besides gap and flush', () => {
  const rows = demoRows('solbris');
  const jobId = rows.jobs[0]!.id;
  const check = {
    id: 'c',
    jobId,
    hungId: null,
    kind: 'jointStep' as const,
    place: 'rear edge',
    wanted: 0,
    under: 0.5,
    over: 0,
  };
  const read = (value: number) =>
    judgedChecks(
      Job.of({
        ...rows,
        fitChecks: [check],
        fitReadings: [
          { id: 'r', checkId: 'c', value, sd: 0.02, at: '2026-11-25T10:00:00.000Z', author: 'Nils', personId: null },
        ],
      }),
    )[0]!.judged!;

  it('may be low at the rear edge of a joint, and never proud', () => {
    expect(read(-0.25).verdict).toBe('inside');
    expect(read(0.2).verdict).toBe('outside');
    expect(read(-0.8).verdict).toBe('outside');
    expect(read(-0.8).deviation).toBeCloseTo(-0.8, 9);
  });

  it('begins with what each panel must do, then lamps and bumper', () => {
    const kinds = usualChecks([{ id: 'd', kind: 'door' }]).map(({ kind }) => kind);
    expect(kinds).toEqual(['latch', 'jointStep', 'swage', 'lamp', 'lamp', 'bumper', 'bumper']);
  });
});
