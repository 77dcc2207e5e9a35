import { describe, expect, it } from 'vitest';
import { Job } from '@/core/shell/job/job';
import { leftSideOut } from '../../../../tests/support/cutting';
import { seeded, type Random } from '../../maths/random/seeded';
import type { NodeVector } from '../../structure/shell-frame';
import { apart, pushingApart } from '../../structure/shell-frame';
import { displaced } from '../../structure/stiffness';
import { judgeAfterCut, releasedParts, shiftedBy, type Cause, type ReadAgain } from './after-cut';
import { cutModel } from './cut-model';
import { stiffnessAfter } from './worked-stages';
import type { NamedLength } from './lengths';
import { bracesIn } from './stages';
import { tellingLengths } from './telling';

const braced = leftSideOut()
  .stoodOn('F4L', 'F4R', 'C1L', 'C1R')
  .brace('X1', 'A1L', 'B2L')
  .brace('X2', 'A1L', 'B3L')
  .brace('X3', 'M1L', 'C1R')
  .brace('X4', 'S1R', 'C1L');
// On clamps, which hold every way, so that a support that shifts moves the shell against itself.
const clamped = {
  ...braced.rows,
  benches: braced.rows.benches.map((bench) => ({ ...bench, kind: 'clamps' as const })),
};
const cut = cutModel(Job.of(clamped))!;
const held = stiffnessAfter(cut, 0, 1, true);
if (!held.ok) throw new Error(held.loose.join());
const { value: shell } = held;
const telling = tellingLengths(cut, 0).map(({ length }) => length);

/** One standard deviation of a digital tram. */
const SD = 0.3;

/** Lengths read before and after the shell moved so. */
const readings = (
  lengths: readonly NamedLength[],
  moved: NodeVector | undefined,
  size: number,
  random: Random,
): ReadAgain[] =>
  lengths.map((length) => {
    const by = moved ? size * apart(shell.frame, length.from, length.to, moved) : 0;
    const noise = Math.SQRT2 * SD * random.normal();
    return { length, before: 1000, beforeSd: SD, now: 1000 + by + noise, nowSd: SD };
  });

const one = <T>(list: readonly T[], random: Random): T => list[Math.floor(random.next() * list.length)]!;

/** What really happened to a simulated shell, and how it moved for one unit of that. */
function happened(seed: number, random: Random): { readonly cause: Cause; readonly moved: NodeVector } {
  const { frame, stiffness, stands } = shell;
  if (seed % 3 === 0) {
    const load = one(releasedParts(cut, 0, shell), random);
    return { cause: { kind: 'sprung' }, moved: displaced(stiffness, load) };
  }
  if (seed % 3 === 1) {
    const { brace, from, to } = one(bracesIn(cut.braces, cut.stages, 0), random);
    return {
      cause: { kind: 'braceLoose', code: brace.code },
      moved: displaced(stiffness, pushingApart(frame, from, to)),
    };
  }
  const { node } = one(
    frame.supports.filter((support) => stands[support.node]),
    random,
  );
  const axis = one([0, 1, 2] as const, random);
  return { cause: { kind: 'supportShifted', node: frame.nodes[node]!.id }, moved: shiftedBy(cut, 0, node, axis)! };
}

describe('after metal is out', () => {
  it('says that the shell has not moved where it has not, nineteen times of twenty', () => {
    const random = seeded(4);
    const moved = Array.from({ length: 100 }, () =>
      judgeAfterCut(cut, 0, readings(telling.slice(0, 1), undefined, 0, random)),
    ).filter((says) => says.moved);
    expect(moved.length).toBeLessThan(12);
  });

  it('says by how much it moved, with its uncertainty', () => {
    const [length] = telling;
    const [said] = judgeAfterCut(cut, 0, [
      { length: length!, before: 1000, beforeSd: 0.3, now: 1001.2, nowSd: 0.3 },
    ]).lengths;
    expect(said).toMatchObject({ verdict: 'moved', moved: expect.closeTo(1.2, 9) });
    expect(said!.plusMinus).toBeCloseTo(2 * Math.hypot(0.3, 0.3), 9);
  });

  it('names what did it in eight of ten, after the lengths it asks for besides; and says it cannot tell rather than wrong', () => {
    let [right, wrong, all] = [0, 0, 0];
    for (let seed = 1; seed <= 30; seed++) {
      const random = seeded(seed);
      const { cause, moved } = happened(seed, random);
      const most = Math.max(...telling.map(({ from, to }) => Math.abs(apart(shell.frame, from, to, moved))));
      if (most < 1e-12) continue;
      const size = (3 + 3 * random.next()) / most;
      const read = readings(telling, moved, size, random);
      let says = judgeAfterCut(cut, 0, read);
      if (!says.moved) continue;
      all++;
      if (!says.cause) says = judgeAfterCut(cut, 0, [...read, ...readings(says.readToo, moved, size, random)]);
      if (!says.cause) continue;
      if (JSON.stringify(says.cause) === JSON.stringify(cause)) right++;
      else wrong++;
    }
    expect(all).toBeGreaterThan(20);
    expect(right / all).toBeGreaterThanOrEqual(0.8);
    expect(wrong / all).toBeLessThanOrEqual(0.1);
  });
});
