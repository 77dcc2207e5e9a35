import { headers } from 'next/headers';
import QR from 'qrcode';
import { sendDeviceAway, showPairingCode, switchFloor } from '@/server/actions/floor';
import { ownersThere } from '@/server/people/listed';
import { DEVICE_HEADER, theFloor } from '@/server/floor/floor';
import { FloorPage } from '@/ui/floor/floor-page';
import { Header } from '@/ui/shell/header';

export default async function Page() {
  const state = theFloor()?.state();
  const qr = state?.on ? await QR.toDataURL(state.trust, { margin: 1, width: 240 }) : undefined;
  return (
    <>
      <Header title="On the floor" homeHref="/floor" />
      <FloorPage
        state={state}
        {...(qr ? { qr } : {})}
        atMachine={!(await headers()).has(DEVICE_HEADER)}
        hasOwner={await ownersThere()}
        actions={{ switchFloor, showPairingCode, sendDeviceAway }}
      />
    </>
  );
}
