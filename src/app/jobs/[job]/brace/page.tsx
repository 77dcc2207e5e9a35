import { planBrace, recordBraceEvent } from '@/server/actions/work';
import { jobAnd, rowsForRounds } from '@/server/views';
import { Braces } from '@/ui/work/braces';
import { RungPage, type JobParams } from '../rung-page';

export default async function Page({ params }: JobParams) {
  const { rows, made } = await jobAnd((await params).job, 'braces', undefined);
  return (
    <RungPage rows={rows} rung="brace">
      <Braces rows={rowsForRounds(rows, [])} {...made} planBrace={planBrace} recordBraceEvent={recordBraceEvent} />
    </RungPage>
  );
}
