import { addBench, reviseBench } from '@/server/actions/set-up';
import { shopBenches } from '@/server/views';
import { Header } from '@/ui/shell/header';
import { Benches } from '@/ui/set-up/benches';

export default async function Page() {
  return (
    <>
      <Header title="Benches" homeHref="/benches" />
      <Benches benches={await shopBenches()} addBench={addBench} reviseBench={reviseBench} />
    </>
  );
}
