import type { Vector } from '../maths/geometry/vector';

/** A thin sheet: thickness mm, conductivity W/(m·K), density kg/m³, heat J/(kg·K), loss W/(m²·K) from each face. */
export interface Sheet {
  readonly thickness: number;
  readonly conductivity: number;
  readonly density: number;
  readonly heat: number;
  readonly loss: number;
}

/** Heat put into a sheet at a place and a moment, J and s. */
export interface HeatSource {
  readonly at: Vector;
  readonly energy: number;
  readonly since: number;
}

/** What a sheet does with heat, SI units but for distances in mm. */
export interface Conduction {
  /** E/(4π·k·d), K·s a joule. */
  readonly strength: number;
  /** 4a, mm²/s. */
  readonly spreading: number;
  /** 2h/(ρ·c·d), 1/s. */
  readonly losing: number;
}

export function conductionOf({ thickness, conductivity, density, heat, loss }: Sheet): Conduction {
  const d = thickness / 1000;
  return {
    strength: 1 / (4 * Math.PI * conductivity * d),
    spreading: (4e6 * conductivity) / (density * heat),
    losing: (2 * loss) / (density * heat * d),
  };
}

/** One source seen from a place: how far off, in squared millimetres. */
interface Seen {
  readonly energy: number;
  readonly since: number;
  readonly square: number;
}

export const seenFrom = (place: Vector, sources: readonly HeatSource[]): Seen[] =>
  sources.map(({ at, energy, since }) => ({
    ...{ energy, since },
    square: (at[0] - place[0]) ** 2 + (at[1] - place[1]) ** 2 + (at[2] - place[2]) ** 2,
  }));

/**
 * How much warmer than its surroundings a place is, K: instantaneous sources in a wide thin sheet that loses heat from both
 * faces (Carslaw and Jaeger, Conduction of Heat in Solids, §10.3 and §4.2; Rosenthal 1941).
 */
export function riseAt({ strength, spreading, losing }: Conduction, seen: readonly Seen[], now: number): number {
  let rise = 0;
  for (const { energy, since, square } of seen) {
    const age = now - since;
    if (age > 0) rise += ((energy * strength) / age) * Math.exp(-square / (spreading * age) - losing * age);
  }
  return rise;
}

/** Moments are told to this, s. */
const MOMENT = 1e-5;

/**
 * How long it takes at least until a place is down to a rise. A source's share falls no faster than 1/age and by what is lost, since
 * what spreads towards the place only grows: the share at age τ is after δ at least τ/(τ + δ)·exp(−βδ) of itself. So long the place is
 * certainly too warm.
 */
export function coolsNoSooner(
  conduction: Conduction,
  seen: readonly Seen[],
  now: number,
  most: number,
  moment = MOMENT,
): number {
  const { strength, spreading, losing } = conduction;
  const shares = seen.flatMap(({ energy, since, square }) => {
    const age = now - since;
    if (age <= 0) return [];
    const share = ((energy * strength) / age) * Math.exp(-square / (spreading * age) - losing * age);
    return share > 0 ? [{ age, share }] : [];
  });
  const left = (wait: number) =>
    Math.exp(-losing * wait) * shares.reduce((sum, { age, share }) => sum + (share * age) / (age + wait), 0);
  if (left(0) <= most) return 0;
  let [low, high] = [0, 1];
  while (left(high) > most) [low, high] = [high, 2 * high];
  for (let i = 0; i < 60 && high - low > moment / 4; i++) {
    const middle = (low + high) / 2;
    if (left(middle) > most) low = middle;
    else high = middle;
  }
  return Math.max(low, moment);
}
