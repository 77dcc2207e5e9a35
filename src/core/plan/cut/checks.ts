import { norm, subtract } from '../../maths/geometry/vector';
import { distanceBetween } from '../../round/observe/measured';
import type { RoundJudgement } from '../../round/judge/judgement';
import { spreadOf } from '../../shell/instruments';
import type { RemovalCheck } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import type { CutModel } from './cut-model';
import { judgeAfterCut, type AfterCut, type ReadAgain } from './after-cut';
import type { NamedLength } from './lengths';

/** What was read in a minute, and what it says. */
export interface JudgedCheck {
  readonly check: RemovalCheck;
  readonly stage: number;
  readonly says: AfterCut;
}

/** What a length was before: read in a check that came before, else in the last round, else between where that found its ends. */
export function lengthBefore(
  job: Job,
  cut: CutModel,
  { from, to }: Pick<NamedLength, 'from' | 'to'>,
  before?: string,
): { readonly value: number; readonly sd: number } | undefined {
  const { nodes } = cut.structure.model;
  const [a, b] = [nodes[from]!.pointId, nodes[to]!.pointId];
  if (a === null || b === null) return undefined;
  const isThis = ({ fromPointId, toPointId }: { fromPointId: string; toPointId: string }) =>
    (fromPointId === a && toPointId === b) || (fromPointId === b && toPointId === a);
  const earlier = job.rows.removalChecks.filter(({ at }) => before === undefined || at < before).map(({ id }) => id);
  const read = job.rows.removalReadings.filter((each) => isThis(each) && earlier.includes(each.checkId)).at(-1);
  if (read) return { value: read.value, sd: spreadOf(job.version(read.instrumentVersionId), read.value) };
  return cut.latest && inRound(cut.latest, a, b);
}

function inRound({ measured, located, net }: RoundJudgement, a: string, b: string) {
  const found = distanceBetween(measured, { fromPointId: a, toPointId: b, measure: 'tip' });
  if (found) return { value: found.value, sd: found.sd };
  const [p, q] = [located.get(a), located.get(b)];
  if (!p || !q || !net.solution) return undefined;
  const by = subtract(q.position, p.position);
  const length = norm(by);
  const along = by.map((value) => value / length);
  // Of two points that were located apart: what both are known to along their line.
  const spread = [p, q].reduce((sum, { covariance }) => {
    let own = 0;
    for (let r = 0; r < 3; r++) for (let c = 0; c < 3; c++) own += along[r]! * covariance[3 * r + c]! * along[c]!;
    return sum + Math.max(0, own);
  }, 0);
  return { value: length, sd: Math.sqrt(spread) };
}

/** Every check that was made, judged by what was there before it. */
export function judgedChecks(job: Job, cut: CutModel): JudgedCheck[] {
  const nodeOf = new Map(
    cut.structure.model.nodes.flatMap(({ pointId }, i) => (pointId === null ? [] : [[pointId, i] as const])),
  );
  return job.rows.removalChecks.flatMap((check): JudgedCheck[] => {
    const found = cut.stages.findIndex(({ id }) => id === check.stageId);
    const stage = found >= 0 ? found : cut.stages.length - 1;
    if (stage < 0) return [];
    const read = job.rows.removalReadings
      .filter(({ checkId }) => checkId === check.id)
      .flatMap(({ fromPointId, toPointId, value, instrumentVersionId }): ReadAgain[] => {
        const [from, to] = [nodeOf.get(fromPointId), nodeOf.get(toPointId)];
        if (from === undefined || to === undefined) return [];
        const before = lengthBefore(job, cut, { from, to }, check.at);
        if (!before) return [];
        const known = cut.lengths.find(
          (each) => (each.from === from && each.to === to) || (each.from === to && each.to === from),
        );
        const code = known?.code ?? `${job.code(fromPointId)}–${job.code(toPointId)}`;
        const length: NamedLength = known ?? { id: code, code, name: '', from, to, limit: 1 };
        const nowSd = spreadOf(job.version(instrumentVersionId), value);
        return [{ length, before: before.value, beforeSd: before.sd, now: value, nowSd }];
      });
    return [{ check, stage, says: judgeAfterCut(cut, stage, read) }];
  });
}
