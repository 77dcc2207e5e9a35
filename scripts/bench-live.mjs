import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { chromium } from 'playwright-core';
import { demoArchive, DEMO_JOBS } from './demo-archive.mjs';
import { ensureBuild, ensurePackages } from './ensure.mjs';
import { percentile, startServer } from './trial-server.mjs';

/**
 * `npm run bench:live`: how long after it was done in one window a line of a tape, and a step, stands in others, and a line that another
 * machine sends, which takes no processor of this one. Server and windows are on one machine; figures to read, not a test.
 */
const TIMES = 16;
ensurePackages();
ensureBuild();
const folder = mkdtempSync(path.join(os.tmpdir(), 'vinkel-live-'));
const server = await startServer({ folder, port: 5350 });
const { address } = server;
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-background-networking', '--use-angle=swiftshader', '--enable-unsafe-swiftshader'],
});
try {
  const response = await fetch(`${address}/api/archive`, {
    method: 'POST',
    headers: { origin: address, 'content-type': 'application/zip' },
    body: await demoArchive('kvist'),
  });
  const { jobId } = await response.json();
  const { rows } = JSON.parse(readFileSync(path.join(DEMO_JOBS, 'kvist/rounds/01.json'), 'utf8'));
  const [{ id: roundId }] = rows.rounds;
  for (const others of (process.env.OTHERS ?? '1 2 4').split(' ').map(Number)) {
    await measureFromAfar(`/jobs/${jobId}/rounds/${roundId}`, rows, others);
    await measure('a line', `/jobs/${jobId}/rounds/${roundId}`, others, typeLine);
    await measure('a step', `/jobs/${jobId}/weld`, others, addStep);
  }
} finally {
  await browser.close();
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
}

/** Does something in one window, and waits until each of the others shows it. */
async function measure(what, where, others, act) {
  const windows = await Promise.all(Array.from({ length: others + 1 }, (_, k) => open(where, `Person ${k}`)));
  await new Promise((resolve) => setTimeout(resolve, 3000));
  const times = [];
  for (let i = 0; i < TIMES; i++) {
    const text = (300 + 100 * Math.random()).toFixed(1);
    const begun = await act(windows[0], text);
    const seen = windows.slice(1).map((page) =>
      page
        .locator('[data-line], li', { hasText: text })
        .first()
        .waitFor()
        .then(() => times.push(performance.now() - begun)),
    );
    await Promise.all(seen);
    await new Promise((resolve) => setTimeout(resolve, 600));
  }
  const ms = (part) => `${percentile(times, part).toFixed(0)} ms`;
  console.log(`${what}, seen in ${others} other windows: median ${ms(0.5)}, 95 % ${ms(0.95)}, longest ${ms(1)}`);
  for (const page of windows) await page.context().close();
}

/** Sends lines as a tablet would; each window says itself when it shows one. */
async function measureFromAfar(where, rows, others) {
  const {
    roundId,
    sequence: _,
    receivedAt: __,
    personId: ___,
    ...template
  } = rows.readings.find(({ quantity }) => quantity === 'height');
  const windows = await Promise.all(Array.from({ length: others }, (_, k) => open(where, `Person ${k}`)));
  await new Promise((resolve) => setTimeout(resolve, 3000));
  const times = [];
  for (let i = 0; i < TIMES; i++) {
    const value = Number((300 + 100 * Math.random()).toFixed(1));
    const reading = { ...template, id: randomUUID(), lineId: randomUUID(), value, raw: `P1L h ${value.toFixed(1)}` };
    const seen = windows.map((page) => page.evaluate(untilShown, value.toFixed(1)));
    await new Promise((resolve) => setTimeout(resolve, 100));
    const begun = Date.now();
    const sent = await fetch(`${address}/api/readings`, {
      method: 'POST',
      headers: { origin: address, 'content-type': 'application/json' },
      body: JSON.stringify({ roundId, readings: [reading], strike: null }),
    });
    if (!sent.ok) throw new Error(await sent.text());
    for (const each of await Promise.all(seen)) times.push(each - begun);
    await new Promise((resolve) => setTimeout(resolve, 600));
  }
  const ms = (part) => `${percentile(times, part).toFixed(0)} ms`;
  console.log(`a line from afar, seen in ${others} windows: median ${ms(0.5)}, 95 % ${ms(0.95)}, longest ${ms(1)}`);
  for (const page of windows) await page.context().close();
}

/** Run in a page: the moment a line of the tape is there. */
function untilShown(text) {
  return new Promise((resolve) => {
    const isThere = () => [...document.querySelectorAll('[data-line]')].some((line) => line.textContent.includes(text));
    const observer = new MutationObserver(() => {
      if (!isThere()) return;
      observer.disconnect();
      resolve(Date.now());
    });
    observer.observe(document.body, { childList: true, subtree: true, characterData: true });
  });
}

async function open(where, person) {
  const context = await browser.newContext({ baseURL: address, viewport: { width: 1280, height: 800 } });
  const value = JSON.stringify({ words: 'uk', units: 'mm', sheet: 'day', person });
  await context.addCookies([{ name: 'vinkel', value: encodeURIComponent(value), url: address }]);
  const page = await context.newPage();
  await page.goto(where);
  return page;
}

/** Gives the moment of Enter. */
async function typeLine(page, text) {
  await page.getByLabel('Reading', { exact: true }).fill(`P1L h ${text}`);
  const begun = performance.now();
  await page.keyboard.press('Enter');
  const asked = page.locator('#entry-say[role=alert]', { hasText: 'Enter again' });
  if (await asked.count()) await page.keyboard.press('Enter');
  return begun;
}

async function addStep(page, text) {
  await page.getByLabel('Another step').fill(`Step ${text}`);
  const begun = performance.now();
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  return begun;
}
