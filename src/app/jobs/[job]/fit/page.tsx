import { only } from '@/core/shell/job/job-rows';
import { addSeam } from '@/server/actions/chart';
import { jobAnd } from '@/server/views';
import { Gaps } from '@/ui/gaps/gaps';
import { RungPage, type JobParams } from '../rung-page';

export default async function Page({ params }: JobParams) {
  const { rows, made } = await jobAnd((await params).job, 'gaps', undefined);
  return (
    <RungPage rows={rows} rung="fit">
      <Gaps rows={only(rows, 'jobs')} {...made} addSeam={addSeam} />
    </RungPage>
  );
}
