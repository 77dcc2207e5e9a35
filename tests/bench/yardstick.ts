import { kernel } from '@/core/maths/linear/kernel';
import type { Case } from './case';

const SIZE = 450;
const matrix = Float64Array.from({ length: SIZE * SIZE }, (_, i) => {
  const [row, column] = [Math.floor(i / SIZE), i % SIZE];
  return (row === column ? SIZE : 0) + Math.cos((row + 1) * (column + 1));
});

/** How fast the machine is just now: what all figures of one run, and those of another day, are compared by. */
export const yardstick: Case[] = [
  {
    of: 'the machine',
    what: `factorising ${SIZE} unknowns`,
    run: () => kernel.factorise(matrix.slice(), SIZE),
  },
];
