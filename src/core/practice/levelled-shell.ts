import { Matrix, solve } from 'ml-matrix';
import type { Vector } from '../maths/geometry/vector';
import type { Random } from '../maths/random/seeded';
import type { Torsion, Weight } from '../plan/set-up/loads';
import type { SupportMove } from '../plan/set-up/level';
import { readHeights, standOn, takeUp, type StandingSeat } from './standing-shell';

/** A made-up shell for practising how to level: it twists as an open car does. */
const TORSION: Torsion = { stiffness: 4000, length: 2400 };
/** A hand feels that a support carries from so many newtons on. */
const FELT = 20;
/** One standard deviation of a height stick, mm, and of a turn against what was said, as a share. */
const STICK_SD = 0.3;
const TURN_SD = 0.03;

/** A place of the shell as the chart has it, bench axes, mm, and the height the true shell has it at. */
export interface TruePlace {
  readonly id: string;
  readonly at: Vector;
  readonly height: number;
}

/**
 * Where the seats of a true shell stand, so that it lies as it does: its heights less the chart's as a lift, two tilts and
 * one twist, by least squares, taken at each seat.
 */
export function seatsUnder(
  places: readonly TruePlace[],
  seats: readonly Pick<StandingSeat, 'id' | 'x' | 'y'>[],
): StandingSeat[] {
  const row = (x: number, y: number) => [1, x / 1000, y / 1000, (x * y) / 1e6];
  const design = new Matrix(places.map(({ at: [x, y] }) => row(x, y)));
  const off = Matrix.columnVector(places.map(({ at, height }) => height - at[2]));
  // By singular values: a few places on one line leave some tilt open, and it stays nothing.
  const lie = solve(design, off, true).to1DArray();
  return seats.map(({ id, x, y }) => ({
    id,
    x,
    y,
    height: row(x, y).reduce((sum, each, k) => sum + each * lie[k]!, 0),
  }));
}

/** What a stick reads on a shell that stands on some seats, and which of them carry nothing. */
export function readStanding(
  seats: readonly StandingSeat[],
  weight: Weight,
  places: readonly Omit<TruePlace, 'height'>[],
  random: Random,
): { readonly heights: ReadonlyMap<string, number>; readonly idle: readonly string[] } | undefined {
  const standing = standOn(seats, weight, TORSION);
  if (!standing) return undefined;
  const heights = readHeights(standing, places, STICK_SD, random);
  return {
    heights: new Map(heights.map(({ id, value }) => [id, Math.round(value * 10) / 10])),
    idle: seats.flatMap(({ id }, i) => (standing.loads.newtons[i]! < FELT ? [id] : [])),
  };
}

/** The seats after somebody has turned them as they were told, about as far. */
export function turnSeats(
  seats: readonly StandingSeat[],
  moves: readonly SupportMove[],
  weight: Weight,
  random: Random,
): StandingSeat[] {
  const taken = moves
    .filter((move) => move.takeUp)
    .reduce<StandingSeat[]>((all, { id }) => takeUp(all, id, weight, TORSION), [...seats]);
  return taken.map((seat) => {
    const raise = moves.find(({ id }) => id === seat.id)?.raise ?? 0;
    return { ...seat, height: seat.height + raise * (1 + TURN_SD * random.normal()) };
  });
}
