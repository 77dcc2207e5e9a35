import { Matrix } from 'ml-matrix';
import type { RigidMotion } from '../../maths/rigid/fit';
import type { Vector } from '../../maths/geometry/vector';
import type { JobRows } from '../../shell/job/job-rows';
import type { MirrorPair } from '../../maths/symmetry/centre-plane';
import { carried, vehicleAxes } from '../../maths/symmetry/vehicle-axes';
import type { RoundJudgement } from './judgement';
import { jointCovariance, oppositeCodes } from '../net/net';

/** A round's located points in the chart's axes, or, where there is no chart, in vehicle axes made from the points themselves. */
export interface PlacedRound {
  readonly axes: 'chart' | 'own';
  /** By point identity, mm. */
  readonly positions: ReadonlyMap<string, Vector>;
  /** Covariance of two points, 3×3 row major, mm², in the same axes. */
  readonly joint: (a: string, b: string) => readonly number[];
}

export type PlacedResult = ({ readonly ok: true } & PlacedRound) | { readonly ok: false; readonly reason: string };

/** Left and right points meant to mirror each other, by their identities. */
export function mirrorPairs(rows: JobRows): MirrorPair[] {
  const opposite = oppositeCodes(rows.points);
  const byCode = new Map(rows.points.map((point) => [point.code, point]));
  return rows.points.flatMap((left) => {
    const right = byCode.get(opposite.get(left.code) ?? '');
    const meant = left.side === 'left' && right && left.mirrored && right.mirrored;
    return meant ? [{ left: left.id, right: right.id }] : [];
  });
}

export const centrePoints = (rows: JobRows): string[] =>
  rows.points.filter(({ side, mirrored }) => side === 'centre' && mirrored).map(({ id }) => id);

/** Brings a judged round into the axes its points are spoken of in. */
export function placeRound(rows: JobRows, judgement: RoundJudgement): PlacedResult {
  const { solution } = judgement.net;
  if (!solution || judgement.located.size === 0)
    return { ok: false, reason: `round ${judgement.round.number} has no located points: measure more of it` };
  const codeOf = new Map(rows.points.map(({ id, code }) => [id, code]));
  const byCode = jointCovariance(solution);
  const raw = new Map([...judgement.located].map(([id, { position }]) => [id, position as Vector]));
  const joint = (a: string, b: string) => byCode(codeOf.get(a)!, codeOf.get(b)!);
  if (judgement.alignment.ok) return { ok: true, axes: 'chart', ...moved(judgement.alignment.motion, raw, joint) };
  if (judgement.references.points.size > 0)
    return { ok: false, reason: `round ${judgement.round.number}: ${judgement.alignment.reason}` };
  const axes = vehicleAxes({ positions: raw, joint, pairs: mirrorPairs(rows), centre: centrePoints(rows) });
  if (!axes.ok) return { ok: false, reason: `round ${judgement.round.number}: ${axes.reason}` };
  return { ok: true, axes: 'own', ...moved(axes.motion, raw, joint) };
}

function moved(
  motion: RigidMotion,
  raw: ReadonlyMap<string, Vector>,
  joint: PlacedRound['joint'],
): Pick<PlacedRound, 'positions' | 'joint'> {
  const r = new Matrix(motion.rotation.map((row) => [...row]));
  return {
    positions: carried(motion, raw),
    joint: (a, b) =>
      r
        .mmul(Matrix.from1DArray(3, 3, [...joint(a, b)]))
        .mmul(r.transpose())
        .to1DArray(),
  };
}

/** One standard deviation of a point, the mean of its axes, mm. */
export function meanSd(placed: PlacedRound, id: string): number {
  const own = placed.joint(id, id);
  return Math.sqrt(Math.max(0, (own[0]! + own[4]! + own[8]!) / 3));
}
