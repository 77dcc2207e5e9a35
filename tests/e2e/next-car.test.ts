import type { Browser, Page } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { demoRows } from '../support/demo-rows';
import { launch, openWindow, settled } from '../support/browser';
import { withDemo } from '../support/shared';

const first = demoRows('solbris');

describe('the second car of a model', () => {
  let browser: Browser;
  let page: Page;
  let errors: string[];
  beforeAll(async () => {
    const [server, opened] = await Promise.all([withDemo('solbris'), launch()]);
    browser = opened;
    ({ page, errors } = await openWindow(browser, server.address));
  });
  afterAll(() => browser.close());

  it('is begun from the first on the list of jobs, says what is taken over, and keeps what is typed', async () => {
    await page.goto('/');
    await page.getByRole('link', { name: `Next car, begun from ${first.jobs[0]!.name}` }).click();
    await page.waitForURL(/\/jobs\/new\?after=/);
    await page.getByRole('complementary', { name: 'Taken over' }).getByText('braces that were fitted').waitFor();
    await page.getByRole('button', { name: 'Start the job' }).click();
    await page.getByText('Give the job a name').waitFor();
    await page.getByLabel('Name of the job').fill('Solbris, the second');
    // Chosen away and back again: what was typed stays.
    await page.getByLabel('It begins from').selectOption('');
    await page.getByRole('complementary', { name: 'Taken over' }).waitFor({ state: 'detached' });
    await page.getByLabel('It begins from').selectOption({ label: first.jobs[0]!.name });
    await page.getByRole('button', { name: 'Start the job' }).click();
    await page.waitForURL(/\/chart$/);
    await settled(page);
    await page.getByText(`Points (${first.points.length})`).waitFor();
  });

  it('has the structure, the stacks and the steps of the first, and nothing measured', async () => {
    const job = page.url().replace(/\/chart$/, '');
    for (const place of ['set-up', 'cut', 'weld']) {
      await page.goto(`${job}/${place}`);
      await settled(page);
    }
    await page.goto(`${job}/measure`);
    await page.getByRole('button', { name: 'New round' }).waitFor();
    expect(await page.getByRole('link', { name: 'As found' }).count()).toBe(0);
    expect(errors).toEqual([]);
  });
});
