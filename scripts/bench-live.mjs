import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { chromium } from 'playwright-core';
import { demoArchive, DEMO_JOBS } from './demo-archive.mjs';
import { ensureBuild, ensurePackages } from './ensure.mjs';
import { percentile, startServer } from './trial-server.mjs';

/**
 * `npm run bench:live`: how long after it was done in one window a line of a tape, and a step, stands in others. Server and
 * browser are on one machine; figures to read, not a test.
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
  const { id: roundId } = JSON.parse(readFileSync(path.join(DEMO_JOBS, 'kvist/rounds/01.json'), 'utf8')).rows.rounds[0];
  for (const others of [1, 2, 4]) {
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
