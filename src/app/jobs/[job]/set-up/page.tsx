import Link from 'next/link';
import {
  addBench,
  changeSetUp,
  noteSetUp,
  planPanel,
  saveGaugePart,
  setMounts,
  setPlatform,
  startSetUp,
} from '@/server/actions/set-up';
import { jobAnd, rowsForRounds } from '@/server/views';
import { buttonClass } from '@/ui/kit/button';
import { SetUpPlace } from '@/ui/set-up/set-up-place';
import { RungPage, type JobParams } from '../rung-page';

export default async function Page({ params }: JobParams) {
  const { job } = await params;
  const { rows, made } = await jobAnd(job, 'setUp', undefined);
  return (
    <RungPage
      rows={rows}
      rung="setUp"
      place={
        <SetUpPlace
          jobId={job}
          page={made}
          packed={rowsForRounds(rows, made.roundId ? [made.roundId] : [])}
          actions={{ startSetUp, changeSetUp, setMounts, noteSetUp, addBench, saveGaugePart, planPanel, setPlatform }}
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
