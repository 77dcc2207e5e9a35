import { addInstrument, reviseInstrument } from '@/server/actions/instruments';
import { shopInstruments } from '@/server/views';
import { Header } from '@/ui/shell/header';
import { Instruments } from '@/ui/work/instruments';

export default async function Page() {
  const { instruments, versions } = await shopInstruments();
  return (
    <>
      <Header title="Instruments" homeHref="/instruments" />
      <Instruments
        instruments={instruments}
        versions={versions}
        reviseInstrument={reviseInstrument}
        addInstrument={addInstrument}
      />
    </>
  );
}
