import type { Browser, Page } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { acceptOpen, launch, openWindow, typeLine } from '../support/browser';
import { Server } from '../support/server';

/** Six points of a bare shell, mm. */
const SHELL: Readonly<Record<string, readonly [number, number, number]>> = {
  FL: [0, -410, 215],
  FR: [0, 410, 218],
  ML: [1150, -655, 190],
  MR: [1152, 655, 188],
  RL: [2390, -480, 262],
  RR: [2372, 482, 260],
};
const CODES = Object.keys(SHELL);

/** As a tape shows it, to the sixteenth of an inch. */
const inches = (mm: number): string => String(Math.round((mm / 25.4) * 16) / 16);
const length = (from: string, to: string): string =>
  `${from} ${to} ${inches(Math.hypot(...[0, 1, 2].map((k) => SHELL[to]![k]! - SHELL[from]![k]!)))}`;

describe('a shell with nothing but a tape, in inches, from an empty folder', () => {
  let server: Server;
  let browser: Browser;
  let page: Page;
  let errors: string[];
  let roundUrl = '';
  beforeAll(async () => {
    [server, browser] = await Promise.all([Server.start(), launch()]);
    ({ page, errors } = await openWindow(browser, server.address, {
      person: '',
      units: 'in16',
      words: 'us',
      keeps: true,
    }));
  });
  afterAll(async () => {
    await browser.close();
    await server.remove();
  });

  it('begins with a job and a round, read with the tape', async () => {
    await page.goto('/');
    await page.getByRole('link', { name: 'New job' }).click();
    await page.getByLabel('Name of the job').fill('Tape only');
    await page.getByRole('button', { name: 'Start the job' }).click();
    await page.getByText('The chart is empty').waitFor();
    await page.getByRole('link', { name: 'Measure' }).click();
    await page.getByRole('button', { name: 'New round' }).click();
    const instrument = page.getByLabel('Distances are taken with').locator('option:checked');
    expect(await instrument.textContent()).toMatch(/tape/i);
    await page.getByRole('button', { name: 'Start measuring' }).click();
    // A round is signed with a name, which is asked once.
    await page.getByRole('dialog', { name: 'Who is working?' }).getByLabel('Your name').fill('Ronja');
    await page.getByRole('button', { name: 'Sign with it' }).click();
    await page.getByText('No points yet').waitFor();
    roundUrl = page.url();
  });

  it('makes its first two points of the line that names them, on the sides their codes tell', async () => {
    await page.getByLabel('Reading', { exact: true }).fill(length('FL', 'FR'));
    await page.locator('[data-new-point=FL]').getByRole('radio', { name: 'left', checked: true }).waitFor();
    await page.locator('[data-new-point=FR]').getByRole('radio', { name: 'right', checked: true }).waitFor();
    await page.keyboard.press('Enter');
    await page.getByText('FL and FR are new').waitFor();
    expect(await page.locator('[data-line]').count()).toBe(0);
    const drop = page.getByRole('button', { name: 'Drop this empty round' });
    await drop.waitFor();
    await page.keyboard.press('Enter');
    await page.locator('[data-line][data-state=taken]').waitFor();
    // It is empty no more.
    await drop.waitFor({ state: 'detached' });
  });

  it('says from the first pair of diagonals on which is longer', async () => {
    for (const line of [length('FL', 'RR'), length('FR', 'RL')]) await typeLine(page, line);
    const figure = page.locator('[data-figure=diagonals]');
    await figure.waitFor();
    expect(await figure.textContent()).toMatch(/FR – RL is longer than FL – RR by .* in\./);
  });

  it('asks about a length that is nothing like it was read before, or like the other side', async () => {
    const field = page.getByLabel('Reading', { exact: true });
    // Both lines are judged once both their ends are spoken of.
    await page.getByText(/Still loose: .*RL/).waitFor();
    await page.getByText(/Lengths alone do not say which way is up: with 3 heights more, such as \w+ h 8/).waitFor();
    for (const line of ['RR FL 860', 'FR RL 50']) {
      await field.fill(line);
      await page.keyboard.press('Enter');
      await page.getByText(/expected (99|100) .*(over|under).* Enter again takes it all the same/).waitFor();
    }
    await field.fill('');
    expect(await page.locator('[data-line]').count()).toBe(3);
  });

  it('locates six points in plan from fifteen lengths and one height, and names the heights that are missing', async () => {
    const done = new Set(['FL FR', 'FL RR', 'FR RL']);
    const pairs = CODES.flatMap((from, i) => CODES.slice(i + 1).map((to) => [from, to] as const));
    for (const [from, to] of pairs) if (!done.has(`${from} ${to}`)) await typeLine(page, length(from, to));
    await typeLine(page, `FL h ${inches(SHELL.FL![2])}`);
    await page.locator('[data-in-plan="6"]', { hasText: 'the heights are missing at FR, ML, MR, RL and RR' }).waitFor();
    await page.goto(`${roundUrl}/sides`);
    await page.locator('[data-figure=sides]').first().waitFor();
    await page.getByText('The sides cannot be compared as a whole').waitFor();
  });

  it('has them all once the heights are read', async () => {
    await page.goto(roundUrl);
    for (const code of CODES.slice(1)) await typeLine(page, `${code} h ${inches(SHELL[code]![2])}`);
    await page.getByText('6 of 6 points located').waitFor();
  });

  it('asks about a reading that cannot be right, and marks its line when it is taken all the same', async () => {
    await page.getByLabel('Reading', { exact: true }).fill('FL FR 42 1/4');
    await page.keyboard.press('Enter');
    await page.getByText(/expected 32 .* over/).waitFor();
    await page.keyboard.press('Enter');
    await page.locator('[data-line] [data-doubtful]').waitFor();
  });

  it('is closed once what is open was seen, and signed with the name that was asked once', async () => {
    await page.getByRole('button', { name: 'Close the round' }).click();
    await page.getByRole('list', { name: 'Still open' }).getByText('1 reading is doubtful').waitFor();
    await page.getByRole('button', { name: 'Close it all the same' }).click();
    await page.getByRole('button', { name: 'Open the round again' }).waitFor();
    await page.locator('[data-line] button').first().click();
    expect(await page.getByRole('button', { name: 'Strike', exact: true }).count()).toBe(0);
    await page.getByRole('button', { name: 'Open the round again' }).click();
    await page.getByRole('button', { name: 'Open it again' }).click();
    await page.getByText('opening a closed round needs its reason').waitFor();
    await page.getByLabel('Why it is opened again').fill('one length was misread');
    await page.getByRole('button', { name: 'Open it again' }).click();
    await page.getByRole('button', { name: 'Close the round' }).waitFor();
  });

  it('keeps its own data as they were corrected', async () => {
    await page.getByRole('link', { name: 'Day sheet' }).click();
    await page.getByRole('button', { name: 'Change the job’s data' }).click();
    await page.getByLabel('Owner').fill('Harbor museum');
    await page.getByRole('button', { name: 'Keep it so' }).click();
    await page.getByText('Harbor museum').waitFor();
  });

  it('is signed', async () => {
    await page.getByRole('link', { name: 'Record' }).click();
    await page.getByRole('button', { name: 'Sign …' }).click();
    await acceptOpen(page);
    await page.getByRole('button', { name: 'Sign it' }).click();
    await page.getByRole('link', { name: /Record 1: Ronja/ }).waitFor();
  });

  it('threw no error in the browser on the way', () => expect(errors).toEqual([]));
});
