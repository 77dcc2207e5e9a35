import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterEach, expect, it } from 'vitest';
import { ASIDE_HEADER, pagesAside } from '@/server/pages-aside';

let ending: (() => void)[] = [];
afterEach(() => {
  for (const end of ending) end();
  ending = [];
});

/** A program whose pages are made beside it, once they are. */
async function program(count = 1): Promise<(path: string, init?: RequestInit) => Promise<Response>> {
  const aside = pagesAside(
    (request, response) => void response.end(`here ${request.url} ${request.headers[ASIDE_HEADER] ?? 'no secret'}`),
    'tests/support/page-maker.mjs',
    count,
  );
  const server: Server = createServer(aside.handle);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  ending.push(() => {
    aside.close();
    server.closeAllConnections();
    server.close();
  });
  const { port } = server.address() as AddressInfo;
  return (path, init) => fetch(`http://127.0.0.1:${port}${path}`, init);
}

it('makes pages itself until there is somebody beside, and then hands them over whole', async () => {
  const ask = await program();
  expect(await (await ask('/jobs/1')).text()).toBe('here /jobs/1 no secret');
  await expect.poll(async () => (await ask('/jobs/1')).headers.get('x-made'), { timeout: 10_000 }).toBe('aside');
  const made = await ask('/jobs/1?show=2', { headers: { cookie: 'c=3', [ASIDE_HEADER]: 'guessed' } });
  expect([made.status, await made.text()]).toEqual([418, '1 GET /jobs/1?show=2 c=3']);
  expect(made.headers.getSetCookie()).toEqual(['a=1', 'b=2']);
});

it('takes what is written itself, and what only it knows', async () => {
  const ask = await program();
  await expect.poll(async () => (await ask('/')).headers.get('x-made'), { timeout: 10_000 }).toBe('aside');
  for (const path of [
    '/api/alive',
    '/floor',
    '/kept',
    '/offline.js',
    '/_next/static/a.js',
    '/api/jobs/1/live?window=2',
  ])
    expect(await (await ask(path, { headers: { [ASIDE_HEADER]: 'guessed' } })).text()).toBe(`here ${path} no secret`);
  expect(await (await ask('/jobs/1', { method: 'POST' })).text()).toBe('here /jobs/1 no secret');
});

it('makes a page itself whose maker ends over it, and the next ones', async () => {
  const ask = await program();
  await expect.poll(async () => (await ask('/')).headers.get('x-made'), { timeout: 10_000 }).toBe('aside');
  expect(await (await ask('/die')).text()).toBe('here /die no secret');
  await expect.poll(async () => (await ask('/jobs/1')).headers.get('x-made'), { timeout: 10_000 }).toBe(null);
  expect(await (await ask('/jobs/1')).text()).toBe('here /jobs/1 no secret');
});
