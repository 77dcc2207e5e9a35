import * as fitting from '@/server/actions/fitting';
import { addSeam, correctSeam } from '@/server/actions/chart';
import { withdraw } from '@/server/actions/work';
import { jobAnd, rowsForRounds } from '@/server/views';
import { FittingPlace } from '@/ui/gaps/fitting-place';
import { RungPage, type JobParams } from '../rung-page';

export default async function Page({ params }: JobParams) {
  const { job } = await params;
  const [{ rows, made }, panels] = await Promise.all([
    jobAnd(job, 'gaps', undefined),
    jobAnd(job, 'fitting', undefined),
  ]);
  return (
    <RungPage
      rows={rows}
      rung="fit"
      place={
        <FittingPlace
          rows={rowsForRounds(
            rows,
            rows.rounds.map(({ id }) => id),
          )}
          page={made}
          fitting={panels.made}
          actions={{ addSeam, correctSeam, withdraw, ...fitting }}
        />
      }
    />
  );
}
