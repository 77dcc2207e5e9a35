import { deviationOf } from '../../maths/rigid/fit';
import type { Position, Vector } from '../../maths/geometry/vector';
import type { Reference } from '../../shell/job/entities';
import { judge, worstVerdict, type Verdict } from '../../maths/statistics/verdict';
import type { RoundJudgement } from './judgement';

/** What another reference would say of a subject. */
export interface OtherVerdict {
  readonly reference: Reference;
  /** Measured minus that reference: three components for a point, one for a dimension, mm. */
  readonly deviation: readonly number[];
  readonly plusMinus: number;
  readonly verdict: Verdict;
}

/** The verdicts a point or dimension would get from the references it is not judged by, on the same alignment. */
export function otherVerdicts(judgement: RoundJudgement, kind: 'point' | 'dimension', id: string): OtherVerdict[] {
  return kind === 'point' ? pointVerdicts(judgement, id) : dimensionVerdicts(judgement, id);
}

function pointVerdicts({ points, located, references, alignment }: RoundJudgement, id: string): OtherVerdict[] {
  const judged = points.find(({ point }) => point.id === id)?.judged;
  const chosen = references.points.get(id);
  const measured = located.get(id)?.position;
  if (!judged || !chosen || !measured || !alignment.ok) return [];
  return chosen.others.map(({ reference, row, sd }): OtherVerdict => {
    const { dx, dy, dz } = deviationOf(alignment.motion, {
      id,
      measured,
      reference: [row.x, row.y, row.z] as Position<'chart'>,
    });
    const spread = judged.sd.map((own) =>
      Math.sqrt(Math.max(0, own ** 2 - chosen.sd ** 2) + sd ** 2),
    ) as unknown as Vector;
    const axes = [dx, dy, dz].map((value, i) => judge(value, spread[i]!, row.tolerance));
    return {
      reference,
      deviation: [dx, dy, dz],
      plusMinus: Math.max(...axes.map(({ plusMinus }) => plusMinus)),
      verdict: worstVerdict(axes.map(({ verdict }) => verdict)),
    };
  });
}

function dimensionVerdicts({ dimensions, references }: RoundJudgement, id: string): OtherVerdict[] {
  const measured = dimensions.find(({ dimension }) => dimension.id === id)?.measured;
  const chosen = references.dimensions.get(id);
  if (!measured || !chosen) return [];
  return chosen.others.map(({ reference, row, sd }): OtherVerdict => {
    const deviation = measured.value - row.value;
    const { verdict, plusMinus } = judge(deviation, Math.hypot(measured.sd, sd), row.tolerance);
    return { reference, deviation: [deviation], plusMinus, verdict };
  });
}
