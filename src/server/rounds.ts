import type { Round } from '@/core/shell/job/entities';
import { ownRounds, type JobRows } from '@/core/shell/job/job-rows';
import { judgeRound } from '@/core/round/judge/judgement';

/** The movements of the other rounds of this shell, for the sheet to draw behind the one in hand. */
export function ghostsOf(rows: JobRows, round: Round) {
  const read = new Set(rows.readings.map(({ roundId }) => roundId));
  return ownRounds(rows)
    .filter((other) => other.id !== round.id && read.has(other.id))
    .map((other) => ({
      number: other.number,
      name: other.name,
      movements: Object.fromEntries(
        judgeRound(rows, other).points.flatMap(({ point, judged }) => {
          if (!judged) return [];
          const { dx, dy, dz } = judged.deviation;
          return [[point.id, [dx, dy, dz] as const]];
        }),
      ),
    }))
    .filter(({ movements }) => Object.keys(movements).length > 0);
}
