import { bench, describe } from 'vitest';
import { add, position, type Vector } from '../geometry/vector';
import { seeded } from '../random/seeded';
import { findUndisturbed, type SearchedPoint } from './undisturbed';

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

describe('undisturbed points of sixty', () => {
  bench(
    'quarter moved',
    () =>
      void findUndisturbed(
        shell(15, (i) => [-14 - (i % 5), 6 + (i % 3), 9]),
        3,
      ),
  );
  bench(
    '45 % moved',
    () =>
      void findUndisturbed(
        shell(27, (i) => [-14 - (i % 5), 6 + (i % 3), 9]),
        3,
      ),
  );
  bench(
    '45 % moved as one',
    () =>
      void findUndisturbed(
        shell(27, () => [-12, 7, 9]),
        3,
      ),
  );
  bench(
    'a third moved little by little',
    () =>
      void findUndisturbed(
        shell(20, (i) => [-0.7 * i, 0.3 * i, 0.4 * i]),
        3,
      ),
  );
});
