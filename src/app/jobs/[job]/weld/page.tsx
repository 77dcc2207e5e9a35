import { Link } from '@/ui/kit/link';
import { addStepsInTurn } from '@/server/actions/steps';
import { saveCrack, saveStiffener, saveWeldSeam, setWeldMarks } from '@/server/actions/welding';
import { recordItemEvent, withdraw } from '@/server/actions/work';
import { elsewhere, jobAnd, rowsForRounds } from '@/server/views';
import { buttonClass } from '@/ui/kit/button';
import { WeldPlace } from '@/ui/weld/weld-place';
import { RungPage, type JobParams } from '../rung-page';

export default async function Page({ params }: JobParams) {
  const { job } = await params;
  const { rows, made } = await jobAnd(job, 'welding', await elsewhere(job));
  return (
    <RungPage
      rows={rows}
      rung="weld"
      place={
        <WeldPlace
          rows={rowsForRounds(rows, [])}
          jobId={rows.jobs[0]!.id}
          page={made}
          actions={{ saveWeldSeam, setWeldMarks, saveCrack, saveStiffener, addStepsInTurn, recordItemEvent, withdraw }}
        />
      }
    >
      <p>
        <Link className={buttonClass()} href={`/jobs/${job}/verify`}>
          To the verdict: what moved since the last round
        </Link>
      </p>
    </RungPage>
  );
}
