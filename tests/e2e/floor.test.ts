import { createHash, X509Certificate } from 'node:crypto';
import { request as ask } from 'node:https';
import type { Browser, BrowserContext, Page } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { launch, openWindow, pressEnter, settled, typeLine, whole } from '../support/browser';
import { demoRows } from '../support/demo-rows';
import { Server, send } from '../support/server';
import { demoArchive } from '../../scripts/demo-archive.mjs';

const job = `/jobs/${demoRows('maake').jobs[0]!.id}`;

/** By which a browser knows the key of a certificate: base64 of the SHA-256 of its public key. */
const keyOf = (certificate: string): string =>
  createHash('sha256')
    .update(new X509Certificate(certificate).publicKey.export({ type: 'spki', format: 'der' }))
    .digest('base64');

interface Answer {
  readonly status: number;
  readonly text: string;
  readonly location: string | undefined;
}

describe('tablets on the floor', () => {
  let server: Server;
  let browser: Browser;
  let tabletBrowser: Browser | undefined;
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
    ({ page, errors } = await openWindow(browser, server.address, { keeps: true }));
  });
  afterAll(async () => {
    await tabletBrowser?.close();
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
    // Tablets trust the shop's authority, as a person has them do it once, and nothing else.
    tabletBrowser ??= await launch([`--ignore-certificate-errors-spki-list=${keyOf(authority)}`]);
    const context = await tabletBrowser.newContext({ viewport: { width: 1024, height: 768 } });
    context.on('page', whole);
    tablets.push(context);
    return context.newPage();
  };
  const shownCode = async () => {
    await page.getByRole('button', { name: /^(Show a|Another) code$/ }).click();
    await page.locator('[data-code]').waitFor();
    return page.locator('[data-code]').innerText();
  };
  const WORDS = 'four words that stay';
  /** Somebody says who they are, on a page that asks for it. */
  const comeIn = async (at: Page, name: string, passphrase = `${name}: ${WORDS}`) => {
    await at.getByLabel('Your name').fill(name);
    await at.getByLabel('Your passphrase').fill(passphrase);
    await at.getByRole('button', { name: 'Come in' }).click();
  };
  /** Somebody new in the shop, with a passphrase, told on the main screen. */
  const takeOn = async (name: string, does: readonly RegExp[]) => {
    await page.goto('/people');
    await settled(page);
    await page.getByRole('button', { name: 'Somebody new' }).click();
    const dialog = page.getByRole('dialog');
    await dialog.getByLabel('Name').fill(name);
    for (const each of does) await dialog.getByLabel(each).check();
    await dialog.getByRole('button', { name: 'Keep it' }).click();
    await give(name);
  };
  const give = async (name: string) => {
    const dialog = page.getByRole('dialog');
    await page.getByRole('button', { name: `Give a passphrase to ${name}` }).click();
    await dialog.getByLabel('Passphrase').fill(`${name}: ${WORDS}`);
    await dialog.getByLabel('Once more').fill(`${name}: ${WORDS}`);
    await dialog.getByRole('button', { name: 'Give it' }).click();
    await dialog.waitFor({ state: 'detached' });
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
    // The device is known; who works on it is not, and nobody can say so yet.
    await one.getByRole('heading', { name: 'Who works here?' }).waitFor();
    await comeIn(one, 'Alva');
    await one
      .getByRole('alert')
      .getByText(/do not go together/)
      .waitFor();
    await page.getByText(/Nobody can come in yet/).waitFor();
    await takeOn('Alva', [/owns the shop/]);
    // From now on the machine itself asks too.
    await page.waitForURL('**/who?to=%2Fpeople');
    await comeIn(page, 'Alva');
    await page.getByRole('heading', { level: 1, name: 'People of the shop' }).waitFor();
    await takeOn('Nils', [/plans: charts/]);
    // Whoever said their name here before is one of the people already.
    await give('Ronja');
    await page.goto('/floor');
    await settled(page);
    await comeIn(one, 'Nils');
    await one.getByRole('heading', { level: 1, name: 'Jobs' }).waitFor();
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
    await other.getByRole('heading', { name: 'Who works here?' }).waitFor();
    await comeIn(other, 'Ronja');
    await other.getByRole('heading', { level: 1, name: 'Jobs' }).waitFor();
    await page.locator('[data-device="Tablet by the car"]').waitFor();
    // Who comes in is not decided on a tablet.
    await other.goto(`${address}/floor`);
    await other.getByText('Who else comes in is decided at the machine itself').waitFor();
  });

  it('writes what a tablet types, under the name of who proved it there, and only what they may', async () => {
    const [one, other] = tablets.map((context) => context.pages()[0]!);
    await one!.goto(`${address}${job}/look`);
    await settled(one!);
    await one!.getByLabel('Another step').fill('Told from the tablet');
    await one!.getByRole('button', { name: 'Add', exact: true }).click();
    await one!.getByText('Told from the tablet', { exact: true }).waitFor();
    await page.goto(`${job}/look`);
    await page.getByText('Told from the tablet', { exact: true }).waitFor();
    expect(await one!.evaluate(() => globalThis.isSecureContext)).toBe(true);
    // Ronja measures and does not plan; what she typed stays.
    await other!.goto(`${address}${job}/look`);
    await settled(other!);
    await other!.getByLabel('Another step').fill('Not hers to add');
    await other!.getByRole('button', { name: 'Add', exact: true }).click();
    await other!.getByText(/Ronja may not plan here/).waitFor();
    expect(await other!.getByLabel('Another step').inputValue()).toBe('Not hers to add');
    await page.goto('/floor');
    await settled(page);
  });

  it('changes hands with a PIN, and takes nothing while it is locked; what is typed stays', async () => {
    const one = tablets[0]!.pages()[0]!;
    await one.goto(`${address}/people`);
    await settled(one);
    await one.getByRole('button', { name: 'Take a PIN' }).click();
    const dialog = one.getByRole('dialog');
    await dialog.getByLabel('Your passphrase').fill(`Nils: ${WORDS}`);
    await dialog.getByLabel('PIN', { exact: true }).fill('4711');
    await dialog.getByLabel('Once more').fill('4711');
    await dialog.getByRole('button', { name: 'Keep it' }).click();
    await dialog.waitFor({ state: 'detached' });
    await one.getByText(/passphrase and PIN/).waitFor();
    await one.goto(`${address}${job}/look`);
    await settled(one);
    await one.getByLabel('Another step').fill('After the break');
    await one.getByRole('button', { name: /^Nils/ }).click();
    await one.getByRole('button', { name: 'Lock', exact: true }).click();
    await one.getByText('Locked (Nils)').waitFor();
    await one.keyboard.press('Escape');
    await one.getByRole('button', { name: 'Add', exact: true }).click();
    await dialog.getByLabel('PIN', { exact: true }).fill('0000');
    await dialog.getByRole('button', { name: 'Go on' }).click();
    await dialog.getByText(/not the PIN/).waitFor();
    await dialog.getByLabel('PIN', { exact: true }).fill('4711');
    await dialog.getByRole('button', { name: 'Go on' }).click();
    // What was asked for before is done now.
    await one.getByText('After the break', { exact: true }).waitFor();
    // Over the network too it is the gate that keeps it, not the page.
    const cookies = await tablets[0]!.cookies(address);
    const shown = (names: readonly string[]) =>
      cookies.flatMap(({ name, value }) => (names.includes(name) ? [`${name}=${value}`] : [])).join('; ');
    const json = { origin: address, 'content-type': 'application/json' };
    const post = (cookie: string, more: Record<string, string> = {}) =>
      over('/api/readings', { method: 'POST', headers: { ...json, ...more, cookie }, body: '{}' });
    expect(await post(shown(['vinkel-device']))).toMatchObject({ status: 401 });
    // A session of one device is none on another.
    const others = await tablets[1]!.cookies(address);
    const stolen = `${others.find(({ name }) => name === 'vinkel-device')!.name}=${others.find(({ name }) => name === 'vinkel-device')!.value}; ${shown(['vinkel-session'])}`;
    expect(await post(stolen)).toMatchObject({ status: 401 });
    expect(await post(shown(['vinkel-device']), { 'x-vinkel-session': 'x' })).toMatchObject({ status: 401 });
    expect(await post(shown(['vinkel-device', 'vinkel-session']))).toMatchObject({ status: 422 });
  });

  it('shows on one tablet what is done on the other as it is done, who is there, and the same prompt', async () => {
    const [one, other] = tablets.map((context) => context.pages()[0]!);
    const here = `${address}${job}/rounds/${demoRows('maake').rounds[0]!.id}`;
    for (const each of [one!, other!]) {
      await each.goto(here);
      await settled(each);
    }
    await one!.getByText('Also here: Ronja').waitFor();
    await other!.getByText('Also here: Nils').waitFor();
    const prompt = async (at: Page) => (await at.locator('[data-target]').getAttribute('data-target'))!;
    const first = await prompt(one!);
    expect(await prompt(other!)).toBe(first);
    // One calls out and passes a point over; who types is asked for the same.
    await one!.getByRole('button', { name: 'Skip', exact: true }).click();
    await one!.locator(`[data-target]:not([data-target="${first}"])`).waitFor();
    await other!.locator(`[data-target="${await prompt(one!)}"]`).waitFor();
    // A line typed here stands there.
    const before = await one!.locator('[data-line]').count();
    await typeLine(other!, 'S1R h 489.9');
    await one!.locator('[data-line]').nth(before).waitFor();
    // What the main screen plans stands on the tablet, and a half typed line there stays.
    await one!.goto(`${address}${job}/look`);
    await settled(one!);
    await one!.getByLabel('Another step').fill('half typed');
    await page.goto(`${job}/look`);
    await settled(page);
    await page.getByLabel('Another step').fill('Planned at the machine');
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await one!.getByText('Planned at the machine', { exact: true }).waitFor();
    expect(await one!.getByLabel('Another step').inputValue()).toBe('half typed');
    await one!.getByText('Also here: Alva, Ronja').waitFor();
    // Two correct one thing: who comes second is told, keeps what they typed, and means it when they send it again.
    const correct = async (at: Page, title: string) => {
      const step = at.getByRole('listitem').filter({ hasText: 'Planned at the machine' });
      await step.getByRole('button', { name: 'Correct …' }).click();
      await at.getByRole('dialog').getByLabel('What is to be done').fill(title);
    };
    await correct(one!, 'As the tablet has it');
    await correct(page, 'As the machine has it');
    await page.getByRole('button', { name: 'Keep it so' }).click();
    await one!.getByText('As the machine has it', { exact: true }).waitFor();
    await one!.getByRole('button', { name: 'Keep it so' }).click();
    await one!.getByText(/somebody else changed this meanwhile/).waitFor();
    expect(await one!.getByLabel('What is to be done').inputValue()).toBe('As the tablet has it');
    await page.getByText('As the machine has it', { exact: true }).waitFor();
    await one!.getByRole('button', { name: 'Keep it so' }).click();
    await page.getByText('As the tablet has it', { exact: true }).waitFor();
    await page.goto('/floor');
    await settled(page);
  });

  it('measures on a tablet’s home screen without the server, and delivers exactly once when somebody is there again', async () => {
    const one = tablets[0]!.pages()[0]!;
    const round = demoRows('maake').rounds[0]!;
    const here = `${address}${job}/rounds/${round.id}`;
    await one.goto(here);
    await settled(one);
    await one.locator('html[data-offline=ready]').waitFor();
    const manifest = await one.evaluate(async () => {
      const link = document.querySelector<HTMLLinkElement>('link[rel=manifest]')!;
      const { display, start_url: start, icons } = await (await fetch(link.href)).json();
      return { display, start, sizes: icons.map(({ sizes }: { sizes: string }) => sizes) };
    });
    expect(manifest).toMatchObject({ display: 'standalone', start: '/' });
    expect(manifest.sizes).toEqual(expect.arrayContaining(['192x192', '512x512']));
    const before = await one.locator('[data-line]').count();
    await server.stop();
    const field = one.getByLabel('Reading', { exact: true });
    const type = async (line: string, count: number) => {
      await field.fill(line);
      await pressEnter(one);
      await one
        .locator('[data-line]')
        .nth(before + count - 1)
        .waitFor();
    };
    await type('F2L h 546.3', 1);
    await type('F2R h 546.6', 2);
    // The lid is closed and opened, the program begun from the home screen again: all of it is still there.
    await one.goto(`${address}/`);
    await one.getByRole('heading', { level: 1, name: 'Jobs' }).waitFor();
    await one.goto(here);
    await settled(one);
    await type('S1L h 488.7', 3);
    await field.fill('half typ');
    await one.reload();
    await settled(one);
    expect(await field.inputValue()).toBe('half typ');
    expect(await one.locator('[data-state=waiting]').count()).toBe(3);
    await server.run();
    // A day later nobody has said who works there: it waits for that, and nothing is lost.
    await one.getByText(/Nobody has said who works here now/).waitFor();
    await one.getByRole('button', { name: 'Say who works here' }).click();
    const dialog = one.getByRole('dialog');
    await dialog.getByLabel('PIN', { exact: true }).fill('4711');
    await dialog.getByRole('button', { name: 'Go on' }).dblclick();
    await one.waitForFunction(() => !document.querySelector('[data-state=waiting]'));
    expect(await field.inputValue()).toBe('half typ');
    expect(await one.locator('[data-line]').count()).toBe(before + 3);
    const other = tablets[1]!.pages()[0]!;
    await other.goto(here);
    await settled(other);
    expect(await other.locator('[data-line]').count()).toBe(before + 3);
    const csv = await other.evaluate(async (path) => (await fetch(path)).text(), `/api${job}/readings`);
    for (const line of ['F2L h 546.3', 'F2R h 546.6', 'S1L h 488.7']) expect(csv.split(line).length - 1).toBe(1);
  });

  it('sends a device away at once, and knows the other after a restart without the switch', async () => {
    const [one, other] = tablets.map((context) => context.pages()[0]!);
    await page.goto('/floor');
    await settled(page);
    await page.locator('[data-device="Tablet by the bench"]').getByRole('button', { name: 'Send away' }).click();
    // The restart locked the machine too: it is done as soon as an owner says who they are.
    await comeIn(page, 'Alva');
    await page.locator('[data-device="Tablet by the bench"]').waitFor({ state: 'detached' });
    await one!.goto(address + job);
    expect(new URL(one!.url()).pathname).toBe('/pair');
    await server.stop();
    await server.run();
    await other!.goto(address + job);
    expect(new URL(other!.url()).pathname).toBe(job);
    // Who worked before the restart is known, and locked.
    await other!.getByText('Locked (Ronja)').waitFor();
    await page.goto('/floor');
    await settled(page);
    await page.getByRole('button', { name: 'This machine alone' }).click();
    // What changes something asks first who does it: Alva has no PIN.
    await comeIn(page, 'Alva');
    await page.getByRole('button', { name: 'Answer on the shop’s network' }).waitFor();
    await expect(over(job)).rejects.toThrow();
    expect(errors).toEqual([]);
  });
});
