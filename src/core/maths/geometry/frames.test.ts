import { describe, expect, it } from 'vitest';
import { fitSelected, deviationOf } from '../rigid/fit';
import {
  covariance,
  displacement,
  distance,
  from,
  motion,
  place,
  position,
  turn,
  turnCovariance,
  type Covariance,
  type Displacement,
  type Motion,
  type Position,
} from './vector';

const inRound = position<'round'>([10, 20, 30]);
const inChart = position<'chart'>([12, 18, 33]);
const QUARTER = [
  [0, -1, 0],
  [1, 0, 0],
  [0, 0, 1],
] as const;
const toChart = motion<'round', 'chart'>(QUARTER, [5, 0, 0]);

describe('frames', () => {
  it('are left by motions alone', () => {
    const placed: Position<'chart'> = place(toChart, inRound);
    expect(placed).toEqual([-15, 10, 30]);
    const turned: Displacement<'chart'> = turn(toChart, displacement<'round'>([1, 2, 3]));
    expect(turned).toEqual([-2, 1, 3]);
    const spread: Covariance<'chart'> = turnCovariance(toChart, covariance<'round'>([4, 0, 0, 0, 9, 0, 0, 0, 1]));
    expect(spread).toEqual([9, 0, 0, 0, 4, 0, 0, 0, 1]);
    expect(from(inChart, placed)).toEqual([-27, -8, -3]);
  });

  /** What used to compile and compared two frames; the compiler holds it, nothing of it runs. */
  it('do not mix: each of these is refused by the compiler', () => {
    const refused = () => {
      // @ts-expect-error a round position is no chart position
      const a: Position<'chart'> = inRound;
      // @ts-expect-error three bare numbers are nobody's position
      const b: Position<'round'> = [1, 2, 3];
      // @ts-expect-error the distance between positions of two frames means nothing
      const c = distance(inRound, inChart);
      // @ts-expect-error nor does their difference
      const d = from(inRound, inChart);
      // @ts-expect-error a chart position is in the chart already
      const e = place(toChart, inChart);
      // @ts-expect-error a difference of positions is no position
      const f: Position<'chart'> = displacement<'chart'>([1, 2, 3]);
      // @ts-expect-error a deviation along the chart's axes has no round variances
      const g: Covariance<'round'> = turnCovariance(toChart, covariance<'round'>([]));
      // @ts-expect-error a motion from the round to the chart does not lead to the vehicle's own axes
      const h: Motion<'round', 'vehicle'> = toChart;
      // @ts-expect-error nor back
      const i: Motion<'chart', 'round'> = toChart;
      // @ts-expect-error a fit joins the round with the chart, not the chart with itself
      const j = deviationOf(toChart, { id: 'F1L', measured: inChart, reference: inChart });
      const fit = fitSelected([{ id: 'F1L', measured: inRound, reference: inChart, sigma: 1 }]);
      // @ts-expect-error the fit of a round onto the chart cannot place another shell's points
      const k = fit.ok && place(fit.motion, position<'theirs'>([0, 0, 0]));
      return [a, b, c, d, e, f, g, h, i, j, k];
    };
    expect(refused).toBeTypeOf('function');
  });
});
