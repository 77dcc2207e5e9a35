import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../../tests/support/demo-rows';
import type { SeamJudgement } from '../../round/judge/seams';
import { NEW_SEAM, type BodyPacker } from '../../shell/job/entities';
import { Job } from '../../shell/job/job';
import { packedText, packText } from '../../report/fitting-words';
import { packBody } from './body-packers';

const rows = demoRows('kvist');
const jobId = rows.jobs[0]!.id;
const words = { length: (mm: number) => mm.toFixed(1) };
const packer = (id: string, more: Partial<BodyPacker> = {}): BodyPacker => ({
  ...{ id, jobId, name: id, least: 0, most: 12, step: 1, inNow: 3 },
  ...more,
});
/** Two seams of two stations; the gap read at each, 5 wanted. */
function seams(gaps: readonly number[]): SeamJudgement[] {
  return [0, 1].map((s) => ({
    seam: { ...{ id: `s${s}`, jobId, code: `S${s}`, name: '', side: 'left', pairing: '', version: 1 }, ...NEW_SEAM },
    stations: [0, 1].map((i) => ({
      station: { id: `${s}${i}`, seamId: `s${s}`, number: i + 1, name: '' },
      quantity: 'gap' as const,
      measured: { value: gaps[2 * s + i]!, sd: 0.25 },
      target: { value: 5, limit: 1, toCome: 0, referenceId: '' },
    })),
  }));
}
const effects = (packerId: string, does: Readonly<Record<string, number>>) =>
  Object.entries(does).map(([stationId, gap]) => ({ packerId, stationId, gap, flush: 0 }));
const planOf = (gaps: readonly number[], packers: readonly BodyPacker[], did: ReturnType<typeof effects>, more = {}) =>
  packBody(Job.of({ ...rows, bodyPackers: packers, packerEffects: did, ...more }), seams(gaps))!;

const FRONT = effects('front', { '00': -0.5, '01': 0.5, '10': -0.25, '11': 0.25 });
const REAR = effects('rear', { '00': 0.5, '01': -0.5, '10': 0.1, '11': 0.4 });

describe('packing the body', () => {
  it('takes out what two packs did, with every gap it moves counted', () => {
    // Front 4 too thin and rear 2 too thick, by hand: 5 + 4·0.5 + 2·0.5 and so on.
    const gaps = [5 + 2 + 1, 5 - 2 - 1, 5 + 1 + 0.2, 5 - 1 + 0.8];
    const plan = planOf(gaps, [packer('front'), packer('rear')], [...FRONT, ...REAR]);
    expect(plan.packers.map(({ advised }) => advised)).toEqual([7, 1]);
    expect(plan.cost.after).toBeCloseTo(0, 9);
    expect(plan.seams.map(({ before, after }) => [before, after])).toEqual([
      [3, 0],
      [expect.closeTo(1.2, 9), expect.closeTo(0, 9)],
    ]);
    expect(packedText(plan, words)).toMatch(/Pack the body first.*outside 2 now, 0 packed so/);
    expect(plan.packers.map((each) => packText(each, [], words))).toEqual(['4.0 more', 'take 2.0 out']);
  });

  it('finds the best of every pack there is, with shims that are on the shelf', () => {
    const shims = [2, 1.5].map((thickness, i) => ({ id: `sh${i}`, jobId, thickness, pieces: 2 }));
    const gaps = [6.1, 4.2, 5.9, 5.3];
    const packers = [packer('front', { step: null }), packer('rear', { step: null })];
    const plan = planOf(gaps, packers, [...FRONT, ...REAR], { shims });
    const sums = [0, 1.5, 2, 3, 3.5, 4, 5, 5.5].flatMap((sum) => (sum <= 3 ? [sum, -sum] : [sum]));
    const did = [...FRONT, ...REAR];
    const costs = sums.flatMap((front) =>
      sums.map((rear) =>
        ['00', '01', '10', '11'].reduce((cost, id, i) => {
          const by = (of: string) => did.find(({ packerId, stationId }) => packerId === of && stationId === id)!.gap;
          return cost + 2 * (gaps[i]! + front * by('front') + rear * by('rear') - 5) ** 2;
        }, 0),
      ),
    );
    // A change that gains next to nothing is not made.
    expect(plan.cost.after).toBeLessThan(Math.min(...costs) + 0.2);
    expect(plan.cost.after).toBeGreaterThan(Math.min(...costs) - 1e-9);
    expect(plan.proven).toBe(true);
  });

  it('says what no trial was read of, and leaves alone what is right', () => {
    const plan = planOf([5, 5, 5, 5], [packer('front'), packer('rear')], FRONT);
    expect(packedText(plan, words)).toBe(
      'Packing makes no gap better: leave the body as it stands. Of rear no trial was read: pack it by a little and read the gaps.',
    );
    expect(packText(plan.packers[1]!, [], words)).toBe('not tried yet');
    expect(planOf([5, 5, 5, 5], [packer('front')], effects('front', { '00': 1 })).seams.map((s) => s.untried)).toEqual([
      false,
      true,
    ]);
    expect(packBody(Job.of(rows), seams([5, 5, 5, 5]))).toBeUndefined();
  });
});
