import type { Case } from './case';
import { add, position, type Vector } from '@/core/maths/geometry/vector';
import { seeded } from '@/core/maths/random/seeded';
import { findUndisturbed, type SearchedPoint } from '@/core/maths/search/undisturbed';

/** The named shells of sixty points: so many moved, all together or each its own way. */
function shell(moved: number, move: (i: number, at: Vector) => Vector): SearchedPoint[] {
  const random = seeded(60 + moved);
  return Array.from({ length: 60 }, (_, i): SearchedPoint => {
    const reference = position<'chart'>([
      random.next() * 3600,
      (random.next() - 0.5) * 1400,
      100 + random.next() * 1000,
    ]);
    const at = i < moved ? add(reference, move(i, reference)) : reference;
    const measured = at.map((value) => value + 0.7 * random.normal()) as unknown as Vector;
    return { id: String(i), reference, measured: position(add(measured, [30, -12, 8])) };
  });
}

const of = 'undisturbed points among 60';
const search = (moved: number, move: (i: number, at: Vector) => Vector) => {
  const points = shell(moved, move);
  return () => findUndisturbed(points, 3);
};

export const undisturbed: Case[] = [
  { of, what: 'a quarter moved', run: search(15, (i) => [-14 - (i % 5), 6 + (i % 3), 9]) },
  { of, what: '45 % moved, each its own way', run: search(27, (i) => [-14 - (i % 5), 6 + (i % 3), 9]) },
  { of, what: '45 % moved as one', run: search(27, () => [-12, 7, 9]) },
  { of, what: 'a third moved little by little', run: search(20, (i) => [-0.7 * i, 0.3 * i, 0.4 * i]) },
];
