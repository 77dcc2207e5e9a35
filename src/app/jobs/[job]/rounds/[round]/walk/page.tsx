import { only } from '@/core/shell/job/job-rows';
import { Job } from '@/core/shell/job/job';
import { chartedTargets } from '@/core/walk/targets';
import { readPreferences } from '@/formats/preferences';
import { preferencesCookie } from '@/server/preferences';
import { runTask } from '@/server/tasks';
import { roundRows, type RoundParams } from '@/server/views';
import { WalkSheet } from '@/ui/tape/walk-sheet';

/** Spread of a tape and a height stick, for the plan, mm. */
const HANDS = { height: 0.7, constant: 0.6, perMetre: 0.3 };

export default async function Page({ params }: { params: Promise<RoundParams> }) {
  const { rows, round } = await roundRows(await params);
  const { people } = readPreferences(await preferencesCookie());
  const walk = await runTask('walk', rows, { roundId: round.id, hands: HANDS, people });
  return (
    <WalkSheet
      rows={only(rows, 'jobs', 'points')}
      round={round}
      targets={walk.length > 0 ? walk : chartedTargets(Job.of(rows), round)}
    />
  );
}
