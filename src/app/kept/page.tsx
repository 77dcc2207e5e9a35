import { bringBack, takeBackupNow } from '@/server/actions/kept';
import { keptData } from '@/server/kept';
import { KeptPage } from '@/ui/kept/kept-page';
import { Header } from '@/ui/shell/header';

export default async function Kept() {
  return (
    <>
      <Header />
      <KeptPage kept={await keptData()} actions={{ bringBack, takeBackupNow }} />
    </>
  );
}
