import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Browser, Page } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { demoArchive } from '../../scripts/demo-archive.mjs';
import { launch, openWindow, pressEnter } from '../support/browser';
import { demoRows } from '../support/demo-rows';
import { send, Server } from '../support/server';
import { smallDisk } from '../support/small-disk';
import { removeAll } from '../support/remove';

const rows = demoRows('kvist');
const jobId = rows.jobs[0]!.id;
const MB = 1024 * 1024;
const scratch = mkdtempSync(path.join(os.tmpdir(), 'vinkel-trouble-'));

describe('a program in trouble', () => {
  const folder = path.join(scratch, 'data');
  let unmount: (() => void) | undefined;
  let server: Server;
  let browser: Browser;
  let page: Page;
  let errors: string[];
  beforeAll(async () => {
    unmount = smallDisk(folder, 400 * MB);
    [server, browser] = await Promise.all([Server.start({ folder }), launch()]);
    await send(server, '/api/archive', await demoArchive('kvist'));
    ({ page, errors } = await openWindow(browser, server.address, { person: '', keeps: true }));
  });
  afterAll(async () => {
    await browser.close();
    await server.stop('SIGKILL');
    unmount?.();
    removeAll(scratch);
  });

  const readings = async () => (await fetch(`${server.address}/api/jobs/${jobId}/readings`)).text();

  it('says on every page that the disk is full, keeps what is typed and takes it when there is room', async ({
    skip,
  }) => {
    // Where no disk of a size can be made, the journal's own test stands for this one.
    if (!unmount) skip();
    await page.goto(`/jobs/${jobId}/rounds/${rows.rounds[0]!.id}`);
    await page.locator('[data-line]').first().waitFor();
    const ballast = path.join(folder, 'ballast');
    const { statfsSync } = await import('node:fs');
    const { bavail, bsize } = statfsSync(folder);
    writeFileSync(ballast, Buffer.alloc(bavail * bsize - 30 * MB));
    for (const value of [701.1, 702.2]) {
      await page.getByLabel('Reading', { exact: true }).fill(`${rows.points[0]!.code} h ${value}`);
      await pressEnter(page);
    }
    await page.locator('[data-state=waiting]').nth(1).waitFor();
    await page.locator('[data-full]').waitFor();
    expect(await readings()).not.toContain('701.1');
    const other = await page.context().newPage();
    await other.goto(`/jobs/${jobId}/log`);
    await other.locator('[data-full]').waitFor();
    await other.close();
    rmSync(ballast);
    await page.waitForFunction(() => !document.querySelector('[data-state=waiting]'));
    await page.locator('[data-full]').waitFor({ state: 'detached' });
    for (const value of ['701.1', '702.2']) expect((await readings()).split(value).length - 1).toBe(1 * 2);
  });

  it('takes a backup, proves it and brings a job back from it', async () => {
    await page.goto('/kept');
    await page.getByRole('button', { name: 'Take a backup now' }).click();
    const backup = page.locator('details', { hasText: '1 job · proved' });
    await backup.waitFor({ timeout: 60_000 });
    await backup.locator('summary').click();
    await page.getByRole('button', { name: 'Bring it back' }).click();
    await page.getByRole('button', { name: 'Take it as a copy' }).click();
    await page.waitForURL((url) => /^\/jobs\/[0-9a-f-]{36}$/.test(url.pathname) && !url.pathname.includes(jobId));
    await page.getByRole('heading', { name: /\(copy\)/ }).waitFor();
  });

  it('says that its database is damaged, on every page, and builds it anew', async () => {
    const before = await readings();
    await server.stop('SIGKILL');
    rmSync(path.join(folder, 'database', 'PG_VERSION'));
    await server.run();
    for (const where of ['/', `/jobs/${jobId}`]) {
      await page.goto(where);
      await page.getByRole('heading', { name: 'The data folder is damaged' }).waitFor();
    }
    const body = JSON.stringify({ roundId: rows.rounds[0]!.id, readings: [], strike: null });
    expect((await send(server, '/api/readings', body)).status).toBe(503);
    await page.getByText(/a proved backup of .* with Kvist/).waitFor();
    await page.getByRole('button', { name: 'Put the damaged database aside and build it anew' }).click();
    await page.getByRole('heading', { name: /Kvist/ }).waitFor({ timeout: 60_000 });
    expect(await readings()).toBe(before);
    await page.goto('/kept');
    await page.getByText(/built anew from/).waitFor();
    expect(errors).toEqual([]);
  });
});

describe('a start that cannot be', () => {
  it('says what stands in the way of the folder, and what to do', async () => {
    const file = path.join(mkdtempSync(path.join(os.tmpdir(), 'vinkel-start-')), 'file');
    writeFileSync(file, '');
    await expect(Server.start({ folder: path.join(file, 'data') })).rejects.toThrow(
      /cannot be used: a part of its path is a file.*VINKEL_DATA=/,
    );
    const unmount = smallDisk(path.join(scratch, 'read-only'), 10 * MB, ',ro');
    if (!unmount) return;
    await expect(Server.start({ folder: path.join(scratch, 'read-only') })).rejects.toThrow(/can only be read/);
    unmount();
  });

  it('takes the next port where one is taken, and says so', async () => {
    const first = await Server.start();
    const port = Number(new URL(first.address).port);
    const second = await Server.start({ port });
    expect(Number(new URL(second.address).port)).toBeGreaterThan(port);
    expect(second.said).toContain(`Port ${port} is taken by another program: this one is at ${second.address}`);
    await Promise.all([first.remove(), second.remove()]);
  });
});
