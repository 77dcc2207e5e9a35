import { planPull, recordPullEvent, setPullHolds } from '@/server/actions/work';
import { jobAnd, rowsForRounds } from '@/server/views';
import { Pulls } from '@/ui/work/pulls';
import { RungPage, type JobParams } from '../rung-page';

export default async function Page({ params }: JobParams) {
  const { rows, made } = await jobAnd((await params).job, 'pulls', undefined);
  return (
    <RungPage rows={rows} rung="pull">
      <Pulls rows={rowsForRounds(rows, [])} {...made} actions={{ planPull, recordPullEvent, setPullHolds }} />
    </RungPage>
  );
}
