import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { launch, notePresses } from './browser.mjs';
import { demoArchive, DEMO_JOBS } from './demo-archive.mjs';
import { ensureBuild, ensurePackages } from './ensure.mjs';
import { percentile, startServer } from './trial-server.mjs';

/**
 * `npm run bench:live`: how long after it was done in one window a line of a tape, a step and a brace stand in others; and how long after
 * another machine sent it, which takes no processor of this one. Server and windows are on one machine; figures to read, not a test.
 * Windows on machines of their own take nothing from the server: for them it is said when all of them had been sent it.
 * `OTHERS="1 2 4"`: windows that look on; `AFAR="2 5 10"`: those on machines of their own.
 */
const TIMES = 16;
ensurePackages();
ensureBuild();
const folder = mkdtempSync(path.join(os.tmpdir(), 'vinkel-live-'));
const server = await startServer({ folder, port: 5350 });
const { address } = server;
// No page measured here draws in space: a graphics card imitated by the processor would only take from what is measured.
const browser = await launch(['--disable-gpu']);
try {
  const [van, estate] = [await takenIn('kvist'), await takenIn('solbris')];
  const { rows } = JSON.parse(readFileSync(path.join(DEMO_JOBS, 'kvist/rounds/01.json'), 'utf8'));
  const round = `/jobs/${van}/rounds/${rows.rounds[0].id}`;
  const [weld, brace] = [`/jobs/${estate}/weld`, `/jobs/${estate}/brace`];
  const afar = { line: lineSender(rows), step: await stepSender(weld), brace: await braceSender(brace) };
  for (const windows of (process.env.AFAR ?? '2 5 10').split(' ').map(Number)) {
    await measureSent('a step', estate, windows, afar.step);
    await measureSent('a brace', estate, windows, afar.brace);
  }
  for (const others of (process.env.OTHERS ?? '1 2 4').split(' ').map(Number)) {
    await measureFromAfar('a line', round, others, afar.line);
    await measureFromAfar('a step', weld, others, afar.step.send);
    await measureFromAfar('a brace', brace, others, afar.brace.send);
    await measure('a line', round, others, typeLine);
    await measure('a step', weld, others, addStep);
  }
} finally {
  await browser.close();
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
}

async function takenIn(name) {
  const response = await fetch(`${address}/api/archive`, {
    method: 'POST',
    headers: { origin: address, 'content-type': 'application/zip' },
    body: await demoArchive(name),
  });
  return (await response.json()).jobId;
}

/** Does something in one window; each of the others says itself when it shows it. */
async function measure(what, where, others, act) {
  const doer = await open(where, 'Doer');
  await measureSeen(`${what}, seen in ${others} other windows`, where, others, async (text) => {
    await act(doer, text);
    return doer.evaluate(() => globalThis.pressed);
  });
  await doer.context().close();
}

/** Each window says itself when it shows what another machine sent. */
function measureFromAfar(what, where, others, send) {
  return measureSeen(`${what} from afar, seen in ${others} windows`, where, others, async (text) => {
    const begun = Date.now();
    await send(text);
    return begun;
  });
}

/** @param act does it, and gives the moment it was begun */
async function measureSeen(what, where, others, act) {
  const windows = await Promise.all(Array.from({ length: others }, (_, k) => open(where, `Person ${k}`)));
  await new Promise((resolve) => setTimeout(resolve, 4000));
  const times = [];
  for (let i = 0; i < TIMES; i++) {
    const text = (300 + 100 * Math.random()).toFixed(1);
    const seen = windows.map((page) => page.evaluate(untilShown, text));
    await new Promise((resolve) => setTimeout(resolve, 100));
    const begun = await act(text);
    for (const each of await Promise.all(seen)) times.push(each - begun);
    await new Promise((resolve) => setTimeout(resolve, 600));
  }
  report(what, times, others);
  for (const page of windows) await page.context().close();
}

/** @param times of all windows, one change after another */
function report(what, times, windows) {
  const ms = (part) => `${percentile(times, part).toFixed(0)} ms`;
  const first = Math.max(...times.slice(0, windows));
  console.log(`${what}: median ${ms(0.5)}, 95 % ${ms(0.95)}, longest ${ms(1)}, the first ${first.toFixed(0)} ms`);
}

/** Windows without a browser: each listens, asks for the page when it hears of something and reads it to its end. */
async function measureSent(what, jobId, count, { send, asked }) {
  const windows = Array.from({ length: count }, () => ({ id: randomUUID(), stop: new AbortController() }));
  const waiting = new Map();
  const listen = async ({ id, stop }) => {
    const live = await fetch(`${address}/api/jobs/${jobId}/live?window=${id}`, {
      headers: { cookie: asked.headers.cookie },
      signal: stop.signal,
    });
    for await (const chunk of live.body.pipeThrough(new TextDecoderStream())) {
      if (!chunk.includes('"kind":"rows"')) continue;
      const page = await (await fetch(asked.url, { headers: asked.headers })).text();
      waiting.get(id)?.(page);
    }
  };
  for (const window of windows) listen(window).catch(() => undefined);
  await new Promise((resolve) => setTimeout(resolve, 1000));
  const times = [];
  for (let i = 0; i < TIMES; i++) {
    const text = (300 + 100 * Math.random()).toFixed(1);
    const sent = windows.map(
      ({ id }) =>
        new Promise((resolve) => waiting.set(id, (page) => page.includes(text) && resolve(performance.now()))),
    );
    const begun = performance.now();
    await send(text);
    for (const each of await Promise.all(sent)) times.push(each - begun);
    await new Promise((resolve) => setTimeout(resolve, 600));
  }
  report(`${what} from afar, sent to ${count} windows elsewhere`, times, count);
  for (const { stop } of windows) stop.abort();
}

/** Run in a page: the moment a text is there. */
function untilShown(text) {
  return new Promise((resolve) => {
    const isThere = () =>
      [...document.querySelectorAll('[data-line], li, td')].some((place) => place.textContent.includes(text));
    const observer = new MutationObserver(() => {
      if (!isThere()) return;
      observer.disconnect();
      resolve(Date.now());
    });
    observer.observe(document.body, { childList: true, subtree: true, characterData: true });
  });
}

/** Sends lines as a tablet does. */
function lineSender(rows) {
  const reading = rows.readings.find(({ quantity }) => quantity === 'height');
  const { roundId, sequence: _, receivedAt: __, personId: ___, ...template } = reading;
  return async (text) => {
    const line = {
      ...template,
      ...{ id: randomUUID(), lineId: randomUUID(), value: Number(text), raw: `P1L h ${text}` },
    };
    const sent = await fetch(`${address}/api/readings`, {
      method: 'POST',
      headers: { origin: address, 'content-type': 'application/json' },
      body: JSON.stringify({ roundId, readings: [line], strike: null }),
    });
    if (!sent.ok) throw new Error(await sent.text());
  };
}

/**
 * Does again, from no window, what one window did once: `again` writes what is sent the next time.
 *
 * @returns how to send it, and how the window asked for its page after it
 */
async function sender(where, act, again) {
  const page = await open(where, 'Afar');
  await page.waitForTimeout(2000);
  const [request, refresh] = await Promise.all([
    page.waitForRequest((each) => each.method() === 'POST' && 'next-action' in each.headers()),
    page.waitForRequest((each) => each.url().includes('_rsc=')),
    act(page),
  ]);
  await page.waitForTimeout(2000);
  const { accept, 'content-type': type, 'next-action': action } = request.headers();
  const state = request.headers()['next-router-state-tree'];
  const cookies = (await page.context().cookies()).map(({ name, value }) => `${name}=${value}`);
  await page.context().close();
  let [form, , window] = JSON.parse(request.postData());
  const wanted = Object.entries(refresh.headers()).filter(([name]) => /^(rsc|next-)/.test(name));
  const asked = { url: refresh.url(), headers: { ...Object.fromEntries(wanted), cookie: cookies.join('; ') } };
  const send = async (text) => {
    form = again(form, text);
    const sent = await fetch(request.url(), {
      method: 'POST',
      headers: {
        ...{ accept, 'content-type': type, 'next-action': action, 'next-router-state-tree': state },
        ...{ origin: address, cookie: cookies.join('; ') },
      },
      body: JSON.stringify([form, randomUUID(), window]),
    });
    const answer = await sent.text();
    if (!answer.includes('"ok":true')) throw new Error(answer);
  };
  return { send, asked };
}

function stepSender(where) {
  const again = (form, text) => ({ ...form, id: randomUUID(), title: `Step ${text}` });
  return sender(where, (page) => addStep(page, 'one'), again);
}

/** A brace that is called otherwise and moved: what is worked out of the shell with it is worked out anew. */
function braceSender(where) {
  const rename = async (page) => {
    const list = page.getByRole('region', { name: 'Braces', exact: true });
    await list.getByRole('button', { name: 'Correct …' }).first().click();
    await page.getByLabel('Code').fill('B0');
    await page.getByRole('button', { name: 'Keep it so' }).click();
  };
  return sender(where, rename, ({ item, brace, ...form }, text) => ({
    ...form,
    item: { ...item, code: `B${text}`, name: `B${text}`, version: item.version + 1 },
    brace: { ...brace, fromOff: Number(text) / 100, version: brace.version + 1 },
  }));
}

async function open(where, person) {
  const context = await browser.newContext({ baseURL: address, viewport: { width: 1280, height: 800 } });
  const value = JSON.stringify({ words: 'uk', units: 'mm', sheet: 'day', person });
  await context.addCookies([{ name: 'vinkel', value: encodeURIComponent(value), url: address }]);
  const page = await context.newPage();
  await page.addInitScript(notePresses);
  await page.goto(where);
  // A window that was never here first keeps the program's files, as a tablet does once.
  await page.locator('html[data-offline=ready]').waitFor();
  return page;
}

async function typeLine(page, text) {
  await page.getByLabel('Reading', { exact: true }).fill(`P1L h ${text}`);
  await page.keyboard.press('Enter');
  const asked = page.locator('#entry-say[role=alert]', { hasText: 'Enter again' });
  if (await asked.count()) await page.keyboard.press('Enter');
}

async function addStep(page, text) {
  await page.getByLabel('Another step').fill(`Step ${text}`);
  await page.getByRole('button', { name: 'Add', exact: true }).click();
}
