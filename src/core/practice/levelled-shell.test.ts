import { describe, expect, it } from 'vitest';
import { position, type Vector } from '../maths/geometry/vector';
import { seeded } from '../maths/random/seeded';
import { level } from '../plan/set-up/level';
import { readStanding, seatsUnder, turnSeats } from './levelled-shell';

const corners = [
  { id: 'FL', x: 300, y: -640 },
  { id: 'FR', x: 300, y: 640 },
  { id: 'RL', x: 2100, y: -640 },
  { id: 'RR', x: 2100, y: 640 },
];
const places = [0, 800, 1600, 2400].flatMap((x) =>
  [-420, 420].map((y): { id: string; at: Vector } => ({ id: `${x} ${y}`, at: [x, y, 300] })),
);
const weight = { kilograms: 220, x: 1200, y: 0 };

describe('a made-up shell for practising how to level', () => {
  it('stands at first as its true shell lies', () => {
    const lie = (x: number, y: number) => 3 + 0.002 * x - 0.001 * y + 0.000002 * x * y;
    const seats = seatsUnder(
      places.map(({ id, at }) => ({ id, at, height: at[2] + lie(at[0], at[1]) })),
      corners,
    );
    seats.forEach(({ x, y, height }) => expect(height).toBeCloseTo(lie(x, y), 9));
  });

  it('comes level in three passes of reading, feeling and turning as one is told', () => {
    for (let seed = 1; seed <= 10; seed++) {
      const random = seeded(seed);
      let seats = corners.map((corner) => ({ ...corner, height: 14 * (random.next() - 0.5) }));
      const lies = () => {
        const read = readStanding(seats, weight, places, random)!;
        const result = level(
          places.map(({ id, at }) => ({
            ...{ id, wanted: position<'chart'>(at) },
            read: { z: { value: read.heights.get(id)!, sd: 0.3 } },
          })),
          seats.map((seat) => ({ ...seat, ...(read.idle.includes(seat.id) ? { carries: false } : {}) })),
          { height: 'bench', weight: [weight.x, weight.y, 500] },
        );
        if (!result.ok) throw new Error(result.reason.kind);
        return result.levelling;
      };
      for (let pass = 0; pass < 3; pass++) seats = turnSeats(seats, lies().moves, weight, random);
      const { pitch, roll } = lies().lies;
      expect(Math.abs(pitch.value)).toBeLessThan(0.6);
      expect(Math.abs(roll.value)).toBeLessThan(1.2);
    }
  });
});
