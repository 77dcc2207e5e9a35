import { jointMatrix, turned } from '../maths/rigid/freedom';
import { deviationOf, fitSelected, rootMeanSquare, type Deviation, type RigidMotion } from '../maths/rigid/fit';
import { findUndisturbed, type PairedPoint, type UndisturbedResult } from '../maths/search/undisturbed';
import type { Position, Vector } from '../maths/geometry/vector';
import type { JobRows } from '../shell/job/job-rows';
import { damagePattern, type DamagePattern, type DeviatedPoint } from './pattern/pattern';
import { seeded } from '../maths/random/seeded';
import type { RoundJudgement } from '../round/judge/judgement';
import { jointCovariance } from '../round/net/net';

/** How far undisturbed points may be off: one distance for all, mm, or so many of each point's own deviations. */
export type Agree = { readonly mm: number } | { readonly spreads: number };

/** Usual: a point whose deviation is within three and a half times what its readings and its reference explain. */
export const OWN_SPREADS = { spreads: 3.5 } as const satisfies Agree;

/** One choice of control points and what it would do to the deviations. */
export interface ControlChoice {
  readonly name: 'held' | 'undisturbed' | 'rival' | 'all';
  readonly pointIds: readonly string[];
  readonly result:
    | { readonly ok: true; readonly rms: number; readonly deviations: ReadonlyMap<string, Deviation> }
    | { readonly ok: false; readonly reason: string };
}

/** What a judged round says beyond its single figures. */
export interface RoundAnalysis {
  readonly undisturbed: UndisturbedResult;
  readonly choices: readonly ControlChoice[];
  readonly pattern?: DamagePattern;
  /** The pattern is measured against the undisturbed points, since nothing is held. */
  readonly againstUndisturbed: boolean;
}

/** A spread below this is not to be believed, mm. */
const SMALLEST_SPREAD = 0.5;
const SEED = 20_260_117;

/** Looks for the undisturbed points, lays the choices of control points side by side and resolves the damage. */
export function analyseRound(rows: JobRows, judgement: RoundJudgement, agree: Agree): RoundAnalysis {
  const pairs = pairedPoints(rows, judgement, agree);
  const undisturbed = findUndisturbed(pairs, 'mm' in agree ? agree.mm : 1);
  const { alignment } = judgement;
  const held = alignment.ok ? alignment.controlIds : undisturbed.ok ? undisturbed.used : [];
  const motion = alignment.ok ? alignment.motion : undisturbed.ok ? undisturbed.motion : undefined;
  return {
    undisturbed,
    choices: controlChoices(pairs, judgement, undisturbed),
    ...(motion ? { pattern: patternOf(rows, judgement, pairs, motion, new Set(held)) } : {}),
    againstUndisturbed: !alignment.ok,
  };
}

/** Located points with a reference, each with how far it may be off. */
function pairedPoints(rows: JobRows, { located, references, net }: RoundJudgement, agree: Agree): PairedPoint[] {
  const joint = net.solution && jointCovariance(net.solution);
  return rows.points.flatMap(({ id, code }): PairedPoint[] => {
    const chosen = references.points.get(id);
    const measured = located.get(id)?.position;
    if (!chosen || !measured || !joint) return [];
    const reference: Position<'chart'> = [chosen.row.x, chosen.row.y, chosen.row.z];
    if ('mm' in agree) return [{ id, reference, measured }];
    const own = joint(code, code);
    const spread = Math.sqrt((own[0]! + own[4]! + own[8]!) / 3 + chosen.sd ** 2);
    return [{ id, reference, measured, agree: agree.spreads * Math.max(spread, SMALLEST_SPREAD) }];
  });
}

function controlChoices(
  pairs: readonly PairedPoint[],
  { alignment }: RoundJudgement,
  undisturbed: UndisturbedResult,
): ControlChoice[] {
  const sets: readonly [ControlChoice['name'], readonly string[]][] = [
    ['held', alignment.ok ? alignment.controlIds : []],
    ['undisturbed', undisturbed.ok ? undisturbed.used : []],
    ['rival', undisturbed.ok ? undisturbed.rival : []],
    ['all', pairs.map(({ id }) => id)],
  ];
  return sets
    .filter(([, ids]) => ids.length >= 3)
    .map(([name, pointIds]) => {
      const fit = fitSelected(
        pairs.filter(({ id }) => pointIds.includes(id)).map((pair) => ({ ...pair, sigma: pair.agree ?? 1 })),
      );
      if (!fit.ok) return { name, pointIds, result: fit };
      const deviations = new Map(pairs.map((pair) => [pair.id, deviationOf(fit.motion, pair)]));
      return {
        name,
        pointIds,
        result: { ok: true, deviations, rms: rootMeanSquare(pointIds.flatMap((id) => deviations.get(id) ?? [])) },
      };
    });
}

function patternOf(
  rows: JobRows,
  { references, net }: RoundJudgement,
  pairs: readonly PairedPoint[],
  motion: RigidMotion,
  held: ReadonlySet<string>,
): DamagePattern {
  const byId = new Map(rows.points.map((point) => [point.id, point]));
  const points = pairs.map((pair): DeviatedPoint => {
    const { dx, dy, dz } = deviationOf(motion, pair);
    return { id: pair.id, at: pair.reference as Vector, side: byId.get(pair.id)!.side, deviation: [dx, dy, dz] };
  });
  const joint = jointCovariance(net.solution!);
  const codes = pairs.map(({ id }) => byId.get(id)!.code);
  const covariance = turned(jointMatrix(codes, joint), motion.rotation);
  pairs.forEach(({ id }, i) => {
    const trust = references.points.get(id)!.sd ** 2;
    for (let k = 3 * i; k < 3 * i + 3; k++) covariance.set(k, k, covariance.get(k, k) + trust);
  });
  return damagePattern(points, covariance, held, seeded(SEED));
}
