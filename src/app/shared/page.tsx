import { notFound } from 'next/navigation';
import { share, unshare } from '@/server/actions/shared';
import { shareable, sharedHere } from '@/server/shared';
import { SharedPage } from '@/ui/shared/shared-page';
import { Header } from '@/ui/shell/header';

export default async function Page() {
  const shared = (await sharedHere()) ?? notFound();
  return (
    <>
      <Header title="Between shops" homeHref="/shared" />
      <SharedPage shared={shared} mine={await shareable()} actions={{ share, unshare }} />
    </>
  );
}
