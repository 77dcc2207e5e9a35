import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../../tests/support/demo-rows';
import { Job } from '../../shell/job/job';
import type { Round } from '../../shell/job/entities';
import type { JobRows } from '../../shell/job/job-rows';
import type { NetSolution } from '../../survey/solve';
import { observeRound } from '../observe/observe';
import { solveRoundFrom, type RoundNet, type Solved } from './net';

/** The job with only these of a round's readings. */
const withReadings = (rows: JobRows, round: Round, ids: readonly string[]): JobRows => ({
  ...rows,
  readings: rows.readings.filter(({ id, roundId }) => roundId !== round.id || ids.includes(id)),
});

/** What of a net a screen says, to compare: whose figures agree to a hundredth of a millimetre. */
function said({ solution, doubts, loose, apart, unchecked }: RoundNet) {
  const points = solution?.survey.points ?? [];
  return {
    located: points.map(({ id }) => id),
    doubts: doubts.map(({ readingId, kind }) => `${kind} ${readingId}`).sort(),
    loose: loose.map(({ id, advice }) => `${id} ${advice}`).sort(),
    apart: apart.map((ids) => ids.length),
    unchecked,
  };
}

function agree(warm: RoundNet, cold: RoundNet): void {
  expect(said(warm)).toEqual(said(cold));
  cold.solution?.x.forEach((value, i) => expect(Math.abs(warm.solution!.x[i]! - value)).toBeLessThan(0.01));
  cold.solution?.survey.points.forEach((_, i) => {
    const at = cold.solution!.equations.column[i]!;
    if (at < 0) return;
    const variance = ({ covariance, equations }: NetSolution) => covariance[(at + 2) * (equations.unknowns + 1)]!;
    expect(Math.sqrt(variance(warm.solution!))).toBeCloseTo(Math.sqrt(variance(cold.solution!)), 3);
  });
}

describe.each([
  ['solbris', 0],
  ['solbris', 1],
  ['lodd', 2],
  ['kvist', 0],
] as const)('a round of %s as its readings come in (%i)', (name, at) => {
  const rows = demoRows(name);
  const round = rows.rounds[at]!;
  const ids = rows.readings
    .filter(({ roundId, pullId }) => roundId === round.id && pullId === null)
    .map(({ id }) => id);
  const solve = (of: readonly string[], last?: Solved) => {
    const job = Job.of(withReadings(rows, round, of));
    return solveRoundFrom(job, observeRound(job, round), last);
  };

  it('says from the last solution what it says anew, one reading after the other, and when one is struck', () => {
    let last: Solved | undefined;
    let grown = 0;
    const take = (of: readonly string[]) => {
      const warm = solve(of, last);
      agree(warm.net, solve(of).net);
      if ((warm.solved?.main.updates ?? 0) > (last?.main.updates ?? 0)) grown++;
      last = warm.solved;
    };
    for (let count = name === 'kvist' ? 1 : ids.length >> 1; count <= ids.length; count++) take(ids.slice(0, count));
    take(ids.filter((_, i) => i !== 20));
    take(ids.filter((_, i) => i !== 20 && i !== 40));
    take(ids);
    // A round of a dozen points is carried on; one that has hardly begun is searched for its parts.
    if (name !== 'kvist') expect(grown).toBeGreaterThan(9);
  });
});
