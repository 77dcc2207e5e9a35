'use client';

import { usePathname } from 'next/navigation';
import { useEffect } from 'react';
import { markAlive } from '../kit/ready';
import { useReachable } from './use-reachable';

/** The page that was open before the service worker was there is kept as well. */
async function keepThisPage(): Promise<void> {
  const cache = await caches.open('vinkel-pages');
  const response = await fetch(location.href, { headers: { accept: 'text/html' } });
  if (response.ok) await cache.put(location.href, response);
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
      .then(() => (first ? keepThisPage() : undefined))
      .then(() => {
        document.documentElement.dataset.offline = 'ready';
      })
      .catch(() => undefined);
  }, []);
  const reachable = useReachable();
  return reachable ? null : (
    <p role="status" data-away className="no-print fixed inset-x-0 top-0 z-30 bg-ink px-4 py-2 text-center text-paper">
      The program cannot be reached: this page is as it was when it was last open. Readings are kept here until it is
      back.
    </p>
  );
}
