import { distance, place, position, type Position } from '../../maths/geometry/vector';
import { fitSelected } from '../../maths/rigid/fit';
import { judgeRound } from '../../round/judge/judge-round';
import { placedPosition } from '../../round/judge/judgement';
import type { Round } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { byChartAlone, draft, lengthsOf, type DraftResult } from './derive';

/** A part is joined to the shell through no fewer holes than these. */
const FEWEST = 3;

/**
 * A part that was cut out, measured on the floor in axes of its own and joined to the shell through holes that both have: a rigid
 * fit of the holes onto where an earlier round of the shell found them carries all its other points along. A point is as sure
 * as the part's round has it and the holes agree.
 *
 * @param part    the round taken of the part
 * @param through the holes to join it by; empty: all that both have
 */
export function fromRemovedPart(job: Job, part: Round, through: ReadonlySet<string>): DraftResult {
  const alone = byChartAlone(job);
  const { located } = judgeRound(alone, part);
  if (located.size === 0)
    return { ok: false, reason: `round ${part.number} has no located points: measure more of the part` };
  const shells = alone.ownRounds.toReversed().map((round) => ({ round, judged: judgeRound(alone, round) }));
  for (const { round, judged } of shells) {
    const holes = [...located].flatMap(([id, { position: at }]) => {
      const on = placedPosition(judged, id);
      const isChosen = through.size === 0 || through.has(id);
      return on && isChosen ? [{ id, measured: position<'theirs'>(at), reference: on, sigma: 1 }] : [];
    });
    if (holes.length < FEWEST) continue;
    const fit = fitSelected(holes);
    if (!fit.ok) continue;
    const carry = (id: string): Position<'chart'> => place(fit.motion, position<'theirs'>(located.get(id)!.position));
    const squares = holes.reduce((sum, { id, reference }) => sum + distance(carry(id), reference) ** 2, 0);
    const agree = Math.sqrt(squares / holes.length);
    const points = [...located].map(([pointId, { covariance }]) => {
      const own = (covariance[0]! + covariance[4]! + covariance[8]!) / 3;
      return { pointId, at: carry(pointId), sd: Math.sqrt(Math.max(0, own) + agree ** 2) };
    });
    const codes = holes.map(({ id }) => job.code(id)).join(', ');
    return draft(
      points,
      lengthsOf(job, points),
      `${part.shell}, measured by itself in round ${part.number} and joined to round ${round.number} through ${codes}, which agree within ${agree.toFixed(1)} mm`,
    );
  }
  return {
    ok: false,
    reason:
      'the part and the shell need three holes that both have and a round of the shell located: read them before the part is cut out',
  };
}
