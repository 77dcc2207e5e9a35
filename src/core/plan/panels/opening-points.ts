import { distance } from '../../maths/geometry/vector';
import { judgeRound } from '../../round/judge/judge-round';
import { lengthBetween } from '../../round/judge/judgement';
import { OPENING_CORNERS, type CalledPanel, type OpeningCorner, type Round } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { referencePosition } from '../../shell/references/chosen';
import { LENGTH_BETWEEN, type ShapeLength } from './panel-or-opening';

/** A length of an opening between two datum points: what a reference says, and what the round's whole net has of it, mm. */
export interface PointLength {
  readonly thing: 'opening';
  readonly what: Exclude<ShapeLength, 'twist'>;
  /** The points it is between, by their codes. */
  readonly between: readonly [string, string];
  readonly wanted: number;
  readonly value: number;
  /** One standard deviation of the one less the other. */
  readonly sd: number;
}

export interface OpeningByPoints {
  readonly round: Pick<Round, 'id' | 'name'>;
  readonly lengths: readonly PointLength[];
}

/**
 * What one round has of an opening's sides and diagonals, between the points that stand for its corners: the one its gaps were
 * read in, so that both tell of the same day; where that reached none, the last that did. The points need not be the corners
 * themselves: between points near them a side is as much too long or too short.
 *
 * @param gapsReadIn identity of the round its gaps were last read in
 */
export function openingByPoints(
  job: Job,
  panel: Pick<CalledPanel, 'id'>,
  gapsReadIn: string | undefined,
): OpeningByPoints | undefined {
  const corners = job.rows.openingCorners.filter(({ hungId }) => hungId === panel.id);
  if (corners.length < 2) return undefined;
  const isFirst = ({ id }: Round) => Number(id === gapsReadIn);
  for (const round of job.ownRounds.toReversed().toSorted((a, b) => isFirst(b) - isFirst(a))) {
    const lengths = lengthsIn(job, round, corners);
    if (lengths.length > 0) return { round: { id: round.id, name: round.name }, lengths };
  }
  return undefined;
}

function lengthsIn(job: Job, round: Round, corners: readonly OpeningCorner[]): PointLength[] {
  const judgement = judgeRound(job, round);
  const at = (corner: number) => corners.find((each) => each.corner === OPENING_CORNERS[corner])?.pointId;
  return (Object.entries(LENGTH_BETWEEN) as [PointLength['what'], readonly [number, number]][]).flatMap(
    ([what, [a, b]]): PointLength[] => {
      const [fromPointId, toPointId] = [at(a), at(b)];
      if (!fromPointId || !toPointId) return [];
      const [from, to] = [fromPointId, toPointId].map((id) => judgement.references.points.get(id));
      const [start, end] = [fromPointId, toPointId].map((id) => referencePosition(judgement.references, id));
      const measured = lengthBetween(judgement, { fromPointId, toPointId, measure: 'tip' });
      if (!from || !to || !start || !end || !measured) return [];
      const sd = Math.hypot(measured.sd, from.sd, to.sd);
      const between = [job.point(fromPointId).code, job.point(toPointId).code] as const;
      return [{ thing: 'opening', what, between, wanted: distance(start, end), value: measured.value, sd }];
    },
  );
}
