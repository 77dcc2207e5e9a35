'use client';

import { Link } from '../kit/link';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import type { DeviceSentAway, PairingCode, SwitchedFloor } from '@/formats/inputs/floor';
import type { FloorState } from '@/formats/floor';
import { Button } from '../kit/button';
import { ClientOnly } from '../kit/client-only';
import { Faults } from '../kit/faults';
import { useAction, type Action } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';

interface FloorActions {
  readonly switchFloor: Action<SwitchedFloor>;
  readonly showPairingCode: Action<PairingCode>;
  readonly sendDeviceAway: Action<DeviceSentAway>;
}

interface FloorPageProps {
  /** Undefined where the program was started in a way that cannot answer on the network. */
  readonly state: FloorState | undefined;
  /** The address to begin with, as a picture to be read by a camera. */
  readonly qr?: string;
  /** The page is shown on the machine itself. */
  readonly atMachine: boolean;
  /** Somebody owns the shop and has a passphrase. */
  readonly hasOwner: boolean;
  readonly actions: FloorActions;
}

/** Whether tablets reach the program, how a new one is let in, and which are. */
export function FloorPage({ state, qr, atMachine, hasOwner, actions }: FloorPageProps) {
  return (
    <main className="mx-auto flex max-w-4xl flex-col gap-6 p-6">
      <h1 className="text-2xl">On the floor</h1>
      {!atMachine ? (
        <p>This device was let in. Who else comes in is decided at the machine itself.</p>
      ) : state === undefined ? (
        <p>
          Started this way the program answers on this machine alone. Start it with npm start to have tablets by the
          car.
        </p>
      ) : (
        <>
          <Switch on={state.on} switchFloor={actions.switchFloor} />
          {state.on ? (
            <>
              {hasOwner ? null : (
                <p className="border-l-4 border-ink pl-3">
                  Nobody can come in yet: say under{' '}
                  <Link className="underline" href="/people">
                    People of the shop
                  </Link>{' '}
                  who owns it, and give them a passphrase.
                </p>
              )}
              <Way state={state} qr={qr} />
              <Code {...(state.code ? { code: state.code } : {})} showPairingCode={actions.showPairingCode} />
              <DeviceList devices={state.devices} sendDeviceAway={actions.sendDeviceAway} />
            </>
          ) : null}
        </>
      )}
    </main>
  );
}

function Switch({ on, switchFloor }: { readonly on: boolean } & Pick<FloorActions, 'switchFloor'>) {
  const switching = useAction(switchFloor);
  return (
    <section className="flex flex-col gap-2">
      <p>
        {on
          ? 'Tablets on the shop’s network reach this program, encrypted, once they were let in with a code. It stays so after the next start.'
          : 'Only this machine reaches the program now. Switched on, it answers on the shop’s network too: encrypted with a certificate of the shop’s own, and only devices that were let in with a code shown here.'}
      </p>
      <Button
        look={on ? undefined : 'main'}
        className="self-start"
        disabled={switching.pending}
        onClick={() => void switching.run({ on: !on })}
      >
        {on ? 'This machine alone' : 'Answer on the shop’s network'}
      </Button>
      <Faults faults={switching.faults} />
    </section>
  );
}

type Open = Extract<FloorState, { on: true }>;

function Way({ state, qr }: { readonly state: Open; readonly qr: string | undefined }) {
  return (
    <section aria-label="The way in" className="flex flex-wrap gap-6 border-t-2 border-ink pt-3">
      {qr ? <img src={qr} alt="The first address, to be read by a camera" width={200} height={200} /> : null}
      <div className="flex max-w-xl flex-col gap-2">
        <h2 className="text-xl">A new tablet</h2>
        <ol className="list-inside list-decimal">
          <li>
            Open{' '}
            <span className="font-semibold" data-trust>
              {state.trust}
            </span>{' '}
            on it, or let its camera read the square.
          </li>
          <li>Take the certificate there and trust it, once for each device.</li>
          <li>
            Go on to{' '}
            {state.addresses.map((address, i) => (
              <span key={address}>
                {i > 0 ? ' or ' : ''}
                <span className="font-semibold" data-address>
                  {address}
                </span>
              </span>
            ))}{' '}
            and type the code shown below.
          </li>
        </ol>
        <p className="text-sm text-soft">
          The fingerprint to compare there, SHA-256: <span className="break-all">{state.fingerprint}</span>
        </p>
      </div>
    </section>
  );
}

function Code({ code, showPairingCode }: Pick<Open, 'code'> & Pick<FloorActions, 'showPairingCode'>) {
  const showing = useAction(showPairingCode);
  const router = useRouter();
  useEffect(() => {
    if (!code) return;
    // It goes when a device used it, or when its time is over.
    const timer = setInterval(() => router.refresh(), LOOK_EVERY);
    return () => clearInterval(timer);
  }, [code, router]);
  return (
    <section aria-label="Code" className="flex flex-col gap-2 border-t-2 border-ink pt-3">
      <h2 className="text-xl">Let a device in</h2>
      {code ? (
        <>
          <p className="num text-6xl tracking-widest" data-code>
            {code.digits}
          </p>
          <ClientOnly waiting={null}>
            <Left until={code.until} />
          </ClientOnly>
        </>
      ) : (
        <p className="text-soft">A code lets one device in and is good for ten minutes.</p>
      )}
      <Button className="self-start" disabled={showing.pending} onClick={() => void showing.run({})}>
        {code ? 'Another code' : 'Show a code'}
      </Button>
      <Faults faults={showing.faults} />
    </section>
  );
}

const LOOK_EVERY = 3000;
const MINUTE = 60_000;

function Left({ until }: { readonly until: number }) {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), LOOK_EVERY);
    return () => clearInterval(timer);
  }, []);
  return (
    <p className="text-soft">Good for {Math.max(1, Math.ceil((until - now) / MINUTE))} min more, for one device.</p>
  );
}

function DeviceList({ devices, sendDeviceAway }: Pick<Open, 'devices'> & Pick<FloorActions, 'sendDeviceAway'>) {
  const format = useFormat();
  const sending = useAction(sendDeviceAway);
  return (
    <section aria-label="Devices" className="flex flex-col gap-2 border-t-2 border-ink pt-3">
      <h2 className="text-xl">Let in</h2>
      {devices.length === 0 ? <p className="text-soft">No device yet.</p> : null}
      <ul>
        {devices.map(({ id, name, pairedAt, seenAt }) => (
          <li key={id} className="flex flex-wrap items-center gap-x-4 border-b border-faint py-1" data-device={name}>
            <span className="font-semibold">{name}</span>
            <span className="text-soft">
              since {format.day(pairedAt)}
              {seenAt ? `; here last ${format.time(seenAt)}` : ''}
            </span>
            <Button
              look="quiet"
              className="ml-auto"
              disabled={sending.pending}
              onClick={() => void sending.run({ id })}
            >
              Send away
            </Button>
          </li>
        ))}
      </ul>
      <Faults faults={sending.faults} />
    </section>
  );
}
