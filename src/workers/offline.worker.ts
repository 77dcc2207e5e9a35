import { clientsClaim } from 'workbox-core';
import type { WorkboxPlugin } from 'workbox-core/types';
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
    return new Response(await response.blob(), { headers: response.headers });
  },
);
precacheAndRoute(self.__WB_MANIFEST);

/** A page that the server could not put together is given as it was last; where it was never here, as it came. */
const lastWhole: WorkboxPlugin = {
  fetchDidSucceed: async ({ response, state }) => {
    if (response.status < 500) return response;
    if (state) state.failed = response;
    throw new Error('the server could not put the page together');
  },
  handlerDidError: async ({ state }) => state?.failed as Response | undefined,
};
const pages = new NetworkFirst({
  cacheName: 'vinkel-pages',
  matchOptions: { ignoreVary: true },
  plugins: [lastWhole],
});

/**
 * Pages, and what the router fetches of them, as the server gave them last. A page gone to by a link comes in pieces: it is
 * asked for whole as well, so that it opens again without the server.
 */
registerRoute(
  ({ request, url }) =>
    url.origin === location.origin &&
    !url.pathname.startsWith('/api/') &&
    (request.mode === 'navigate' || url.searchParams.has('_rsc')),
  (options) => {
    const { event, request, url } = options;
    if (url.searchParams.has('_rsc') && !request.headers.has('next-router-prefetch'))
      event.waitUntil(keepWholeLater(url));
    return pages.handle(options);
  },
);

/** So long after a page was last fetched in pieces it is asked for whole, ms: a page others work at is fetched often, and whole it costs twice. */
const QUIET = 10_000;
const waiting = new Map<string, number>();

async function keepWholeLater({ href }: URL): Promise<void> {
  const address = new URL(href);
  address.searchParams.delete('_rsc');
  if (!(await caches.match(address, { ignoreVary: true }))) return keepWhole(address);
  const turn = (waiting.get(address.href) ?? 0) + 1;
  waiting.set(address.href, turn);
  await new Promise((resolve) => setTimeout(resolve, QUIET));
  // Fetched again meanwhile: that one waits on.
  if (waiting.get(address.href) !== turn) return;
  waiting.delete(address.href);
  await keepWhole(address);
}

async function keepWhole(address: URL): Promise<void> {
  const page = await fetch(address, { headers: { accept: 'text/html' } }).catch(() => undefined);
  if (!page?.ok || page.redirected || !page.headers.get('content-type')?.includes('text/html')) return;
  await (await caches.open('vinkel-pages')).put(address, page);
}
