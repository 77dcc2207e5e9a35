import Link from 'next/link';
import { jobRows } from '@/server/views';
import { buttonClass } from '@/ui/kit/button';
import { RungPage, type JobParams } from '../rung-page';

export default async function Page({ params }: JobParams) {
  const { job } = await params;
  return (
    <RungPage rows={await jobRows(job)} rung="cut">
      <p>
        <Link className={buttonClass()} href={`/jobs/${job}/brace`}>
          To the braces: what each cut would set free
        </Link>
      </p>
    </RungPage>
  );
}
