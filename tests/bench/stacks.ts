import { loadSolver } from '@/core/maths/search/highs';
import { seeded } from '@/core/maths/random/seeded';
import { chooseMounts } from '@/core/plan/set-up/choose-mounts';
import { stack } from '@/core/plan/set-up/stacks/stack';
import type { Case } from './case';

// The run without WebAssembly has no solver.
const solve = 'WebAssembly' in globalThis ? await loadSolver(20) : undefined;
const random = seeded(24);
const heights = [320, 240, 200, 160, 120, 80, 40, 20, 10];
const pieces = heights.map((height, i) => ({ id: `T${height}`, height, count: [4, 6, 8, 8, 8, 10, 12, 12, 12][i]! }));
const heads = [
  { id: 'cone', height: 55, adjust: 24, count: 16 },
  { id: 'cup', height: 40, adjust: 16, count: 10 },
];
const mounts = Array.from({ length: 24 }, (_, i) => ({
  id: `M${i}`,
  height: Math.round(180 + random.next() * 320),
  heads: random.next() < 0.7 ? ['cone'] : ['cone', 'cup'],
  most: 4,
}));
const low = Array.from({ length: 30 }, (_, i) => ({
  id: `P${i}`,
  at: [(i >> 1) * 230, (i % 2 ? 1 : -1) * (400 + 17 * (i % 13)), 200] as const,
  against: [],
}));
const shell = {
  extent: { from: [-600, -780, 150], to: [3300, 780, 1450] },
  weight: { kilograms: 260, centre: [1350, 0, 600] },
} as const;

/** Setting up: stacks for 24 mounts out of 80 pieces, and four of thirty points to mount first. */
export const stacks: readonly Case[] = [
  { of: 'stacks', what: '24 mounts, 80 pieces, proven', run: () => stack({ pieces, heads }, mounts, solve) },
  { of: 'stacks', what: '24 mounts, 80 pieces, without a solver', run: () => stack({ pieces, heads }, mounts) },
  { of: 'mounts', what: 'four of thirty points', run: () => chooseMounts(low, shell, 4, 3) },
];
