import { signRecord } from '@/server/actions/record';
import { signsWithPassphrase } from '@/server/people/listed';
import { recordOf } from '@/server/record';
import { jobRows } from '@/server/views';
import { RecordPage } from '@/ui/record/record-page';

interface Props {
  readonly params: Promise<{ job: string }>;
  readonly searchParams: Promise<{ record?: string }>;
}

export default async function Page({ params, searchParams }: Props) {
  const { job } = await params;
  const { record: number } = await searchParams;
  const { record, signature, signatures } = await recordOf(await jobRows(job), number);
  return (
    <RecordPage
      {...{ jobId: job, record, signature, signatures }}
      signing={{ signRecord, asksPassphrase: await signsWithPassphrase() }}
    />
  );
}
