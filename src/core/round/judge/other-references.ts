import { deviationOf } from '../../maths/rigid/fit';
import { mapAxes } from '../../maths/geometry/vector';
import { positionOf } from '../../shell/references/chosen';
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
    const { by } = deviationOf(alignment.motion, { id, measured, reference: positionOf(row) });
    const spread = mapAxes((i) => Math.sqrt(Math.max(0, judged.sd[i] ** 2 - chosen.sd ** 2) + sd ** 2));
    const axes = by.map((value, i) => judge(value, spread[i]!, row.tolerance));
    return {
      reference,
      deviation: by,
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
