import { only, type JobRows } from '@/core/shell/job/job-rows';
import { AXES } from '@/core/maths/geometry/vector';
import { takenBack } from '@/core/report/taken-back';
import { Job } from '@/core/shell/job/job';
import { correctTag, tagPart, writeLogEntry } from '@/server/actions/log';
import { withdraw } from '@/server/actions/work';
import { runTask } from '@/server/tasks';
import { jobRows } from '@/server/views';
import type { Acceptance } from '@/ui/log/entry-form';
import { LogPage } from '@/ui/log/log-page';

type Query = Promise<{ round?: string; point?: string; dimension?: string }>;

export default async function Page({
  params,
  searchParams,
}: {
  params: Promise<{ job: string }>;
  searchParams: Query;
}) {
  const rows = await jobRows((await params).job);
  const acceptance = await acceptanceFrom(rows, await searchParams);
  return (
    <LogPage
      rows={only(
        rows,
        ...(['jobs', 'points', 'dimensions', 'logEntries', 'logSubjects', 'photographs'] as const),
        ...(['findingDetails', 'decisionDetails', 'partTags'] as const),
      )}
      takenBack={takenBack(Job.of(rows)).filter(({ withdrawal }) =>
        ['log_entry', 'part_tag'].includes(withdrawal.tableName),
      )}
      acceptance={acceptance}
      actions={{ writeLogEntry, tagPart, correctTag, withdraw }}
    />
  );
}

/** The deviation the address names, as the round judges it now. */
async function acceptanceFrom(rows: JobRows, query: Awaited<Query>): Promise<Acceptance | undefined> {
  const round = rows.rounds.find((each) => each.id === query.round);
  if (!round) return undefined;
  const { value: judgement } = await runTask('judge', rows, { roundId: round.id });
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
    deviation: deviation.by[AXES.indexOf(worstAxis)]!,
    referenceId,
  };
}
