import type { Vector } from '../maths/geometry/vector';
import type { Random } from '../maths/random/seeded';
import { loadsOn, riseAt, type Loads, type Torsion, type Weight } from '../plan/set-up/loads';

/** A seat of a simulated shell: where it stands and how far it is turned up, mm. */
export interface StandingSeat {
  readonly id: string;
  readonly x: number;
  readonly y: number;
  readonly height: number;
}

/** A hidden shell as it rests on its seats: what each carries, and where every point has come to. */
export interface Standing {
  readonly loads: Loads;
  /** How far a point has risen from where a level shell has it, mm. */
  readonly riseAt: (x: number, y: number) => number;
}

/** Lets a shell of some stiffness down on its seats. */
export function standOn(seats: readonly StandingSeat[], weight: Weight, torsion: Torsion): Standing | undefined {
  const loads = loadsOn(seats, weight, torsion);
  return loads && { loads, riseAt: (x, y) => riseAt(loads.lie, x, y) };
}

/** The heights an instrument reads on some points of it, with normal noise, mm. */
export const readHeights = (
  standing: Standing,
  points: readonly { readonly id: string; readonly at: Vector }[],
  sd: number,
  random: Random,
) =>
  points.map(({ id, at: [x, y, z] }) => ({
    id,
    value: z + standing.riseAt(x, y) + sd * random.normal(),
  }));

/** Turns a seat up until it carries, as a hand does that feels for it: so far that it presses with some newtons. */
export function takeUp(
  seats: readonly StandingSeat[],
  id: string,
  weight: Weight,
  torsion: Torsion,
  newtons = 20,
): StandingSeat[] {
  const raised = (by: number) => seats.map((seat) => (seat.id === id ? { ...seat, height: seat.height + by } : seat));
  const index = seats.findIndex((seat) => seat.id === id);
  const pressing = (by: number) => (standOn(raised(by), weight, torsion)?.loads.newtons[index] ?? 0) > newtons;
  let [low, high] = [0, 1];
  while (!pressing(high) && high < 1000) high *= 2;
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2;
    if (pressing(middle)) high = middle;
    else low = middle;
  }
  return raised(high);
}
