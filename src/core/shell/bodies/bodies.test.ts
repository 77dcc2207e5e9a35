import { describe, expect, it } from 'vitest';
import { BODY_TYPES } from '../job/entities';
import { mirroredCode } from '../mirrored-code';
import { BODIES } from '.';
import { morphed } from './body';

describe.each(BODY_TYPES)('the picture of a body: %s', (type) => {
  const { places, members, sheets, openings, size } = BODIES[type];
  const codes = new Set(places.map(({ code }) => code));

  it('names each place once, left of the middle and right of it alike', () => {
    expect(codes.size).toBe(places.length);
    for (const { code, side, at } of places) {
      expect(Math.sign(at[1])).toBe({ left: -1, centre: 0, right: 1 }[side]);
      expect(codes.has(mirroredCode(code, side))).toBe(true);
    }
  });

  it('draws lines and openings between places it has', () => {
    for (const code of [
      ...members.flatMap(({ from, to }) => [from, to]),
      ...sheets.flatMap(({ corners }) => corners),
      ...openings.flatMap(({ corners }) => corners),
    ])
      expect([code, codes.has(code)]).toEqual([code, true]);
    expect(openings.length).toBeGreaterThan(1);
  });

  it('comes to the size of a shell by three measures, and by one keeps its proportions', () => {
    const own = morphed(BODIES[type], { wheelbase: null, track: null, height: null });
    const [last] = places.toSorted((a, b) => b.at[0] - a.at[0]);
    expect(own.get(last!.code)).toEqual(last!.at);
    const longer = morphed(BODIES[type], { ...size, wheelbase: 1.1 * size.wheelbase }).get(last!.code)!;
    expect(longer[0]).toBeCloseTo(1.1 * last!.at[0], 6);
    expect(longer[1]).toBeCloseTo(last!.at[1], 6);
    const half = morphed(BODIES[type], { wheelbase: size.wheelbase / 2, track: null, height: null }).get(last!.code)!;
    last!.at.forEach((value, axis) => expect(half[axis]).toBeCloseTo(value / 2, 6));
  });
});
