'use client';

import { usePathname } from 'next/navigation';
import { useEffect } from 'react';
import { markAlive } from '../kit/ready';
import { useAskPerson } from './ask-person';
import { clockAhead, useProgramState } from './use-reachable';

/**
 * The page that was open before the service worker was there is kept as well, and the one the program begins with from a
 * home screen.
 */
async function keepPages(first: boolean): Promise<void> {
  const cache = await caches.open('vinkel-pages');
  const keep = async (address: string) => {
    const response = await fetch(address, { headers: { accept: 'text/html' } });
    // Sent on to another page, it is not this one.
    if (response.ok && !response.redirected) await cache.put(address, response);
  };
  const start = new URL('/', location.href).href;
  if (first) await keep(location.href);
  if (!(await cache.match(start, { ignoreVary: true }))) await keep(start);
}

/** Registers the service worker, so that a page once opened also opens without the server. */
export function Offline() {
  const pathname = usePathname();
  useEffect(() => markAlive(pathname), [pathname]);
  useEffect(() => {
    if (!('serviceWorker' in navigator) || process.env.NODE_ENV !== 'production') return;
    const first = navigator.serviceWorker.controller === null;
    navigator.serviceWorker
      .register('/offline.js')
      .then(() => navigator.serviceWorker.ready)
      .then(() => keepPages(first))
      .then(() => {
        document.documentElement.dataset.offline = 'ready';
      })
      .catch(() => undefined);
  }, []);
  const state = useProgramState();
  const askPerson = useAskPerson();
  return state === 'well' ? null : (
    <p
      role="status"
      data-away={state === 'away' ? '' : undefined}
      data-full={state === 'full' ? '' : undefined}
      className="no-print fixed inset-x-0 top-0 z-30 bg-ink px-4 py-2 text-center text-paper"
    >
      {state === 'clock' ? clockInWords(clockAhead()) : IN_WORDS[state]}
      {state === 'locked' ? (
        <button type="button" className="ml-3 min-h-11 underline" onClick={() => void askPerson()}>
          Say who works here
        </button>
      ) : null}
    </p>
  );
}

/** @param ahead ms */
function clockInWords(ahead: number): string {
  const minutes = Math.round(Math.abs(ahead) / 60_000);
  const so = minutes < 120 ? `${minutes} minutes` : `${Math.round(minutes / 60)} hours`;
  return `This device’s clock is ${so} ${ahead > 0 ? 'ahead of' : 'behind'} the program’s: set it. Readings typed here carry the program’s time.`;
}

const IN_WORDS = {
  locked: 'Nobody has said who works here now: readings are kept here and taken as soon as somebody does.',
  away: 'The program cannot be reached: this page is as it was when it was last open. Readings are kept here until it is back.',
  full: 'The disk the data lies on is full: make room on it. Nothing taken is lost; readings typed now are kept here and taken when there is room.',
} as const;
