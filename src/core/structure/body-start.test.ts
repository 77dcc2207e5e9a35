import { describe, expect, it } from 'vitest';
import type { Vector } from '../maths/geometry/vector';
import { seeded } from '../maths/random/seeded';
import { BODIES } from '../shell/bodies';
import { BODY_TYPES, type BodyType } from '../shell/job/entities';
import { alongAxes, startOnBody } from './body-start';
import { morphOnto, type KnownPoint } from './morph';

const asDrawn = (at: Vector): Vector => at;

/** Points of a shell that is no picture's: of its own size, every point some 35 mm from where it would be. */
function shellLike(type: BodyType, seed: number) {
  const random = seeded(seed);
  const [x, y, z] = [0.06, 0.04, 0.04].map((sd) => 1 + sd * random.normal()) as [number, number, number];
  const to = (at: Vector): Vector => [x * at[0] + 700, y * at[1], z * at[2] + 60];
  const points = BODIES[type].places.map(({ code, side, at }): KnownPoint => {
    const own = to(at).map((value) => value + 35 * random.normal()) as unknown as Vector;
    return { id: code, code, side, place: '', at: own };
  });
  return { to, points };
}

/** What people have measured of a shell before they have measured all of it, by where it is on the picture. */
const PARTS: Readonly<Record<string, (at: Vector) => boolean>> = {
  'the floor': ([, , z]) => z < 400,
  'the middle': ([x]) => x > 600 && x < 2400,
  'the floor of the middle': ([x, , z]) => z < 400 && x > 600 && x < 2400,
  'the front': ([x]) => x < 1200,
};
const cases = Object.keys(PARTS).flatMap((part) => BODY_TYPES.map((type) => [part, type] as const));

describe('a picture of which only a part was measured', () => {
  it.each(cases)('is as large as the shell and stands where it does, of %s of one that is %s', (part, type) => {
    for (const seed of [1, 2, 3, 4]) {
      const { to, points } = shellLike(type, seed);
      const known = points.filter((_, i) => PARTS[part]!(BODIES[type].places[i]!.at));
      const { carry } = morphOnto(BODIES[type], known, asDrawn);
      // What was not measured is as far off as the shell is of its own size; boxes that agree were off by one to three metres.
      const off = BODIES[type].places.map(({ at }) => Math.hypot(...carry(at).map((value, k) => value - to(at)[k]!)));
      expect(Math.max(...off)).toBeLessThan(250);
    }
  });

  it('has its points at the places they are of, where there are enough to tell', () => {
    for (const part of ['the floor', 'the middle', 'the front'])
      for (const type of ['twoDoor', 'fourDoor', 'estate'] as const) {
        const { points } = shellLike(type, 7);
        const known = points.filter((_, i) => PARTS[part]!(BODIES[type].places[i]!.at));
        const { ties } = morphOnto(BODIES[type], known, asDrawn);
        const right = [...ties].filter(([place, { id }]) => place === id).length;
        expect(right / known.length).toBeGreaterThan(0.85);
      }
  });

  it('is as large as typed measures say', () => {
    const known = shellLike('estate', 1).points.filter(({ at }) => at[0] - 700 > 1000 && at[0] - 700 < 2000);
    const [drawn, typed] = [asDrawn, ([x, y, z]: Vector): Vector => [1.2 * x, 1.2 * y, 1.2 * z]].map(
      (rough) => startOnBody(BODIES.estate, known, rough)[0].stretch,
    );
    expect(drawn).toBeGreaterThan(0.85);
    expect(drawn).toBeLessThan(1.15);
    expect(typed).toBeGreaterThan(1.05);
  });

  it('goes by a place that was chosen, though another is nearer', () => {
    const { points } = shellLike('twoDoor', 3);
    const floor = points.filter((_, i) => PARTS['the floor of the middle']!(BODIES.twoDoor.places[i]!.at));
    const chosen = floor.map((point) => (point.code.startsWith('S1') ? { ...point, place: point.code } : point));
    const axes = startOnBody(BODIES.twoDoor, chosen, asDrawn);
    for (const point of chosen.filter(({ place }) => place !== '')) {
      const at = BODIES.twoDoor.places.find(({ code }) => code === point.place)!.at;
      expect(Math.hypot(...alongAxes(axes)(at).map((value, k) => value - point.at[k]!))).toBeLessThan(150);
    }
  });
});

describe('a picture of all of a shell', () => {
  it('stands so that boxes agree', () => {
    const known = shellLike('fourDoor', 2).points;
    const axes = startOnBody(BODIES.fourDoor, known, asDrawn);
    const end = (list: readonly { readonly at: Vector }[], pick: (...values: number[]) => number) =>
      pick(...list.map(({ at }) => at[0]));
    const carried = BODIES.fourDoor.places.map(({ at }) => ({ at: alongAxes(axes)(at) }));
    for (const pick of [Math.min, Math.max]) expect(end(carried, pick)).toBeCloseTo(end(known, pick), 6);
  });
});
