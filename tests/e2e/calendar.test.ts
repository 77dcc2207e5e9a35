import ICAL from 'ical.js';
import type { Browser, Page } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { launch, openWindow, settled } from '../support/browser';
import { demoRows } from '../support/demo-rows';
import { withDemo } from '../support/shared';

const job = `/jobs/${demoRows('solbris').jobs[0]!.id}`;
const MINUTE = 60_000;

describe('the calendar', () => {
  let server: { readonly address: string };
  let browser: Browser;
  let page: Page;
  let errors: readonly string[];
  beforeAll(async () => {
    [server, browser] = await Promise.all([withDemo('solbris'), launch()]);
    ({ page, errors } = await openWindow(browser, server.address));
    await page.goto(`${job}/calendar`);
    await settled(page);
  });
  afterAll(async () => {
    await browser.close();
    expect(errors).toEqual([]);
  });

  const bar = (title: string) => page.locator(`[data-bar^="${title}"]`).first();
  const starts = async (title: string) => Date.parse((await bar(title).getAttribute('data-starts'))!);
  const inHand = () => page.getByRole('region', { name: 'Step in hand' });
  const dialog = () => page.getByRole('dialog');

  it('moves a bar that is dragged, with everything that follows it, and lets it go back', async () => {
    await page.getByRole('button', { name: 'Step by step' }).click();
    const [fit, seal] = await Promise.all(['Fit the new', 'Seal the seams'].map(starts));
    await bar('Fit the new').scrollIntoViewIfNeeded();
    const { x, y } = (await bar('Fit the new').boundingBox())!;
    await page.mouse.move(x + 6, y + 16);
    await page.mouse.down();
    // Four days of 44 px.
    for (const share of [0.3, 0.6, 1]) await page.mouse.move(x + 6 + share * 4 * 44, y + 16);
    // While it is dragged already what follows moves with it.
    await expect.poll(() => starts('Seal the seams')).toBeGreaterThan(seal!);
    await page.mouse.up();
    await settled(page);
    await page.reload();
    await settled(page);
    await page.getByRole('button', { name: 'Step by step' }).click();
    expect(await starts('Fit the new')).toBeGreaterThan(fit! + 2 * 24 * 60 * MINUTE);
    expect(await starts('Seal the seams')).toBeGreaterThan(seal!);
    await bar('Fit the new').press('Enter');
    await inHand().getByText('It was put there, or its part comes then.').waitFor();
    await inHand().getByRole('button', { name: 'As early as it can be' }).click();
    await expect.poll(() => starts('Fit the new')).toBe(fit!);
  });

  it('moves a bar by the arrow keys', async () => {
    const before = await starts('Seal the seams');
    await bar('Seal the seams').press('Shift+ArrowRight');
    await expect.poll(() => starts('Seal the seams')).toBeGreaterThan(before);
    await settled(page);
  });

  it('takes how long a step is, and says at the field what it cannot read', async () => {
    await bar('Wash the shell').press('Enter');
    await inHand().getByRole('button', { name: 'Plan it …' }).click();
    await dialog().getByLabel('Work', { exact: true }).fill('an afternoon');
    await dialog().getByRole('button', { name: 'Plan it so' }).click();
    await dialog().getByText('so long: 45 min, 3 h 30, 2 d, 3 weeks').waitFor();
    expect(await dialog().getByLabel('Work', { exact: true }).inputValue()).toBe('an afternoon');
    await dialog().getByLabel('Work', { exact: true }).fill('3 h 30');
    await dialog().getByLabel('Then it waits').fill('2 d');
    await dialog().getByLabel('Nils').check();
    await dialog().getByRole('button', { name: 'Plan it so' }).click();
    await dialog().waitFor({ state: 'detached' });
    await inHand()
      .getByText(/Alva, Nils · 3 h 30 · then waits 2 days/)
      .waitFor();
  });

  it('says what can be done now; what was worked waits and rings, on every page, until somebody heard it', async () => {
    const now = page.getByRole('region', { name: 'What can be done now' });
    await now.locator('[data-can^="Wash the shell"]').waitFor();
    await inHand().getByLabel('Worked on it').fill('1 h 15');
    await inHand().getByRole('button', { name: 'Book' }).click();
    await inHand()
      .getByText(/1 h 15 booked/)
      .waitFor();
    await inHand()
      .getByRole('button', { name: /Worked: it waits/ })
      .click();
    await now.getByText(/Wash the shell down outdoors until/).waitFor();
    await page
      .getByRole('region', { name: 'Timers' })
      .getByText(/Wash the shell down outdoors: the wait is over/)
      .waitFor();
    await page.clock.setFixedTime(Date.now() + 3 * 24 * 60 * MINUTE);
    await page.goto(`${job}/log`);
    await settled(page);
    const ring = page.getByRole('alert', { name: 'Timers that are over' });
    await ring.getByText(/the wait is over/).waitFor();
    await ring.getByRole('button', { name: /Heard/ }).click();
    await ring.waitFor({ state: 'detached' });
    await page.clock.setFixedTime(Date.now());
  });

  it('begins a fire watch where sparks fly', async () => {
    await page.goto(`${job}/weld`);
    await settled(page);
    await page.getByRole('button', { name: 'Last spark now: watch for an hour' }).click();
    await page.getByText(/Somebody watches until/).waitFor();
    await page.goto(`${job}/calendar`);
    await settled(page);
    await page.getByRole('button', { name: /^Stop Fire watch/ }).waitFor();
  });

  it('takes days off from another calendar, and gives its own to others', async () => {
    const end = () => page.locator('[data-end]').getAttribute('data-end');
    const file = (text: string) => ({ name: 'off.ics', mimeType: 'text/calendar', buffer: Buffer.from(text) });
    const days = page.getByRole('region', { name: 'Days off' });
    await days.locator('input[type=file]').setInputFiles(file('Christmas;24 December'));
    await days.getByText(/this is no calendar/).waitFor();
    const before = await end();
    const first = new Date(Date.now() + 24 * 60 * MINUTE).toISOString().slice(0, 10).replaceAll('-', '');
    const event = [
      'BEGIN:VEVENT',
      'UID:1',
      `DTSTART;VALUE=DATE:${first}`,
      'DURATION:P60D',
      'SUMMARY:Away',
      'END:VEVENT',
    ];
    const text = ['BEGIN:VCALENDAR', 'VERSION:2.0', ...event, 'END:VCALENDAR'].join('\r\n');
    await days.locator('input[type=file]').setInputFiles(file(text));
    await days.getByText('60 days were read.').waitFor();
    await expect.poll(end).not.toBe(before);
    const answer = await page.request.get(`/api${job}/calendar`);
    const events = new ICAL.Component(ICAL.parse(await answer.text()) as unknown as string).getAllSubcomponents(
      'vevent',
    );
    expect(events.map((each) => new ICAL.Event(each).summary)).toContain('Seal the seams of sill and floor');
  });

  it('answers on the day sheet what is first tomorrow, and for whom', async () => {
    await page.goto(job);
    await settled(page);
    await page.locator('[data-first="Nils"]').waitFor();
  });
});
