import { changePassphrase, givePassphrase, putMember, takePin } from '@/server/actions/people';
import { whoIsHere } from '@/server/people/actor';
import { peopleListed } from '@/server/people/listed';
import { PeoplePage } from '@/ui/people/people-page';
import { Header } from '@/ui/shell/header';

export default async function Page() {
  const [listed, who] = await Promise.all([peopleListed(), whoIsHere()]);
  return (
    <>
      <Header title="People of the shop" homeHref="/people" />
      <PeoplePage
        {...listed}
        proved={who !== undefined}
        actions={{ putMember, givePassphrase, changePassphrase, takePin }}
      />
    </>
  );
}
