import { only } from '@/core/shell/job/job-rows';
import { openRound } from '@/server/actions/rounds';
import { jobAnd } from '@/server/views';
import { Rounds } from '@/ui/work/rounds';
import { RungPage, type JobParams } from '../rung-page';

export default async function Page({ params }: JobParams) {
  const { rows, made } = await jobAnd((await params).job, 'rounds', undefined);
  return (
    <RungPage rows={rows} rung="measure">
      <Rounds
        rows={only(
          rows,
          ...([
            'jobs',
            'rounds',
            'roundControls',
            'shellStates',
            'supports',
            'instruments',
            'instrumentVersions',
          ] as const),
        )}
        rounds={made}
        openRound={openRound}
      />
    </RungPage>
  );
}
