import { addSeam } from '@/server/actions/chart';
import { jobAnd, rowsForRounds } from '@/server/views';
import { Gaps } from '@/ui/gaps/gaps';
import { RungPage, type JobParams } from '../rung-page';

export default async function Page({ params }: JobParams) {
  const { rows, made } = await jobAnd((await params).job, 'gaps', undefined);
  return (
    <RungPage rows={rows} rung="fit">
      <Gaps rows={rowsForRounds(rows, [])} {...made} addSeam={addSeam} />
    </RungPage>
  );
}
