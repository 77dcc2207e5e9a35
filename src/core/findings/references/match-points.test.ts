import { describe, expect, it } from 'vitest';
import type { Vector } from '../../maths/geometry/vector';
import { seeded } from '../../maths/random/seeded';
import { shellPoints } from '../../practice/shell-net';
import { matchByPosition } from './match-points';

describe('a sister car with other point names', () => {
  const ours = shellPoints(30, seeded(4));
  const [c, s] = [Math.cos(0.4), Math.sin(0.4)];
  const random = seeded(9);
  const theirs = new Map<string, Vector>(
    [...ours].slice(3).map(([id, [x, y, z]], i) => {
      const off = () => 2 * random.normal();
      return [`${100 + i} ${id}`, [c * x - s * y + 900 + off(), s * x + c * y - 300 + off(), z + 40 + off()]];
    }),
  );

  it('is matched by position, in whatever axes it was measured', () => {
    const matches = matchByPosition(theirs, ours);
    expect(matches.length).toBeGreaterThanOrEqual(25);
    for (const { theirs: from, ours: to } of matches) expect(from.split(' ')[1]).toBe(to);
  });

  it('is not matched to a shell of another shape', () => {
    const other = new Map(
      [...ours].map(([id, [x, y, z]], i) => [id, [x * 1.4 + 90 * (i % 3), y * 0.6, z * 1.2] as Vector]),
    );
    expect(matchByPosition(theirs, other).length).toBeLessThan(12);
  });
});
