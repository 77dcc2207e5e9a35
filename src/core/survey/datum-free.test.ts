import { describe, expect, it } from 'vitest';
import { motion, position, type Vector } from '../maths/geometry/vector';
import { seeded } from '../maths/random/seeded';
import { shellNet } from '../practice/shell-net';
import { jointOf } from './prediction';
import { solveNet, type NetSolution } from './solve';
import type { Survey } from './survey';
import { axisDeviations, deviationCovariances } from '../maths/rigid/uncertainty';

const STILL = motion<'round', 'chart'>(
  [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
  ],
  [0, 0, 0],
);

describe('deviations from a net', () => {
  const { survey, truth } = shellNet({ points: 12, distances: 60, startOff: 0 }, seeded(31));
  const control = ['P0L', 'P0R', 'P2L', 'P2R'];

  /** Standard deviations of all deviations after aligning on the control points. */
  function uncertainties(of: Survey): readonly Vector[] {
    const result = solveNet(of);
    if (!result.ok) throw new Error(result.why);
    const { solution }: { solution: NetSolution } = result;
    const joint = jointOf<'round'>(solution);
    const points = of.points.map(({ id }) => ({
      id,
      reference: position<'chart'>(truth.get(id)!),
      measured: truth.get(id)!,
      trust: 0,
      sigma: 1,
    }));
    const covariances = deviationCovariances(
      STILL,
      points.filter(({ id }) => control.includes(id)),
      points,
      (a, b) => joint.block(a, b),
    );
    return of.points.map(({ id }) => axisDeviations(covariances.get(id)!));
  }

  it('are as uncertain whichever datum the net was solved in', () => {
    const distancesOnly = {
      ...survey,
      points: survey.points.map(({ id }) => ({ id, start: truth.get(id)! })),
      readings: survey.readings.filter(({ kind }) => kind === 'distance'),
    };
    const free = uncertainties(distancesOnly);
    // The same net hung on three points: the least that stops it from floating, adding nothing.
    const pin = (id: string, axis: number) => ({
      id: `${id}${axis}`,
      kind: (['station', 'offset', 'height'] as const)[axis]!,
      point: id,
      value: truth.get(id)![axis]!,
      sigma: 0.01,
    });
    const pins = [pin('P0L', 0), pin('P0L', 1), pin('P0L', 2), pin('P5L', 1), pin('P5L', 2), pin('P0R', 2)];
    const hung = uncertainties({
      ...distancesOnly,
      readings: [...distancesOnly.readings, ...pins],
    });
    free.forEach((sd, i) => sd.forEach((value, axis) => expect(hung[i]![axis]).toBeCloseTo(value, 1)));
  });
});
