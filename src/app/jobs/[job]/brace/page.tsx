import { ownRounds } from '@/core/shell/job/job-rows';
import { dimensionsOf } from '@/core/days/day';
import type { Vector } from '@/core/maths/geometry/vector';
import { chooseReferences } from '@/core/shell/references/chosen';
import { braceGeometry, braceState } from '@/core/findings/brace-pull';
import { judgeRound, placedPosition } from '@/core/round/judge/judgement';
import { planBrace, recordBraceEvent } from '@/server/actions/work';
import { jobRows, rowsForRounds } from '@/server/views';
import { Braces, type ListedBrace } from '@/ui/work/braces';
import { RungPage, type JobParams } from '../rung-page';

export default async function Page({ params }: JobParams) {
  const rows = await jobRows((await params).job);
  const references = chooseReferences(rows);
  const judgements = ownRounds(rows).map((round) => judgeRound(rows, round));
  const latest = judgements.findLast((each) => each.measured.points.size > 0);
  const codeOf = new Map(rows.points.map((point) => [point.id, point.code]));
  const braces = rows.braces.map((brace): ListedBrace => ({
    brace,
    from: codeOf.get(brace.fromPointId)!,
    to: codeOf.get(brace.toPointId)!,
    geometry: braceGeometry(
      brace,
      judgements.find((each) => each.round.id === brace.roundId),
      references,
    ),
    state: braceState(rows, brace),
    lastEvent: rows.braceEvents.findLast((event) => event.braceId === brace.id),
    holds: dimensionsOf(rows, brace),
  }));
  const positions = Object.fromEntries(
    rows.points.flatMap((point): [string, Vector][] => {
      const row = references.points.get(point.id)?.row;
      const at = (latest && placedPosition(latest, point.id)) ?? (row && ([row.x, row.y, row.z] as Vector));
      return at ? [[point.id, at]] : [];
    }),
  );
  return (
    <RungPage rows={rows} rung="brace">
      <Braces
        rows={rowsForRounds(rows, [])}
        braces={braces}
        positions={positions}
        latestRoundId={latest?.round.id ?? null}
        planBrace={planBrace}
        recordBraceEvent={recordBraceEvent}
      />
    </RungPage>
  );
}
