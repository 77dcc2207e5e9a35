import { request as ask } from 'node:https';
import type { Browser, BrowserContext, Page } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { launch, openWindow, settled } from '../support/browser';
import { demoRows } from '../support/demo-rows';
import { Server, send } from '../support/server';
import { demoArchive } from '../../scripts/demo-archive.mjs';

const job = `/jobs/${demoRows('maake').jobs[0]!.id}`;

interface Answer {
  readonly status: number;
  readonly text: string;
  readonly location: string | undefined;
}

describe('tablets on the floor', () => {
  let server: Server;
  let browser: Browser;
  let page: Page;
  let errors: readonly string[];
  let address = '';
  let authority = '';
  const tablets: BrowserContext[] = [];
  beforeAll(async () => {
    // A second address of this machine stands for the network.
    [server, browser] = await Promise.all([Server.start({ env: { VINKEL_NAMES: '127.0.0.2' } }), launch()]);
    const answer = await send(server, '/api/archive', await demoArchive('maake'));
    if (!answer.ok) throw new Error(await answer.text());
    ({ page, errors } = await openWindow(browser, server.address));
  });
  afterAll(async () => {
    await browser.close();
    await server.remove();
  });

  /** Over the network, trusting the shop's authority and nothing else. */
  const over = (path: string, options: { method?: string; headers?: Record<string, string>; body?: string } = {}) =>
    new Promise<Answer>((resolve, reject) => {
      const { method = 'GET', headers = {}, body } = options;
      const length = body === undefined ? {} : { 'content-length': String(Buffer.byteLength(body)) };
      // Asked by another name it is still this machine that answers: only then is the name not held against the certificate.
      const named = headers.host ? { checkServerIdentity: () => undefined } : {};
      const request = ask(
        address + path,
        { ca: authority, method, headers: { ...length, ...headers }, ...named },
        (response) => {
          let text = '';
          response.on('data', (chunk: Buffer) => (text += chunk.toString()));
          response.on('end', () =>
            resolve({ status: response.statusCode!, text, location: response.headers.location }),
          );
        },
      );
      request.on('error', reject);
      request.end(body);
    });

  const tablet = async (): Promise<Page> => {
    const context = await browser.newContext({ ignoreHTTPSErrors: true, viewport: { width: 1024, height: 768 } });
    tablets.push(context);
    return context.newPage();
  };
  const shownCode = async () => {
    await page.getByRole('button', { name: /^(Show a|Another) code$/ }).click();
    await page.locator('[data-code]').waitFor();
    return page.locator('[data-code]').innerText();
  };
  const letIn = async (at: Page, code: string, name: string) => {
    await at.getByLabel('Code on the main screen').fill(code);
    await at.getByLabel('What this device is called').fill(name);
    await at.getByRole('button', { name: 'Let it in' }).click();
  };

  it('answers on this machine alone until it is switched on, and then says how to trust it', async () => {
    const port = Number(new URL(server.address).port) + 443;
    await expect(fetch(`http://127.0.0.2:${port}`)).rejects.toThrow();
    await page.goto('/floor');
    await settled(page);
    await page.getByRole('button', { name: 'Answer on the shop’s network' }).click();
    address = await page.locator('[data-address]').first().innerText();
    expect(address).toMatch(/^https:\/\/127\.0\.0\.2:\d+$/);
    const trust = await page.locator('[data-trust]').innerText();
    const help = await (await fetch(trust)).text();
    const fingerprint = /(?:[0-9A-F]{2}:){31}[0-9A-F]{2}/;
    expect(fingerprint.exec(help)![0]).toBe(fingerprint.exec(await page.getByRole('main').innerText())![0]);
    authority = await (await fetch(`${trust}/authority.crt`)).text();
    // Nothing of the program is to be had there, and nothing without trust.
    expect(await (await fetch(`${trust}${job}`)).text()).toBe(help);
    await expect(fetch(address)).rejects.toThrow();
  });

  it('gives a device that was not let in nothing, whatever it says of itself', async () => {
    const host = new URL(address).host;
    expect(await over(job, { headers: { accept: 'text/html' } })).toMatchObject({ status: 303, location: '/pair' });
    for (const path of [job, '/api/archive', `/api${job}/calendar`, '/floor'])
      expect(await over(path)).toMatchObject({ status: 401 });
    expect((await over(job, { headers: { 'x-vinkel-device': 'x', cookie: 'vinkel-device=guessed' } })).status).toBe(
      401,
    );
    expect((await over('/pair', { headers: { host: `other.example:${new URL(address).port}` } })).status).toBe(421);
    const form = { 'content-type': 'application/x-www-form-urlencoded' };
    const posted = (headers: Record<string, string>, body = 'code=1&name=x') =>
      over('/pair', { method: 'POST', headers: { ...form, ...headers }, body });
    expect((await posted({ origin: 'https://other.example' })).status).toBe(403);
    expect((await posted({ origin: `http://${host}` })).status).toBe(403);
    expect((await posted({ origin: address }, `code=${'1'.repeat(9000)}`)).status).toBe(413);
    expect((await posted({ origin: address, 'content-type': 'text/xml' })).status).toBe(415);
    expect(await posted({ origin: address })).toMatchObject({
      status: 403,
      text: expect.stringMatching(/No code is shown/),
    });
    expect((await over(job, { method: 'DELETE', headers: { origin: address } })).status).toBe(405);
  });

  it('lets two tablets in, each by a code of its own and under its own name', async () => {
    const [one, other] = [await tablet(), await tablet()];
    const code = await shownCode();
    await one.goto(address + job);
    expect(new URL(one.url()).pathname).toBe('/pair');
    await letIn(one, code === '000000' ? '000001' : '000000', 'Tablet by the bench');
    await one
      .getByRole('alert')
      .getByText(/not the code on the main screen/)
      .waitFor();
    expect(await one.getByLabel('What this device is called').inputValue()).toBe('Tablet by the bench');
    await letIn(one, code, 'Tablet by the bench');
    await one.waitForURL(`${address}/`);
    // It is known too where it comes by the page that tells how to trust.
    await one.goto(await page.locator('[data-trust]').innerText());
    await one.getByRole('link', { name: address }).click();
    await one.getByRole('heading', { level: 1, name: 'Jobs' }).waitFor();
    await one.goto(address + job);
    await one.getByRole('heading', { level: 1 }).waitFor();

    await other.goto(address);
    await letIn(other, code, 'Tablet by the car');
    await other
      .getByRole('alert')
      .getByText(/No code is shown/)
      .waitFor();
    await letIn(other, await shownCode(), 'tablet BY the bench');
    await other
      .getByRole('alert')
      .getByText(/called so already/)
      .waitFor();
    await letIn(other, await page.locator('[data-code]').innerText(), 'Tablet by the car');
    await other.waitForURL(`${address}/`);
    await page.locator('[data-device="Tablet by the car"]').waitFor();
    // Who comes in is not decided on a tablet.
    await other.goto(`${address}/floor`);
    await other.getByText('Who else comes in is decided at the machine itself').waitFor();
  });

  it('writes what a tablet types, under the name of who works there', async () => {
    const [context] = tablets;
    const one = context!.pages()[0]!;
    const chosen = { words: 'uk', units: 'mm', sheet: 'day', person: 'Nils' };
    await context!.addCookies([{ name: 'vinkel', value: encodeURIComponent(JSON.stringify(chosen)), url: address }]);
    await one.goto(`${address}${job}/look`);
    await settled(one);
    await one.getByLabel('Another step').fill('Told from the tablet');
    await one.getByRole('button', { name: 'Add', exact: true }).click();
    await one.getByText('Told from the tablet', { exact: true }).waitFor();
    await page.goto(`${job}/look`);
    await page.getByText('Told from the tablet', { exact: true }).waitFor();
    expect(await one.evaluate(() => globalThis.isSecureContext)).toBe(true);
    await page.goto('/floor');
    await settled(page);
  });

  it('sends a device away at once, and knows the other after a restart without the switch', async () => {
    const [one, other] = tablets.map((context) => context.pages()[0]!);
    await page.locator('[data-device="Tablet by the bench"]').getByRole('button', { name: 'Send away' }).click();
    await page.locator('[data-device="Tablet by the bench"]').waitFor({ state: 'detached' });
    await one!.goto(address + job);
    expect(new URL(one!.url()).pathname).toBe('/pair');
    await server.stop();
    await server.run();
    await other!.goto(address + job);
    expect(new URL(other!.url()).pathname).toBe(job);
    await page.goto('/floor');
    await settled(page);
    await page.getByRole('button', { name: 'This machine alone' }).click();
    await page.getByRole('button', { name: 'Answer on the shop’s network' }).waitFor();
    await expect(over(job)).rejects.toThrow();
    expect(errors).toEqual([]);
  });
});
