import { describe, expect, it } from 'vitest';
import { seeded } from '../maths/random/seeded';
import type { AxleReading } from '../shell/job/entities';
import { axlesOf } from './axles';

const TRACK = 1270;
/** As the wheels stand with the rear axle so far back, aside and turned. */
function read([back, aside, turned]: readonly [number, number, number], noise = () => 0): AxleReading {
  const wheel = (side: number) => [
    back - (side * TRACK * Math.sin(turned)) / 2,
    aside + (side * TRACK * Math.cos(turned)) / 2,
  ];
  const long = (from: number, to: number) => Math.hypot(wheel(to)[0]!, wheel(to)[1]! - (from * TRACK) / 2) + noise();
  return {
    ...{
      id: 'a',
      jobId: 'j',
      roundId: 'r',
      frontTrack: TRACK,
      rearTrack: TRACK,
      sd: 1,
      most: 5,
      at: '',
      author: 'N',
      personId: null,
    },
    ...{ leftBase: long(-1, -1), rightBase: long(1, 1), leftDiagonal: long(-1, 1), rightDiagonal: long(1, -1) },
  };
}

describe('wheelbases and axles', () => {
  it('finds how far the rear axle is turned and stands aside', () => {
    const { turned, aside, difference, contradiction } = axlesOf(read([2400, 4, 0.003]));
    expect(turned.degrees).toBeCloseTo((0.003 * 180) / Math.PI, 9);
    expect(aside!.value).toBeCloseTo(4, 9);
    // Turned by 0.003 over a track of 1270, and 4 mm aside makes no difference to speak of.
    expect(difference.value).toBeCloseTo(TRACK * 0.003, 2);
    expect(contradiction).toBeCloseTo(0, 6);
  });

  it('says of wheelbases alone how far it is turned, and nothing of aside', () => {
    const { turned, aside, contradiction } = axlesOf({
      ...read([2400, 4, 0.003]),
      leftDiagonal: null,
      rightDiagonal: null,
    });
    expect(turned.degrees).toBeCloseTo(0.172, 3);
    expect([aside, contradiction]).toEqual([undefined, undefined]);
  });

  it('judges with what the reading is worth', () => {
    expect(axlesOf(read([2400, 0, 0])).difference.verdict).toBe('inside');
    expect(axlesOf(read([2400, 0, 0.004])).difference.verdict).toBe('undecided');
    expect(axlesOf(read([2400, 12, 0])).aside!.verdict).toBe('outside');
  });

  it('goes by the wheelbases where no two axles have such diagonals', () => {
    const strange = { ...read([2400, 0, 0]), frontTrack: 1e-9, rearTrack: 1e-9 };
    expect(Object.keys(axlesOf(strange))).toEqual(['difference', 'turned']);
    const { leftDiagonal: _, rightDiagonal: __, ...bases } = strange;
    expect(axlesOf(strange)).toEqual(axlesOf({ ...bases, leftDiagonal: null, rightDiagonal: null }));
  });

  it('sees a length that contradicts the others', () => {
    const good = read([2400, 0, 0]);
    expect(axlesOf({ ...good, leftDiagonal: good.leftDiagonal! + 20 }).contradiction).toBeGreaterThan(3);
  });

  it('is as sure as it says, over many readings', () => {
    const { normal } = seeded(14);
    const found = Array.from({ length: 400 }, () => axlesOf(read([2400, 3, 0.002], normal)));
    const scatter = (of: (each: (typeof found)[number]) => number) => {
      const values = found.map(of);
      const mean = values.reduce((a, b) => a + b, 0) / values.length;
      return Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (values.length - 1));
    };
    const [first] = found;
    expect(2 * scatter(({ aside }) => aside!.value)).toBeCloseTo(first!.aside!.plusMinus, 0);
    expect((2 * scatter(({ turned }) => turned.degrees)) / first!.turned.plusMinus).toBeCloseTo(1, 1);
    expect(found.filter(({ contradiction }) => contradiction! > 3).length).toBeLessThan(8);
  });
});
