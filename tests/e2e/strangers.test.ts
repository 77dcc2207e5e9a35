import { createServer, request, type Server as HttpServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Browser } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { demoArchive } from '../../scripts/demo-archive.mjs';
import { launch } from '../support/browser';
import { demoRows } from '../support/demo-rows';
import { send, Server } from '../support/server';

const rows = demoRows('kvist');
const jobId = rows.jobs[0]!.id;

/** An answer's status to a request with headers no browser would let a page set. */
function status(
  server: Server,
  path: string,
  headers: Record<string, string>,
  method = 'GET',
  body = '',
): Promise<number> {
  const { hostname, port } = new URL(server.address);
  const length = method === 'GET' ? {} : { 'content-length': String(Buffer.byteLength(body)) };
  return new Promise((resolve, reject) => {
    const asked = request({ hostname, port, path, method, headers: { ...length, ...headers } }, (answer) => {
      answer.resume();
      resolve(answer.statusCode!);
    });
    asked.once('error', reject);
    asked.end(body);
  });
}

describe('a page of somebody else', () => {
  let server: Server;
  let browser: Browser;
  let stranger: HttpServer;
  let strange = '';
  beforeAll(async () => {
    [server, browser] = await Promise.all([Server.start(), launch()]);
    await send(server, '/api/archive', await demoArchive('kvist'));
    stranger = createServer((_, response) => {
      response.setHeader('content-type', 'text/html');
      response.end('<!doctype html><title>elsewhere</title>');
    });
    await new Promise<void>((resolve) => stranger.listen(0, '127.0.0.1', resolve));
    strange = `http://localhost:${(stranger.address() as AddressInfo).port}`;
  });
  afterAll(async () => {
    await browser.close();
    stranger.close();
    await server.remove();
  });

  const entry = () => {
    const { roundId: _, sequence: __, receivedAt: ___, personId: ____, ...reading } = rows.readings[0]!;
    const planted = { ...reading, id: crypto.randomUUID(), lineId: crypto.randomUUID(), raw: 'planted' };
    return JSON.stringify({ roundId: rows.rounds[0]!.id, readings: [planted], strike: null });
  };
  const csv = async () => (await fetch(`${server.address}/api/jobs/${jobId}/readings`)).text();

  it('stores no reading, plants no job, reads nothing and holds no page in a frame', async () => {
    const page = await browser.newPage();
    await page.goto(strange);
    const outcome = await page.evaluate(
      async ([address, job, body]) => {
        const attempt = (path: string, init?: RequestInit) =>
          fetch(address + path, init).then(
            async (response) => (response.type === 'opaque' ? 'opaque' : `${response.status} ${await response.text()}`),
            () => 'blocked',
          );
        const post = (path: string, type: string) =>
          attempt(path, { method: 'POST', mode: 'no-cors', headers: { 'content-type': type }, body });
        const frame = document.createElement('iframe');
        frame.src = address!;
        document.body.append(frame);
        await new Promise((resolve) => {
          frame.onload = resolve;
          setTimeout(resolve, 3000);
        });
        return {
          reading: await post('/api/readings', 'text/plain'),
          job: await post('/api/archive', 'text/plain'),
          read: await attempt(`/api/jobs/${job}/readings`),
        };
      },
      [server.address, jobId, entry()] as const,
    );
    expect(outcome.read).toBe('blocked');
    expect(page.frames().every((frame) => !frame.url().startsWith(server.address))).toBe(true);
    expect(await csv()).not.toContain('planted');
    await page.close();
  });

  it('is not answered under another name, nor believed when it names itself', async () => {
    const host = new URL(server.address).host;
    const json = { 'content-type': 'application/json' };
    expect(await status(server, '/', { host: 'evil.example' })).toBe(421);
    expect(await status(server, `/api/jobs/${jobId}/readings`, { host: `evil.example:${host.split(':')[1]}` })).toBe(
      421,
    );
    for (const origin of ['http://evil.example', strange, 'null', `http://${host}.evil.example`, ''])
      expect(await status(server, '/api/readings', { host, origin, ...json }, 'POST', entry()), origin).toBe(403);
    expect(await status(server, '/api/readings', { host, ...json }, 'POST', entry())).toBe(403);
    expect(await status(server, '/jobs/new', { host, origin: strange, 'next-action': 'x' }, 'POST', '[]')).toBe(403);
    expect(await csv()).not.toContain('planted');
  });

  it('finds kinds and sizes of content, odd methods and unreadable addresses refused', async () => {
    const own = { host: new URL(server.address).host, origin: server.address };
    expect(await status(server, '/api/readings', { ...own, 'content-type': 'text/plain' }, 'POST', entry())).toBe(415);
    const large = { ...own, 'content-type': 'application/json', 'content-length': String(200 * 1024 * 1024) };
    expect(await status(server, '/api/readings', large, 'POST')).toBe(413);
    expect(await status(server, '/api/readings', { ...own, 'content-type': 'application/json' }, 'DELETE')).toBe(405);
    for (const path of ['/%E0%A4%A', '/jobs/%FF', '/%'])
      expect(await status(server, path, { host: own.host }), path).toBe(400);
    for (const path of [
      '/jobs/1',
      `/jobs/${jobId}/rounds/x`,
      '/api/photographs/x',
      `/api/jobs/x/archive`,
      '/api/jobs/x/readings',
    ])
      expect(await status(server, path, { host: own.host }), path).toBe(404);
    expect(await status(server, '/', { host: own.host })).toBe(200);
  });

  it('is told by every answer what it may do with it', async () => {
    for (const path of ['/', '/api/alive', `/api/jobs/${jobId}/readings`, '/nowhere']) {
      const { headers } = await fetch(server.address + path);
      expect(headers.get('content-security-policy'), path).toMatch(/script-src 'self' 'nonce-[^']{20,}'/);
      expect(headers.get('content-security-policy'), path).toContain("frame-ancestors 'none'");
      expect(headers.get('x-content-type-options'), path).toBe('nosniff');
      expect(headers.get('cross-origin-opener-policy'), path).toBe('same-origin');
    }
  });
});
