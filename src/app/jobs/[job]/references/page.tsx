import { makeReference, rankReferences, trustReference, putInUse } from '@/server/actions/references';
import { importSister } from '@/server/actions/sister';
import { jobRows, rowsForRounds } from '@/server/views';
import { ReferencesPage } from '@/ui/references/references-page';

export default async function Page({ params }: { params: Promise<{ job: string }> }) {
  const rows = rowsForRounds(await jobRows((await params).job), []);
  return (
    <ReferencesPage rows={rows} actions={{ makeReference, rankReferences, trustReference, putInUse, importSister }} />
  );
}
