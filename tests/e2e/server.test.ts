import { mkdtempSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Browser, Page } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openPostgres } from '@/db/postgres';
import { demoArchive } from '../../scripts/demo-archive.mjs';
import { demoRows } from '../support/demo-rows';
import { launch, openWindow, pressEnter, settled, typeLine } from '../support/browser';
import { startCluster, type Cluster } from '../support/postgres';
import { removeAll } from '../support/remove';
import { send, Server } from '../support/server';

/** Two processes of the program on one database server, a window of each. */
describe('the program on a database server', () => {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'vinkel-two-'));
  let cluster: Cluster;
  let url: string;
  let servers: Server[] = [];
  let browser: Browser;
  let [here, there]: Page[] = [];
  const errors: string[] = [];
  const rows = demoRows('kvist');
  const job = `/jobs/${rows.jobs[0]!.id}`;
  const round = `${job}/rounds/${rows.rounds.at(-1)!.id}`;
  beforeAll(async () => {
    [cluster, browser] = await Promise.all([startCluster(), launch()]);
    url = await cluster.create();
    // The one makes its pages in a process beside, the other itself.
    const start = (name: string, pages: string) =>
      Server.start({ folder: path.join(folder, name), env: { VINKEL_DATABASE: url, VINKEL_PAGES: pages } });
    // Both at once: one of them makes the schema, the other waits for it.
    servers = await Promise.all([start('a', '1'), start('b', '0')]);
    const windows = await Promise.all(
      servers.map(({ address }, k) =>
        openWindow(browser, address, { person: k === 0 ? 'Nils' : 'Ronja', keeps: true }),
      ),
    );
    [here, there] = windows.map(({ page }) => page);
    errors.push(...windows.flatMap((each) => each.errors));
  });
  afterAll(async () => {
    await browser.close();
    for (const server of servers) await server.stop();
    await cluster.remove();
    removeAll(folder);
  });

  it('says where its data is, and no password', async () => {
    expect(servers[0]!.said).toMatch(/Database: 127\.0\.0\.1:\d+\/vinkel_/);
    await here!.goto('/kept');
    await here!.getByText('Database server').waitFor();
    expect(await here!.getByRole('button', { name: 'Take a backup now' }).count()).toBe(0);
  });

  it('has one set of jobs in both processes, and shows in each what is done in the other, and who is there', async () => {
    const brought = await send(servers[0]!, '/api/archive?as=new', await demoArchive('kvist'));
    expect(brought.status, await brought.clone().text()).toBe(200);
    await there!.goto('/');
    await there!
      .getByRole('link', { name: new RegExp(rows.jobs[0]!.name) })
      .first()
      .waitFor();
    await here!.goto(round);
    await there!.goto(round);
    await settled(here!);
    await settled(there!);
    await here!.locator('[data-here]', { hasText: 'Ronja' }).waitFor();
    await there!.locator('[data-here]', { hasText: 'Nils' }).waitFor();
    await typeLine(there!, 'P1L h 777.7');
    await here!.locator('[data-line]', { hasText: '777.7' }).waitFor();
  });

  it('goes on when the server was away: words, what was typed waits, and each is there once', async () => {
    await there!.goto(`${job}/weld`);
    await settled(there!);
    await cluster.stop();
    const lines = () => here!.locator('[data-line]', { hasText: '778.8' });
    await here!.getByLabel('Reading', { exact: true }).fill('P1L h 778.8');
    await pressEnter(here!);
    await here!.locator('[data-state=waiting]').waitFor();
    // A page that was never open says what is the matter; one that was is given as it was last.
    const asked = await there!.goto(`${job}/record`);
    expect(asked!.status()).toBe(500);
    await there!.getByRole('heading', { name: 'The database server does not answer' }).waitFor();
    expect((await fetch(`${servers[1]!.address}/api/alive`)).status).toBe(503);
    await cluster.run();
    await here!.locator('[data-state=waiting]').waitFor({ state: 'detached', timeout: 60_000 });
    expect(await lines().count()).toBe(1);
    await there!.getByRole('button', { name: 'Try again' }).click();
    await there!.getByRole('heading', { name: 'The database server does not answer' }).waitFor({ state: 'detached' });
    await here!.reload();
    await lines().first().waitFor();
    expect(await lines().count()).toBe(1);
  });

  it('signs once, also where the network was gone in the middle of it', async () => {
    await here!.goto(`${job}/record`);
    await settled(here!);
    await here!.getByRole('button', { name: /^Sign/ }).first().click();
    const dialog = here!.getByRole('dialog');
    for (const reason of await dialog.locator('[data-open] input').all()) await reason.fill('handed over as it is');
    // It comes to the program, and its answer never comes back.
    let lost = false;
    await here!.route(`**${job}/record`, async (route) => {
      if (lost || route.request().method() !== 'POST') return route.continue();
      lost = true;
      await route.fetch();
      return route.abort();
    });
    const sign = dialog.getByRole('button', { name: /^Sign/ });
    await sign.click();
    await dialog.getByText(/cannot be reached/).waitFor();
    await sign.click();
    await dialog.waitFor({ state: 'detached' });
    const signed = (number: number) =>
      fetch(`${servers[1]!.address}/api${job}/record/signed?record=${number}`).then(({ status }) => status);
    const before = rows.signedRecords.length;
    expect([await signed(before + 1), await signed(before + 2)]).toEqual([200, 404]);
  });

  it('tells a device whose clock is an hour ahead, and gives its lines the program’s time', async () => {
    const late = await there!.context().newPage();
    await late.clock.setSystemTime(Date.now() + 3_600_000);
    await late.goto(round);
    await settled(late);
    await late.getByText('clock is 60 minutes ahead of the program’s').waitFor();
    await typeLine(late, 'P1L h 780.1');
    await late.close();
    const database = openPostgres(url);
    const [reading] = await database.query<{ takenAt: string }>(
      "select taken_at from reading where raw = 'P1L h 780.1'",
    );
    await database.close();
    expect(Math.abs(Date.parse(reading!.takenAt) - Date.now())).toBeLessThan(120_000);
  });

  it('is no fault in any window', () => expect(errors).toEqual([]));
});
