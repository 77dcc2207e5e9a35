import { Link } from '@/ui/kit/link';
import { jobRows } from '@/server/views';
import { buttonClass } from '@/ui/kit/button';
import { RungPage, type JobParams } from '../rung-page';

export default async function Page({ params }: JobParams) {
  const { job } = await params;
  return (
    <RungPage rows={await jobRows(job)} rung="look">
      <p>
        <Link className={buttonClass()} href={`/jobs/${job}/log`}>
          To the log: findings and decisions
        </Link>
      </p>
    </RungPage>
  );
}
