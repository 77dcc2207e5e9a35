import { describe, expect, it } from 'vitest';
import { position, type Position } from '../../maths/geometry/vector';
import { seeded } from '../../maths/random/seeded';
import { shellPoints } from '../../practice/shell-net';
import { matchByPosition } from './match-points';

describe('a sister car with other point names', () => {
  const ours = new Map([...shellPoints(30, seeded(4))].map(([id, at]) => [id, position<'chart'>(at)]));
  const [c, s] = [Math.cos(0.4), Math.sin(0.4)];
  const random = seeded(9);
  const theirs = new Map<string, Position<'theirs'>>(
    [...ours].slice(3).map(([id, [x, y, z]], i) => {
      const off = () => 2 * random.normal();
      const at = [c * x - s * y + 900 + off(), s * x + c * y - 300 + off(), z + 40 + off()];
      return [`${100 + i} ${id}`, position<'theirs'>(at)];
    }),
  );

  it('is matched by position, in whatever axes it was measured', () => {
    const matches = matchByPosition(theirs, ours);
    expect(matches.length).toBeGreaterThanOrEqual(25);
    for (const { theirs: from, ours: to } of matches) expect(from.split(' ')[1]).toBe(to);
  });

  it('is not matched to a shell of another shape', () => {
    const other = new Map(
      [...ours].map(([id, [x, y, z]], i) => [id, position<'chart'>([x * 1.4 + 90 * (i % 3), y * 0.6, z * 1.2])]),
    );
    expect(matchByPosition(theirs, other).length).toBeLessThan(12);
  });
});
