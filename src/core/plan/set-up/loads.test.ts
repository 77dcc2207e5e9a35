import { describe, expect, it } from 'vitest';
import { seeded } from '../../maths/random/seeded';
import { loadsOn, onOneLine, type Seat } from './loads';

const G = 9.80665;
const seat = (x: number, y: number, height = 0): Seat => ({ x, y, height });
const four = [seat(0, -600), seat(0, 600), seat(2000, -600), seat(2000, 600)];

describe('what each mount carries', () => {
  it('is statics on three mounts: moments about each side of the triangle', () => {
    // Front left and right at x 0, one at the middle of the rear; the weight a quarter of the way back, 60 mm to the right.
    const { newtons } = loadsOn([seat(0, -600), seat(0, 600), seat(2000, 0)], { kilograms: 200, x: 500, y: 60 })!;
    expect(newtons[2]).toBeCloseTo((200 * G * 500) / 2000, 3);
    const front = 200 * G * 0.75;
    // Moments about the centre plane: 600·(right − left) = 60·W.
    expect(newtons[1]! - newtons[0]!).toBeCloseTo((200 * G * 60) / 600, 3);
    expect(newtons[0]! + newtons[1]!).toBeCloseTo(front, 3);
  });

  it('is shared by equal springs on four: a rigid plate, worked by hand', () => {
    const { newtons, twist } = loadsOn(four, { kilograms: 240, x: 800, y: 0 })!;
    // Front axle share (2000 − 800)/2000, halved left and right.
    expect(newtons.map((load) => load / G)).toEqual([72, 72, 48, 48].map((kg) => expect.closeTo(kg, 4)));
    expect(twist).toBe(0);
  });

  it('leaves one of four with nothing where it stands too low, and the diagonal opposite with little', () => {
    const low = [...four.slice(0, 3), seat(2000, 600, -20)];
    // 20 mm forward of the middle: moments about the diagonal leave the front left corner 2 kg of 200.
    const { newtons, gaps } = loadsOn(low, { kilograms: 200, x: 980, y: 0 })!;
    expect(newtons[3]).toBe(0);
    expect(newtons[0]! / G).toBeCloseTo(2, 3);
    expect(newtons[1]! / G).toBeCloseTo(100, 3);
    expect(newtons[2]! / G).toBeCloseTo(98, 3);
    expect(gaps[3]).toBeGreaterThan(19);
  });

  it('takes up a low corner the sooner the softer the shell is', () => {
    const low = [...four.slice(0, 3), seat(2000, 600, -3)];
    const weight = { kilograms: 250, x: 1000, y: 0 };
    const loads = [1000, 4000, 20_000].map((stiffness) => loadsOn(low, weight, { stiffness, length: 2000 })!);
    const corner = loads.map(({ newtons }) => newtons[3]!);
    expect(corner[0]).toBeGreaterThan(corner[1]!);
    expect(corner[1]).toBeGreaterThanOrEqual(corner[2]!);
    expect(corner[2]).toBe(0);
    // 3 mm on one of four corners is a twist of 3 / (2 · 600) over the length, where the shell follows it fully.
    const soft = loadsOn(low, weight, { stiffness: 200, length: 2000 })!;
    expect(Math.abs(soft.twist)).toBeCloseTo(((3 / 1200) * 180) / Math.PI, 2);
  });

  it('balances the weight and its moments and is never negative, whatever the seats', () => {
    const random = seeded(11);
    for (let i = 0; i < 200; i++) {
      const seats = Array.from({ length: 3 + (i % 4) }, (_, k) =>
        seat(
          k < 2 ? random.next() * 600 : 1500 + random.next() * 900,
          (k % 2 ? 1 : -1) * (300 + random.next() * 400),
          random.next() * 4,
        ),
      );
      const weight = { kilograms: 150 + random.next() * 200, x: 1000, y: 0 };
      const loads = loadsOn(seats, weight, { stiffness: 1000 + random.next() * 19_000, length: 2400 });
      if (!loads) continue;
      const sum = (of: (i: number) => number) => loads.newtons.reduce((all, force, k) => all + force * of(k), 0);
      expect(Math.min(...loads.newtons)).toBeGreaterThanOrEqual(0);
      expect(sum(() => 1)).toBeCloseTo(weight.kilograms * G, 2);
      expect(sum((k) => seats[k]!.x) / sum(() => 1)).toBeCloseTo(weight.x, 2);
      expect(sum((k) => seats[k]!.y) / sum(() => 1)).toBeCloseTo(weight.y, 2);
    }
  });

  it('has no answer on two mounts, on a line, or where the shell would tip over', () => {
    const weight = { kilograms: 200, x: 1000, y: 0 };
    expect(loadsOn(four.slice(0, 2), weight)).toBeUndefined();
    expect(loadsOn([seat(0, 0), seat(1000, 0), seat(2000, 0)], weight)).toBeUndefined();
    expect(loadsOn(four, { ...weight, x: 2600 })).toBeUndefined();
    expect(onOneLine(four)).toBe(false);
  });
});
