/** A seeded source of randomness (mulberry32): the same seed gives the same numbers every time. */
export interface Random {
  /** Uniform in 0…1. */
  next(): number;
  /** Standard normal (Box–Muller). */
  normal(): number;
  uuid(): string;
}

export function seeded(seed: number): Random {
  let state = seed >>> 0;
  const next = (): number => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  const hex = (digits: number): string =>
    Array.from({ length: digits }, () => Math.floor(next() * 16).toString(16)).join('');
  return {
    next,
    normal: () => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next()),
    uuid: () => `${hex(8)}-${hex(4)}-4${hex(3)}-${'89ab'[Math.floor(next() * 4)]}${hex(3)}-${hex(12)}`,
  };
}

/** So many draws of a normal distribution of variance 1, not to be changed. */
export type Noise = (count: number) => Float64Array;

/** The draws of a seed, always the same ones: what was drawn once is kept. */
export function noiseOf(seed: number): Noise {
  const { normal } = seeded(seed);
  let drawn = new Float64Array(0);
  return (count) => {
    if (drawn.length < count) {
      const more = new Float64Array(count);
      more.set(drawn);
      for (let i = drawn.length; i < count; i++) more[i] = normal();
      drawn = more;
    }
    return drawn.subarray(0, count);
  };
}
