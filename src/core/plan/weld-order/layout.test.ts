import { describe, expect, it } from 'vitest';
import { NEW_WELD_SEAM, type WeldSeam, type WeldStretch } from '../../shell/job/entities';
import { arcOf, holeFor, layOut } from './layout';

const SEAM: WeldSeam = {
  ...NEW_WELD_SEAM,
  ...{ id: 's', jobId: 'j', kind: 'plug', process: 'mig', long: 400, flange: 18 },
};
const JOINT = { thicknessA: 0.9, thicknessB: 1.2, factorySpots: 14 };
const stretch = (what: WeldStretch['what'], starts: number, ends = starts): WeldStretch => ({
  ...{ id: what, seamId: 's', what, starts, ends },
});
const out = (more: Partial<WeldSeam> = {}, joint: Partial<typeof JOINT> = {}, stretches: readonly WeldStretch[] = []) =>
  layOut({ ...SEAM, ...more }, { ...JOINT, ...joint }, stretches);
const kinds = (list: readonly { readonly kind: string }[]) => list.map(({ kind }) => kind);

describe('marking out a seam', () => {
  it('makes holes by the sheet that is drilled, and one size up through a third', () => {
    expect([0.8, 1, 1.2, 1.5, 2].map((t) => holeFor(t, 2))).toEqual([6, 6, 8, 8, 10]);
    expect([0.8, 1.2, 2].map((t) => holeFor(t, 3))).toEqual([8, 10, 10]);
  });

  it('lays one plug for each of the factory’s spots, evenly from end to end', () => {
    const { places, faults } = out();
    expect(places).toHaveLength(14);
    // By hand: 9 mm from either end, 13 steps between.
    expect(places[0]!.along).toBeCloseTo(9, 9);
    expect(places[13]!.along).toBeCloseTo(391, 9);
    expect(places[1]!.along - places[0]!.along).toBeCloseTo(382 / 13, 9);
    expect(faults).toEqual([]);
  });

  it('wants 30 % more of a shop’s gun, a pitch that was said, and never fewer than the factory had', () => {
    expect(out({ kind: 'spot', process: 'resistance' }).places).toHaveLength(19);
    expect(out({ pitch: 20 }).places).toHaveLength(20);
    expect(out({ pitch: 100 }).places).toHaveLength(14);
    expect(out({}, { factorySpots: null as never }).places).toHaveLength(10);
    for (let factory = 1; factory < 25; factory++)
      expect(out({}, { factorySpots: factory }, [stretch('corner', 130)]).places.length).toBeGreaterThanOrEqual(
        factory,
      );
  });

  it('splits at corners and where a third sheet begins, and stays off them', () => {
    const { places, stops } = out({}, {}, [stretch('corner', 100), stretch('double', 250, 330)]);
    expect(stops).toEqual([100, 250, 330]);
    expect(
      places.every(({ along, size }) => [0, 100, 250, 330, 400].every((at) => Math.abs(along - at) > 1.4 * size)),
    ).toBe(true);
    expect(
      places.filter(({ sheets }) => sheets === 3).every(({ along, size }) => along > 250 && along < 330 && size === 8),
    ).toBe(true);
  });

  it('lays nothing over brass or lead, and says so; marks what has no backing or cannot be reached', () => {
    const { places, faults, notes } = out({}, {}, [
      stretch('brass', 100, 200),
      stretch('void', 300, 320),
      stretch('unreachable', 0, 50),
    ]);
    expect(faults).toEqual([{ kind: 'soft', what: 'brass', from: 100, to: 200 }]);
    expect(places.some(({ along }) => along > 100 && along < 200)).toBe(false);
    expect(places.length).toBeGreaterThanOrEqual(14);
    expect(kinds(notes)).toEqual(expect.arrayContaining(['backing', 'unreachable', 'scrapePrimer', 'peelFirst']));
    expect(places.filter((each) => each.unreachable).every(({ along }) => along <= 50)).toBe(true);
  });

  it('refuses a flange that is too narrow and plugs that run into each other', () => {
    expect(kinds(out({ flange: 10 }).faults)).toEqual(['flangeNarrow']);
    const { faults } = out({}, { factorySpots: 40 });
    expect(faults).toMatchObject([{ kind: 'tooNear', least: 18 }]);
    expect(kinds(out({ process: null }, { thicknessA: null as never, thicknessB: null as never }).faults)).toEqual([
      'noThickness',
      'noProcess',
    ]);
  });

  it('tacks a butt joint and closes it from tack to tack, with the gap its process wants', () => {
    const { places, notes } = out({ kind: 'butt' }, { factorySpots: null as never }, [stretch('corner', 130)]);
    // 130 mm in four, 270 in nine.
    expect(places).toHaveLength(13);
    expect(places.reduce((sum, { size }) => sum + size, 0)).toBeCloseTo(400, 9);
    expect(notes).toContainEqual({ kind: 'gap', gap: 0.9 });
    const tig = out({ kind: 'butt', process: 'tig' }, {}).notes;
    expect(tig).toContainEqual({ kind: 'gap', gap: 0 });
  });

  it('melts nothing of a bonded joint', () => {
    const { places, notes, minutes } = out({ kind: 'bond', process: null, openFor: 20, clampedFor: 240 });
    expect([places.length, kinds(notes), minutes]).toEqual([0, ['bondCold'], 240]);
  });

  it('burns longer for a wider hole and a thicker sheet', () => {
    const [small, wide, thick] = [
      arcOf(SEAM, { size: 6 }, 0.9),
      arcOf(SEAM, { size: 8 }, 0.9),
      arcOf(SEAM, { size: 8 }, 1.5),
    ];
    // By hand: π/4·36·1.9/40 s.
    expect(small.seconds).toBeCloseTo((Math.PI * 9 * 1.9) / 40, 9);
    expect(wide.seconds / small.seconds).toBeCloseTo(64 / 36, 9);
    expect(thick.seconds / wide.seconds).toBeCloseTo(2.5 / 1.9, 9);
    expect(small.energy / small.seconds).toBe(1100);
  });
});
