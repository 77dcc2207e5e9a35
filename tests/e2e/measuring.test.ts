import { readFileSync } from 'node:fs';
import type { Browser, BrowserContext, Page } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { distance, position, type Position, type Vector } from '@/core/maths/geometry/vector';
import { seeded } from '@/core/maths/random/seeded';
import { predict } from '@/core/survey/prediction';
import { solveDetermined } from '@/core/survey/determined';
import { parseSurvey, surveyOf } from '@/formats/survey';
import { demoArchive } from '../../scripts/demo-archive.mjs';
import { launch, openWindow, pressEnter, typeLine, settled } from '../support/browser';
import { demoRows } from '../support/demo-rows';
import { send, Server } from '../support/server';

const solbris = demoRows('solbris');
const job = solbris.jobs[0]!;
const truth = new Map<string, Position<'round'>>(
  Object.entries(
    (
      JSON.parse(readFileSync(`demo/truth/${job.id}.json`, 'utf8')) as {
        positions: Record<string, Vector>;
      }
    ).positions,
  ).map(([code, at]) => [code, position(at)]),
);
const POINTS = ['F2L', 'F2R', 'M1L', 'M1R', 'S1L', 'S1R', 'S3L', 'S3R', 'R4L', 'R4R', 'A2L', 'B2L'];

/** Every line of a round over some points, as a helper would call it out, with the instruments' noise. */
function roundOf(points: readonly string[]): string[] {
  const random = seeded(42);
  const noisy = (value: number, sd: number) => (value + sd * random.normal()).toFixed(1);
  const at = (code: string) => truth.get(code)!;
  const heights = points.map((code) => `${code} h ${noisy(at(code)[2], 0.7)}`);
  const lengths = points.flatMap((from, i) =>
    points.slice(i + 1).flatMap((to, j) => {
      const exact = distance(at(from), at(to));
      return (i + j) % 3 === 2 ? [] : [`${from} ${to} ${noisy(exact, 0.6 + 0.0003 * exact)} tip`];
    }),
  );
  return [...heights, ...lengths];
}

describe('measuring a round of the demo shell', () => {
  let server: Server;
  let browser: Browser;
  let context: BrowserContext;
  let page: Page;
  let errors: string[];
  let roundUrl = '';
  beforeAll(async () => {
    [server, browser] = await Promise.all([Server.start(), launch()]);
    const response = await send(server, '/api/archive', await demoArchive('solbris'));
    expect(response.status).toBe(200);
    ({ page, context, errors } = await openWindow(browser, server.address, { keeps: true }));
    await page.goto(`/jobs/${job.id}/measure`);
    await page.getByRole('button', { name: 'New round' }).click();
    await page.getByLabel('Name', { exact: true }).fill('By tape and stick');
    await page.getByRole('button', { name: 'Start measuring' }).click();
    await page.getByText('The tape is empty').waitFor();
    roundUrl = page.url();
  });
  afterAll(async () => {
    await browser.close();
    await server.remove();
  });
  const doubtCount = (count: number) => page.locator(`[data-doubt-count="${count}"]`).waitFor();
  const wanted = () => page.locator('[data-target]').getAttribute('data-target');

  it('leads from floor diagonal to floor diagonal: a bare number is the pair shown, Enter moves on', async () => {
    const first = await wanted();
    expect(first).toMatch(/^distance /);
    const [, from, to] = first!.split(' ');
    await typeLine(page, distance(truth.get(from!)!, truth.get(to!)!).toFixed(1));
    await page.waitForFunction(
      (before) => document.querySelector('[data-target]')?.getAttribute('data-target') !== before,
      first,
    );
    expect(await page.locator('[data-line]').first().textContent()).toContain(from);
  });

  it('skips, comes back and repeats by one key each', async () => {
    const now = await wanted();
    await page.keyboard.press('F2');
    await page.waitForFunction(
      (before) => document.querySelector('[data-target]')?.getAttribute('data-target') !== before,
      now,
    );
    await page.keyboard.press('F3');
    await page.locator(`[data-target="${now}"]`).waitFor();
    await page.keyboard.press('F4');
    await page.getByRole('heading', { name: /, again$/ }).waitFor();
    await page.keyboard.press('F2');
    await page.locator(`[data-target="${now}"]`).waitFor();
  });

  it('asks about a length far from what is expected, and keeps it until Enter comes again', async () => {
    await page.getByLabel('Reading', { exact: true }).fill('F2L F2R 7600');
    await page.keyboard.press('Enter');
    await page.getByText(/expected .* over.* Enter again takes it/).waitFor();
    expect(await page.getByLabel('Reading', { exact: true }).inputValue()).toBe('F2L F2R 7600');
    await page.getByLabel('Reading', { exact: true }).fill('');
  });

  it('finds the two slips of the round and names them, while nothing stops the typing', async () => {
    const lines = roundOf(POINTS);
    const tape = lines.findIndex((line) => line.startsWith('F2L R4L'));
    const [from, to, length] = lines[tape]!.split(' ');
    lines[tape] = `${from} ${to} ${(Number(length) + 100).toFixed(1)} tip`;
    const crossed = lines.findIndex((line) => line.startsWith('S1R S3R'));
    lines[crossed] = lines[crossed]!.replace('S3R', 'S3L');
    for (const line of lines) await typeLine(page, line);
    await doubtCount(2);
    await page.getByRole('tab', { name: /2 doubtful/ }).click();
    const slip = page.locator('[data-doubt="F2L – R4L"]');
    expect(await slip.textContent()).toContain('started at the 100 mm mark');
    const exchanged = page.locator('[data-doubt="S1R – S3L"]');
    expect(await exchanged.textContent()).toMatch(/left and right were exchanged/);
  });

  it('corrects one with its reason, has the other measured again and struck', async () => {
    await page.getByRole('button', { name: /Correct it to F2L R4L/ }).click();
    await doubtCount(1);
    await page.getByRole('button', { name: 'Measure again' }).click();
    await page.locator('[data-target="distance S1R S3L"]').waitFor();
    await typeLine(page, distance(truth.get('S1R')!, truth.get('S3L')!).toFixed(1));
    const wrong = page.locator('[data-line]', { hasText: 'S1R – S3L' }).first();
    await wrong.getByRole('button').first().click();
    await wrong.getByRole('button', { name: 'Strike' }).click();
    await page.getByRole('button', { name: 'Strike it' }).click();
    await doubtCount(0);
    const struck = page.locator('[data-state=struck]', { hasText: 'started at the 100 mm mark' });
    expect(await struck.count()).toBe(1);
  });

  it('agrees with the hidden truth within its stated uncertainty', async () => {
    const url = roundUrl.replace('/jobs/', '/api/jobs/');
    const document = parseSurvey(await (await fetch(`${url}/survey`)).json());
    if (!document.ok) throw new Error(JSON.stringify(document.faults));
    const survey = surveyOf(document.value);
    // The pair the walk led to first is of other points: what hangs on it alone stays loose.
    const [solution] = solveDetermined(survey).pieces;
    if (!solution) throw new Error('nothing is determined');
    let [within, all] = [0, 0];
    for (const [i, from] of POINTS.entries())
      for (const to of POINTS.slice(i + 1)) {
        const { value, variance } = predict(solution, { id: '', kind: 'distance', from, to, value: 1, sigma: 1 });
        const off = Math.abs(value - distance(truth.get(from)!, truth.get(to)!));
        expect(off).toBeLessThan(4 * Math.sqrt(variance));
        all++;
        if (off <= 2 * Math.sqrt(variance)) within++;
      }
    expect(within / all).toBeGreaterThan(0.85);
  });

  it('plans round a point that cannot be reached, and ties in a substitute', async () => {
    const target = await wanted();
    const marked = target!.split(' ').at(-1)!;
    await page.keyboard.press('F6');
    const condition = page.locator('[data-condition$="buried"]');
    await condition.waitFor();
    const code = (await condition.getAttribute('data-condition'))!.split(' ')[0]!;
    expect(target).toContain(code);
    expect(marked).toBeTruthy();
    await page.waitForFunction(
      (gone) => !document.querySelector('[data-target]')?.getAttribute('data-target')?.split(' ').includes(gone),
      code,
    );
    await page.getByRole('button', { name: 'not any more' }).click();
    await condition.waitFor({ state: 'detached' });
    // Led to the same point again: what was taken back of it may not keep its substitute from being made.
    await page.waitForFunction(
      (back) => document.querySelector('[data-target]')?.getAttribute('data-target')?.split(' ').includes(back),
      code,
    );
    await page.getByRole('button', { name: 'Substitute' }).click();
    await page.getByRole('button', { name: 'Make it' }).click();
    await page.locator('[data-condition$="buried"]').waitFor();
    await page.waitForFunction(() =>
      /X\b/.test(document.querySelector('[data-target]')?.getAttribute('data-target') ?? ''),
    );
  });

  it('takes a number from the simulated instrument through the line parser', async () => {
    await page.getByLabel('Order of reading').selectOption('charted');
    const before = await page.locator('[data-line]').count();
    await page.getByRole('tab', { name: 'Devices' }).click();
    await page.getByLabel(/Simulated instrument: mistakes/).fill('0');
    await page.getByLabel('Try it on').fill('ERR 7');
    await page.getByText('would land as 7').waitFor();
    await page.getByRole('button', { name: 'Measure what is wanted' }).click();
    await page.locator('[data-line]').nth(before).waitFor();
    await page.getByText(/came: \d/).waitFor();
  });

  it('shows the next two on a board in another window, and a second window fills the same round', async () => {
    const board = await context.newPage();
    await board.goto(roundUrl.replace('/jobs/', '/board/').replace('/rounds/', '/'));
    await board.locator('[data-board-next]').waitFor();
    const second = await context.newPage();
    await second.goto(roundUrl);
    await second.locator('[data-line]').first().waitFor();
    await typeLine(second, 'F2R h 500.1');
    await page.locator('[data-line]', { hasText: '500.1' }).waitFor();
    await typeLine(page, 'F2L h 501.7');
    await second.locator('[data-line]', { hasText: '501.7' }).waitFor();
    await board.getByText(/501\.7/).waitFor();
    await Promise.all([board.close(), second.close()]);
  });

  it('sends a line that was typed in the moment before the page was left', async () => {
    const second = await context.newPage();
    await second.goto(roundUrl);
    await second.locator('[data-line]').first().waitFor();
    await page.getByLabel('Reading', { exact: true }).fill('F2R h 499.3');
    await pressEnter(page);
    await page.getByRole('link', { name: 'Vinkel' }).click();
    await second.locator('[data-line]', { hasText: '499.3' }).waitFor();
    await second.close();
    await page.waitForURL('/');
    await page.goto(roundUrl);
    await page.locator('[data-line]').first().waitFor();
  });

  it('brings readings in from a file, with its columns matched by hand', async () => {
    await page.getByRole('tab', { name: 'Files' }).click();
    await page.locator('input[type=file]').setInputFiles({
      name: 'readings.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from('one,other,how much\nF2L,S1L,812\nF2R,S9R,813\n'),
    });
    await page.getByText(/2 readings, 2 with a fault/).waitFor();
    await page.getByLabel('Point or station').selectOption({ label: 'one' });
    await page.getByLabel('Second point').selectOption({ label: 'other' });
    await page.getByLabel('Value', { exact: true }).selectOption({ label: 'how much' });
    await page.getByText('no point "S9R"').waitFor();
    expect(await page.getByRole('button', { name: 'Take all 2' }).isDisabled()).toBe(true);
  });

  it('prints the walk as a pencil sheet in its order', async () => {
    await page.goto(`${roundUrl}/walk`);
    await page.getByRole('heading', { name: /the walk for round/ }).waitFor();
    expect(await page.locator('tbody tr').count()).toBeGreaterThan(60);
    await page.goto(roundUrl);
    await page.locator('[data-line]').first().waitFor();
  });

  it('opens and takes readings with no server, and delivers each exactly once when it is back', async () => {
    await page.locator('html[data-offline=ready]').waitFor();
    await page.reload();
    await page.locator('[data-line]').first().waitFor();
    await server.stop('SIGKILL');
    const values = [901.1, 902.2, 903.3, 904.4, 905.5];
    for (const value of values.slice(0, 3)) await typeAway(page, `F2L h ${value}`);
    await page.reload();
    await page.locator('[data-state=waiting]').nth(2).waitFor();
    for (const value of values.slice(3)) await typeAway(page, `F2L h ${value}`);
    expect(await page.locator('[data-state=waiting]').count()).toBe(5);
    await server.run();
    await page.locator('[data-state=waiting]').first().waitFor({ state: 'detached' });
    await page.waitForFunction(() => !document.querySelector('[data-state=waiting]'));
    const csv = await (await fetch(`${server.address}/api/jobs/${job.id}/readings`)).text();
    for (const value of values) expect(csv.split(`F2L h ${value}`).length - 1).toBe(1);
  });

  it('opens every page of the job that was open before, with no server, and says so', async () => {
    const addresses = ['', '/log', '/brace', '/record'].map((path) => `${server.address}/jobs/${job.id}${path}`);
    for (const address of addresses) {
      await page
        .locator(`nav a[href="${new URL(address).pathname}"]`)
        .first()
        .click();
      await page.waitForURL(address);
      await settled(page);
    }
    // What was gone to by a link is asked for whole besides: it takes a moment longer.
    const kept = () =>
      page.evaluate(async (all) => {
        const cache = await caches.open('vinkel-pages');
        const found = await Promise.all(all.map((each) => cache.match(each, { ignoreVary: true })));
        return found.filter(Boolean).length;
      }, addresses);
    await expect.poll(kept).toBe(addresses.length);
    await server.stop('SIGKILL');
    for (const address of addresses) {
      await page.goto(address);
      await page.getByRole('main').waitFor();
      await page.locator('[data-away]').waitFor();
    }
    await server.run();
    await page.locator('[data-away]').waitFor({ state: 'detached' });
  });

  it('threw no error in the browser on the way', () => expect(errors).toEqual([]));
});

/** Types a line while the server is away: it stands on the tape as waiting. */
async function typeAway(page: Page, line: string): Promise<void> {
  const waiting = await page.locator('[data-state=waiting]').count();
  await page.getByLabel('Reading', { exact: true }).fill(line);
  await pressEnter(page);
  await page.locator('[data-state=waiting]').nth(waiting).waitFor();
}
