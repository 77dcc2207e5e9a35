import { bringBack, takeBackupNow } from '@/server/actions/kept';
import { keptData } from '@/server/kept';
import { KeptOnServer, KeptPage } from '@/ui/kept/kept-page';
import { Header } from '@/ui/shell/header';

export default async function Kept() {
  const kept = await keptData();
  return (
    <>
      <Header />
      {kept.server === undefined ? (
        <KeptPage kept={kept} actions={{ bringBack, takeBackupNow }} />
      ) : (
        <KeptOnServer {...kept} />
      )}
    </>
  );
}
