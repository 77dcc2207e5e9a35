import { Link } from '@/ui/kit/link';
import { savePanel } from '@/server/actions/cut';
import {
  addBench,
  changeSetUp,
  noteSetUp,
  saveGaugePart,
  setMounts,
  setPlatform,
  startSetUp,
  tickMount,
} from '@/server/actions/set-up';
import { setUpPageInput } from '@/formats/inputs/page-address';
import { jobAnd, rowsForRounds } from '@/server/views';
import { buttonClass } from '@/ui/kit/button';
import { SetUpPlace } from '@/ui/set-up/set-up-place';
import { RungPage } from '../rung-page';
import type { CuttingParams } from '../cutting';

export default async function Page({ params, searchParams }: CuttingParams) {
  const { job } = await params;
  const { shown } = setUpPageInput.parse(await searchParams);
  const { rows, made } = await jobAnd(job, 'setUp', shown ? { shown } : {});
  return (
    <RungPage
      rows={rows}
      rung="setUp"
      place={
        <SetUpPlace
          jobId={job}
          page={made}
          packed={rowsForRounds(rows, made.roundId ? [made.roundId] : [])}
          actions={{
            ...{ startSetUp, changeSetUp, setMounts, tickMount, noteSetUp, addBench },
            ...{ saveGaugePart, savePanel, setPlatform },
          }}
        />
      }
    >
      <p className="no-print">
        <Link className={buttonClass()} href={`/jobs/${job}/chart`}>
          To the chart: what to measure from
        </Link>
      </p>
    </RungPage>
  );
}
