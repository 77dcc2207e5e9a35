import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../../tests/support/demo-rows';
import { Job } from '../../shell/job/job';
import { seeded } from '../../maths/random/seeded';
import type { Point, Reading, Round } from '../../shell/job/entities';
import type { JobRows } from '../../shell/job/job-rows';
import { checkObservations, PRACTICALLY_UNCHECKED } from '../../survey/reliability';
import type { NetSolution } from '../../survey/solve';
import { pointsOf } from '../../survey/survey';
import { observeRound } from '../observe/observe';
import { solveRoundFrom, type RoundNet, type Solved } from './net';

/** The job with only these of a round's readings. */
const withReadings = (rows: JobRows, round: Round, ids: readonly string[]): JobRows => ({
  ...rows,
  readings: rows.readings.filter(({ id, roundId }) => roundId !== round.id || ids.includes(id)),
});

/** What of a net a screen says, to compare: whose figures agree to a hundredth of a millimetre. */
function said({ solution, doubts, loose, apart, unchecked, inPlan }: RoundNet, onTheLine: ReadonlySet<string>) {
  const points = solution?.survey.points ?? [];
  return {
    located: points.map(({ id }) => id),
    doubts: doubts.map(({ readingId, kind }) => `${kind} ${readingId}`).sort(),
    loose: loose.map(({ id, advice }) => `${id} ${advice}`).sort(),
    apart: apart.map((ids) => ids.length),
    inPlan: inPlan.map(({ id, heightMissing }) => `${id} ${heightMissing}`),
    unchecked: unchecked.filter((id) => !onTheLine.has(id)).toSorted(),
  };
}

/** Points some reading of which is checked as much as makes the difference, within a tenth. */
function hardlyChecked({ solution }: RoundNet): ReadonlySet<string> {
  const checks = solution ? checkObservations(solution) : [];
  const close = checks.filter(({ redundancy }) => Math.abs(redundancy / PRACTICALLY_UNCHECKED - 1) < 0.1);
  const readings = close.flatMap(({ observation }) => solution!.survey.readings[observation.reading] ?? []);
  return new Set(readings.flatMap(pointsOf));
}

function agree(warm: RoundNet, cold: RoundNet): void {
  const onTheLine = hardlyChecked(cold);
  expect(said(warm, onTheLine)).toEqual(said(cold, onTheLine));
  cold.solution?.x.forEach((value, i) => expect(Math.abs(warm.solution!.x[i]! - value)).toBeLessThan(0.01));
  // What hangs on points that have moved by half of a tenth since follows when they have moved farther.
  cold.inPlan.forEach(({ at, sd }, i) => {
    const { at: then, sd: thenSd } = warm.inPlan[i]!;
    expect(Math.hypot(at[0] - then[0], at[1] - then[1])).toBeLessThan(0.25);
    expect(Math.abs(thenSd / sd - 1)).toBeLessThan(0.02);
  });
  cold.solution?.survey.points.forEach((_, i) => {
    const at = cold.solution!.equations.column[i]!;
    if (at < 0) return;
    const variance = ({ covariance, equations }: NetSolution) => covariance[(at + 2) * (equations.unknowns + 1)]!;
    const sd = Math.sqrt(variance(cold.solution!));
    expect(Math.abs(Math.sqrt(variance(warm.solution!)) - sd)).toBeLessThan(0.0005 + 0.02 * sd);
  });
}

describe('a round that is mostly repeats', () => {
  const rows = demoRows('solbris');
  const round = rows.rounds[1]!;
  const truth = JSON.parse(readFileSync(`demo/truth/${rows.jobs[0]!.id}.json`, 'utf8')) as {
    positions: Record<string, [number, number, number]>;
  };
  const known = rows.points.filter(({ code }) => truth.positions[code]);
  const at = ({ code }: Point) => truth.positions[code]!;
  const own = rows.readings.filter(({ roundId }) => roundId === round.id);
  const like = (quantity: Reading['quantity']) => own.find((each) => each.quantity === quantity)!;
  const random = seeded(1);
  const lengths = Array.from({ length: 120 }, (_, i): Reading => {
    const [from, to] = [0, 0].map(() => known[Math.floor(random.next() * known.length)]!) as [Point, Point];
    const value = Math.hypot(...[0, 1, 2].map((k) => at(to)[k]! - at(from)[k]!)) + 0.4 * random.normal();
    const ends = { pointId: from.id, toPointId: to.id, measure: 'tip', pointerFrom: null, pointerTo: null } as const;
    return { ...like('distance'), ...ends, id: `length ${i}`, lineId: `length ${i}`, value, sequence: 1000 + i };
  }).filter(({ pointId, toPointId }) => pointId !== toPointId);
  const heights = Array.from({ length: 50 }, (_, i): Reading => {
    const point = known[i % 17]!;
    const value = at(point)[2] + 0.3 * random.normal();
    return {
      ...like('height'),
      pointId: point.id,
      id: `height ${i}`,
      lineId: `height ${i}`,
      value,
      sequence: 2000 + i,
    };
  });
  const solve = (repeats: number, last?: Solved) => {
    const readings = [...rows.readings, ...lengths, ...heights.slice(0, repeats)];
    const job = Job.of({ ...rows, readings });
    return solveRoundFrom(job, observeRound(job, round), last);
  };

  it('says from the last solution what it says anew, whether a repeat is the first of its reading or one of many', () => {
    let last: Solved | undefined;
    let carried = 0;
    let [stillLoose, stillInPlan] = [0, 0];
    let loose: RoundNet['loose'] = [];
    for (let count = 0; count <= heights.length; count++) {
      const warm = solve(count, last);
      agree(warm.net, solve(count).net);
      if ((warm.solved?.main.updates ?? 0) > (last?.main.updates ?? 0)) carried++;
      if (warm.net.loose.length > 0 && warm.net.loose.every((each, i) => each === loose[i])) stillLoose++;
      if (last && warm.solved?.inPlan === last.inPlan) stillInPlan++;
      last = warm.solved;
      loose = warm.net.loose;
    }
    expect([stillLoose > 15, stillInPlan > 5]).toEqual([true, true]);
    // Nobody has read these points well: every second height moves some of them so far that all is solved anew.
    expect(carried).toBeGreaterThan(15);
  });

  it('leaves no point that was read without a word of it', () => {
    const { solution, loose, unread } = solve(heights.length).net;
    const told = [...solution!.survey.points.map(({ id }) => id), ...loose.map(({ id }) => id), ...unread];
    expect(told.toSorted()).toEqual(rows.points.map(({ id }) => id).toSorted());
  });
});

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
    if (name !== 'kvist') expect(grown).toBeGreaterThan(4);
  });
});
