import Link from 'next/link';
import { planPanel } from '@/server/actions/set-up';
import { jobAnd } from '@/server/views';
import { CutPlace } from '@/ui/cut/cut-place';
import { buttonClass } from '@/ui/kit/button';
import { RungPage, type JobParams } from '../rung-page';

export default async function Page({ params }: JobParams) {
  const { job } = await params;
  const { rows, made } = await jobAnd(job, 'cut', undefined);
  return (
    <RungPage rows={rows} rung="cut" place={<CutPlace jobId={job} page={made} planPanel={planPanel} />}>
      <p className="no-print">
        <Link className={buttonClass()} href={`/jobs/${job}/brace`}>
          To the braces: what holds while it is out
        </Link>
      </p>
    </RungPage>
  );
}
