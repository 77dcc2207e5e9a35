import { only } from '@/core/shell/job/job-rows';
import { correctBrace, planBrace, recordBraceEvent, withdraw } from '@/server/actions/work';
import { jobAnd } from '@/server/views';
import { Braces } from '@/ui/work/braces';
import { RungPage, type JobParams } from '../rung-page';

export default async function Page({ params }: JobParams) {
  const { rows, made } = await jobAnd((await params).job, 'braces', undefined);
  return (
    <RungPage rows={rows} rung="brace">
      <Braces
        rows={only(rows, 'jobs', 'points', 'dimensions', 'braces')}
        {...made}
        actions={{ planBrace, recordBraceEvent, correctBrace, withdraw }}
      />
    </RungPage>
  );
}
