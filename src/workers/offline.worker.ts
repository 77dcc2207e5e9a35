import { clientsClaim } from 'workbox-core';
import { matchPrecache, precacheAndRoute } from 'workbox-precaching';
import { registerRoute } from 'workbox-routing';
import { NetworkFirst } from 'workbox-strategies';

/**
 * The service worker: the program's own files are kept, and every page of a round that was opened once
 * can be opened again without the server. Nothing else is answered from here: readings have their own way
 * of waiting.
 */
declare global {
  interface Window {
    /** The files to keep, put in when the program is built. */
    readonly __WB_MANIFEST: { url: string; revision: string | null }[];
    skipWaiting(): Promise<void>;
  }
}

void self.skipWaiting();
clientsClaim();

/**
 * A worker's script finds its settings behind the # of its own address. A kept response brings its own
 * address along, without them; a response made anew has none, and the worker keeps the one it was asked
 * for. This must stand before the route of the kept files.
 */
registerRoute(
  ({ request }) => request.destination === 'worker',
  async ({ request, url }) => {
    const response = (await matchPrecache(url.pathname)) ?? (await fetch(request));
    return new Response(await response.blob(), {
      headers: { 'content-type': 'text/javascript; charset=utf-8' },
    });
  },
);
precacheAndRoute(self.__WB_MANIFEST);

/** Pages, and what the router fetches of them, as the server gave them last. */
registerRoute(
  ({ request, url }) =>
    url.origin === location.origin &&
    !url.pathname.startsWith('/api/') &&
    (request.mode === 'navigate' || url.searchParams.has('_rsc')),
  new NetworkFirst({ cacheName: 'vinkel-pages', matchOptions: { ignoreVary: true } }),
);

/** A page gone to by a link came in pieces: it is asked for whole as well, so that it opens again without the server. */
self.addEventListener('fetch', (event) => {
  const { request } = event as unknown as { request: Request };
  const url = new URL(request.url);
  const isPage =
    url.origin === location.origin && url.searchParams.has('_rsc') && !request.headers.has('next-router-prefetch');
  if (!isPage || request.method !== 'GET') return;
  url.searchParams.delete('_rsc');
  void keepWhole(url.href);
});

async function keepWhole(address: string): Promise<void> {
  const cache = await caches.open('vinkel-pages');
  const page = await fetch(address, { headers: { accept: 'text/html' } }).catch(() => undefined);
  if (page?.ok && page.headers.get('content-type')?.includes('text/html')) await cache.put(address, page);
}
