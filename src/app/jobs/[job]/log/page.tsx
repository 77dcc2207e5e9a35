import type { JobRows } from '@/core/shell/job/job-rows';
import { judgeRound } from '@/core/round/judge/judgement';
import { writeLogEntry } from '@/server/actions/log';
import { jobRows } from '@/server/views';
import { LogPage, type Acceptance } from '@/ui/log/log-page';

type Query = Promise<{ round?: string; point?: string; dimension?: string }>;

export default async function Page({
  params,
  searchParams,
}: {
  params: Promise<{ job: string }>;
  searchParams: Query;
}) {
  const rows = await jobRows((await params).job);
  const acceptance = acceptanceFrom(rows, await searchParams);
  return (
    <LogPage
      rows={{ ...rows, readings: [], readingStrikes: [], signedRecords: [] }}
      acceptance={acceptance}
      writeLogEntry={writeLogEntry}
    />
  );
}

/** The deviation the address names, as the round judges it now. */
function acceptanceFrom(rows: JobRows, query: Awaited<Query>): Acceptance | undefined {
  const round = rows.rounds.find((each) => each.id === query.round);
  if (!round) return undefined;
  const judgement = judgeRound(rows, round);
  const dimension = judgement.dimensions.find((each) => each.dimension.id === query.dimension);
  if (dimension?.judged)
    return {
      roundId: round.id,
      code: dimension.dimension.code,
      pointId: null,
      dimensionId: dimension.dimension.id,
      deviation: dimension.judged.deviation,
      referenceId: dimension.judged.referenceId,
    };
  const point = judgement.points.find((each) => each.point.id === query.point);
  if (!point?.judged) return undefined;
  const { deviation, worstAxis, referenceId } = point.judged;
  return {
    roundId: round.id,
    code: point.point.code,
    pointId: point.point.id,
    dimensionId: null,
    deviation: { x: deviation.dx, y: deviation.dy, z: deviation.dz }[worstAxis],
    referenceId,
  };
}
