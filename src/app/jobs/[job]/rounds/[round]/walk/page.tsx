import { Job } from '@/core/shell/job/job';
import { chartedTargets, walkTargets } from '@/core/walk/targets';
import { roundRows, rowsForRounds, type RoundParams } from '@/server/views';
import { WalkSheet } from '@/ui/tape/walk-sheet';

/** Spread of a tape and a height stick, for the plan, mm. */
const HANDS = { height: 0.7, distance: (length: number) => 0.6 + (0.3 * length) / 1000 };

export default async function Page({ params }: { params: Promise<RoundParams> }) {
  const { rows, round } = await roundRows(await params);
  const whole = Job.of(rows);
  const walk = walkTargets(whole, round, HANDS);
  return (
    <WalkSheet
      rows={rowsForRounds(rows, [])}
      round={round}
      targets={walk.length > 0 ? walk : chartedTargets(whole, round)}
    />
  );
}
