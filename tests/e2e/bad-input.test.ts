import { randomBytes, randomUUID } from 'node:crypto';
import type { Browser } from 'playwright-core';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { demoArchive } from '../../scripts/demo-archive.mjs';
import { launch, openWindow } from '../support/browser';
import { demoRows } from '../support/demo-rows';
import { send, Server } from '../support/server';

const rows = demoRows('solbris');
const jobId = rows.jobs[0]!.id;
const roundId = rows.rounds[1]!.id;

describe('bad input', () => {
  let server: Server;
  let browser: Browser;
  beforeAll(async () => {
    [server, browser] = await Promise.all([Server.start(), launch()]);
    await send(server, '/api/archive', await demoArchive('solbris'));
  });
  afterAll(async () => {
    await browser.close();
    await server.remove();
  });

  const post = async (path: string, body: Uint8Array | string, type?: string) => {
    const response = await send(server, path, body, type);
    return {
      status: response.status,
      faults: ((await response.json()) as { faults: { path: string; message: string }[] }).faults,
    };
  };

  it('says what is wrong with an archive that is none, damaged or of a job that is here', async () => {
    expect((await post('/api/archive', 'not a zip', 'application/zip')).faults[0]!.message).toContain(
      'zip cannot be read',
    );
    const zip = await demoArchive('kvist');
    expect((await post('/api/archive', zip.subarray(0, zip.length - 400))).faults[0]!.message).toContain('zip');
    expect((await post('/api/archive', await demoArchive('solbris'))).faults[0]!.message).toContain('is here already');
    expect((await fetch(server.address)).status).toBe(200);
  });

  it('names every fault of a reading that is not one, and takes nothing', async () => {
    const refused = await post(
      '/api/readings',
      JSON.stringify({ roundId: 'x', readings: [{ id: 1 }], strike: null, more: 2 }),
    );
    expect(refused.status).toBe(422);
    expect(refused.faults.map((fault) => fault.path)).toEqual(
      expect.arrayContaining(['roundId', 'readings[0].id', 'more']),
    );
    expect((await post('/api/readings', 'nonsense')).status).toBe(422);
  });

  it('refuses a reading whose point is not there', async () => {
    const { roundId: _, sequence: __, receivedAt: ___, personId: ____, ...reading } = rows.readings[0]!;
    const body = {
      roundId,
      strike: null,
      readings: [{ ...reading, id: randomUUID(), pointId: randomUUID() }],
    };
    expect((await post('/api/readings', JSON.stringify(body))).faults[0]!.message).toContain('not there any more');
  });

  it('keeps a line the server refuses on the tape, with the reason', async () => {
    const { page, context } = await openWindow(browser, server.address);
    await page.goto(`/jobs/${jobId}/rounds/${roundId}`);
    await page.route('**/api/readings', (route) =>
      route.fulfill({
        status: 422,
        contentType: 'application/json',
        body: '{"faults":[{"path":"x","message":"the gauge is on strike"}]}',
      }),
    );
    await page.getByLabel('Reading', { exact: true }).fill('F1L h 500');
    await page.keyboard.press('Enter');
    await page.getByText('Not taken: the gauge is on strike').waitFor();
    await context.close();
  });

  it('delivers a line once when the server comes back, also after a reload', async () => {
    const { page, context } = await openWindow(browser, server.address);
    await page.goto(`/jobs/${jobId}/rounds/${roundId}`);
    await page.route('**/api/readings', (route) => route.abort());
    await page.getByLabel('Reading', { exact: true }).fill('F1L h 501.5');
    await page.keyboard.press('Enter');
    await page.locator('[data-state=waiting]').waitFor();
    await page.reload();
    await page.locator('[data-state=waiting]').waitFor();
    await page.unroute('**/api/readings');
    await page.locator('[data-state=waiting]').waitFor({ state: 'detached' });
    const csv = await (await fetch(`${server.address}/api/jobs/${jobId}/readings`)).text();
    expect(csv.split('F1L h 501.5').length - 1).toBe(1);
    await context.close();
  });

  it('refuses a photograph that is too large, and a file that is no photograph', async () => {
    const { page, context } = await openWindow(browser, server.address);
    await page.goto(`/jobs/${jobId}/log`);
    await page.getByLabel('What was found').fill('Rust behind the plate');
    await page.locator('input[type=file]').setInputFiles({
      name: 'huge.jpg',
      mimeType: 'image/jpeg',
      buffer: randomBytes(16 * 1024 * 1024),
    });
    await page.getByRole('button', { name: 'Write it into the log' }).click();
    await page.getByText(/huge.jpg has 16.0 MB; at most 15 MB are kept/).waitFor();
    await page.locator('input[type=file]').setInputFiles({
      name: 'page.jpg',
      mimeType: 'image/jpeg',
      buffer: Buffer.from('<html>not a picture</html>'),
    });
    await page.getByRole('button', { name: 'Write it into the log' }).click();
    await page.getByText(/not a photograph, or it is damaged/).waitFor();
    expect(await page.getByLabel('What was found').inputValue()).toBe('Rust behind the plate');
    const picture = await sharp({
      create: { width: 64, height: 64, channels: 3, background: '#123456' },
    })
      .png()
      .toBuffer();
    await page.locator('input[type=file]').setInputFiles({ name: 'plate.png', mimeType: 'image/png', buffer: picture });
    await page.getByRole('button', { name: 'Write it into the log' }).click();
    await page.getByRole('img', { name: 'plate.png' }).waitFor();
    await context.close();
  });

  it('tells the later of two tabs that edit one row, and keeps its text', async () => {
    const [first, second] = await Promise.all([
      openWindow(browser, server.address),
      openWindow(browser, server.address),
    ]);
    for (const { page } of [first, second]) {
      await page.goto(`/jobs/${jobId}/chart`);
      await page.getByLabel('Search the points').fill('K3');
      await page.getByRole('button', { name: 'Edit point K3' }).click();
    }
    await first.page.getByLabel('Name').fill('Tunnel hole, first tab');
    await first.page.getByRole('button', { name: 'Save' }).click();
    await first.page.getByText('Tunnel hole, first tab').waitFor();
    await second.page.getByLabel('Name').fill('Tunnel hole, second tab');
    await second.page.getByRole('button', { name: 'Save' }).click();
    await second.page.getByText(/Somebody else changed this row/).waitFor();
    await second.page.getByText(/name Tunnel hole, first tab/).waitFor();
    expect(await second.page.getByLabel('Name').inputValue()).toBe('Tunnel hole, second tab');
    await second.page.getByRole('button', { name: 'Write mine over theirs' }).click();
    await second.page.getByRole('cell', { name: 'Tunnel hole, second tab' }).waitFor();
    await first.context.close();
    await second.context.close();
  });

  it('shows HTML in a name as text and neutralises a formula in the CSV', async () => {
    const { page, context } = await openWindow(browser, server.address, {
      person: '=HYPERLINK("x")',
    });
    await page.goto('/jobs/new');
    await page.getByLabel('Name of the job').fill('<img src=x onerror=document.title="owned">');
    await page.getByRole('button', { name: 'Start the job' }).click();
    await page.getByText('The chart is empty').waitFor();
    expect(await page.title()).toBe('Vinkel');
    await page.goto(`/jobs/${jobId}/rounds/${roundId}`);
    await page.getByLabel('Reading', { exact: true }).fill('F1L w -410.5');
    await page.keyboard.press('Enter');
    await page.locator('[data-state=waiting]').waitFor({ state: 'detached' });
    const csv = await (await fetch(`${server.address}/api/jobs/${jobId}/readings`)).text();
    const line = csv.split('\n').find((each) => each.includes('F1L w -410.5'))!;
    expect(line).toContain(`"'=HYPERLINK(""x"")"`);
    expect(line).toContain(',-410.5,');
    await context.close();
  });

  it('takes a file of thousands of readings a thousand at a time, and says how much is left', async () => {
    const { page, context } = await openWindow(browser, server.address);
    await page.goto(`/jobs/${jobId}/rounds/${roundId}`);
    await page.getByRole('tab', { name: 'Files' }).click();
    const file = `point,kind,value\n${Array.from({ length: 1004 }, (_, i) => `F1L,height,${200 + i / 100}\n`).join('')}`;
    await page
      .getByLabel('Readings from a CSV')
      .setInputFiles({ name: 'many.csv', mimeType: 'text/csv', buffer: Buffer.from(file) });
    await page.getByText('Rows 1 to 1000 of 1004').waitFor();
    await page.getByRole('button', { name: 'Rows after' }).click();
    await page.getByText('Rows 1001 to 1004 of 1004').waitFor();
    await page.getByRole('button', { name: 'Take all 4' }).click();
    await page.getByText('Taken: 4 readings.').waitFor();
    await expect.poll(() => page.locator('[data-state=waiting]').count()).toBe(0);
    const csv = await (await fetch(`${server.address}/api/jobs/${jobId}/readings`)).text();
    expect(csv.match(/F1L,.*,210\.03,/g)).toHaveLength(1);
    await context.close();
  });

  it('says that an address leads nowhere', async () => {
    const { page, context } = await openWindow(browser, server.address);
    for (const path of [`/jobs/${randomUUID()}`, '/jobs/x', `/jobs/${jobId}/rounds/${randomUUID()}`]) {
      await page.goto(path);
      await page.getByText('There is nothing at this address').waitFor();
    }
    await context.close();
  });
});
