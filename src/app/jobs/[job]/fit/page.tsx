import { only } from '@/core/shell/job/job-rows';
import { addSeam, correctSeam } from '@/server/actions/chart';
import { withdraw } from '@/server/actions/work';
import { jobAnd } from '@/server/views';
import { Gaps } from '@/ui/gaps/gaps';
import { RungPage, type JobParams } from '../rung-page';

export default async function Page({ params }: JobParams) {
  const { rows, made } = await jobAnd((await params).job, 'gaps', undefined);
  return (
    <RungPage
      rows={rows}
      rung="fit"
      place={<Gaps rows={only(rows, 'jobs')} page={made} actions={{ addSeam, correctSeam, withdraw }} />}
    />
  );
}
