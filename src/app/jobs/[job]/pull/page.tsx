import { decideAdvice } from '@/server/actions/cut';
import { correctPull, planPull, recordItemEvent, setHolds, setPlates, withdraw } from '@/server/actions/work';
import { jobAnd, rowsForRounds } from '@/server/views';
import { PullingPlace } from '@/ui/pull/pulling-place';
import { RungPage, type JobParams } from '../rung-page';

export default async function Page({ params }: JobParams) {
  const { rows, made } = await jobAnd((await params).job, 'pulling', undefined);
  return (
    <RungPage
      rows={rows}
      rung="pull"
      place={
        <PullingPlace
          rows={rowsForRounds(
            rows,
            rows.rounds.map(({ id }) => id),
          )}
          page={made}
          actions={{ planPull, correctPull, setHolds, setPlates, recordItemEvent, withdraw, decideAdvice }}
        />
      }
    />
  );
}
