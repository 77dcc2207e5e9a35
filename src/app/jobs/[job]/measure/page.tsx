import { openRound } from '@/server/actions/rounds';
import { jobAnd, rowsForRounds } from '@/server/views';
import { Rounds } from '@/ui/work/rounds';
import { RungPage, type JobParams } from '../rung-page';

export default async function Page({ params }: JobParams) {
  const { rows, made } = await jobAnd((await params).job, 'rounds', undefined);
  return (
    <RungPage rows={rows} rung="measure">
      <Rounds rows={rowsForRounds(rows, [])} rounds={made} openRound={openRound} />
    </RungPage>
  );
}
