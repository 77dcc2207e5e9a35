import { only } from '@/core/shell/job/job-rows';
import { correctPull, planPull, recordPullEvent, setPullHolds, withdraw } from '@/server/actions/work';
import { jobAnd } from '@/server/views';
import { Pulls } from '@/ui/work/pulls';
import { RungPage, type JobParams } from '../rung-page';

export default async function Page({ params }: JobParams) {
  const { rows, made } = await jobAnd((await params).job, 'pulls', undefined);
  return (
    <RungPage rows={rows} rung="pull">
      <Pulls
        rows={only(rows, 'jobs', 'points', 'pulls')}
        {...made}
        actions={{ planPull, recordPullEvent, setPullHolds, correctPull, withdraw }}
      />
    </RungPage>
  );
}
