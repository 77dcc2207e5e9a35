import { mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Browser, Page } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makeShop } from '@/server/shops/shops';
import { demoArchive } from '../../scripts/demo-archive.mjs';
import { faultsOf } from '../support/accessibility';
import { launch, openWindow, settled } from '../support/browser';
import { demoRows } from '../support/demo-rows';
import { startCluster, type Cluster } from '../support/postgres';
import { removeAll } from '../support/remove';
import { send, Server } from '../support/server';

const JOBS = ['solbris', 'kvist'] as const;

/** Two shops on one database server, each with a program of its own; the first has the demo's jobs. */
describe('two shops on one server', () => {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'vinkel-shops-'));
  const jobs = JOBS.map(demoRows);
  let cluster: Cluster;
  let browser: Browser;
  let [north, south]: Server[] = [];
  let [here, there]: Page[] = [];
  const errors: string[] = [];
  beforeAll(async () => {
    [cluster, browser] = await Promise.all([startCluster(), launch()]);
    const owners = await cluster.create();
    const made = [...(await makeShop(owners, 'North')), ...(await makeShop(owners, 'South'))];
    [north, south] = await Promise.all(
      made.map(({ name, url }) =>
        Server.start({ folder: path.join(folder, name), env: { VINKEL_DATABASE: url, VINKEL_PAGES: '0' } }),
      ),
    );
    for (const name of JOBS)
      expect((await send(north!, '/api/archive?as=new', await demoArchive(name))).status).toBe(200);
    const windows = [
      await openWindow(browser, north!.address, { person: 'Ronja' }),
      await openWindow(browser, south!.address, { person: 'Nils' }),
    ];
    [here, there] = windows.map(({ page }) => page);
    errors.push(...windows.flatMap((each) => each.errors));
  });
  afterAll(async () => {
    await browser.close();
    for (const server of [north, south]) await server?.stop();
    await cluster.remove();
    removeAll(folder);
  });

  /** A route's path with what the first shop has in place of its names; of the first job that has all of them. */
  function filled(route: string): string | undefined {
    for (const rows of jobs) {
      const known: Readonly<Record<string, string | undefined>> = {
        job: rows.jobs[0]!.id,
        round: rows.rounds.at(-1)?.id,
        pull: rows.pulls[0]?.id,
        joint: rows.joints[0]?.id,
        photograph: rows.photographs[0]?.id,
        bench: rows.benches[0]?.id,
        template: rows.templates[0]?.id,
        kind: 'csv',
        shared: rows.jobs[0]!.id,
      };
      const names = [...route.matchAll(/\[(\w+)\]/g)].map(([, name]) => name!);
      if (names.every((name) => known[name])) return route.replace(/\[(\w+)\]/g, (_, name: string) => known[name]!);
    }
    return undefined;
  }

  /** Every page and every route that gives something, as the program's own folders have them. */
  const routes = readdirSync('src/app', { recursive: true, encoding: 'utf8' })
    .filter((file) => /(page\.tsx|route\.ts)$/.test(file))
    .filter(
      (file) =>
        file.endsWith('page.tsx') || /export (async function|const) GET/.test(readFileSync(`src/app/${file}`, 'utf8')),
    )
    .map((file) => `/${path.dirname(file)}`.replace(/\/\.$/, '/'))
    .sort();
  /** What none of the other shop's answers may hold: names that were typed, and identities. */
  const secrets = jobs.flatMap((rows) => [
    ...[rows.jobs[0]!.id, rows.jobs[0]!.name, rows.jobs[0]!.owner],
    ...rows.rounds.map(({ id }) => id),
    ...rows.benches.map(({ name }) => name),
  ]);
  const ask = (server: Server, route: string) =>
    fetch(server.address + route, { headers: { accept: 'text/html' }, signal: AbortSignal.timeout(60_000) });

  it('give each other nothing on any route, whatever identities are asked for', async () => {
    expect(routes.length).toBeGreaterThan(45);
    const answered: string[] = [];
    for (const route of routes) {
      const way = filled(route);
      if (way === undefined) continue;
      const response = await ask(south!, way);
      // What stays open tells nothing but who is there.
      const text = route.endsWith('/live') ? '' : await response.text();
      await response.body?.cancel().catch(() => undefined);
      // What was asked for stands in the address, and so in the page that says that it is not there.
      const told = secrets.filter((secret) => secret && !way.includes(secret) && text.includes(secret));
      expect(told, route).toEqual([]);
      if (/\[(?!kind)/.test(route) && !route.endsWith('/live')) expect(response.status, route).toBe(404);
      if ((await ask(north!, way).then(async (own) => (await own.body?.cancel(), own.status))) === 200)
        answered.push(route);
    }
    // The shop itself is answered there, but for what it has none of: else none of this would mean anything.
    expect(routes.filter((route) => filled(route) && !answered.includes(route))).toEqual([
      '/api/jobs/[job]/record/signed',
      '/api/shared/[shared]',
      '/api/templates/[kind]',
    ]);
  });

  it('write nothing among what is the other’s', async () => {
    const [rows] = jobs as [(typeof jobs)[0]];
    const [reading] = rows.readings.slice(-1);
    const { roundId, sequence: _, personId: __, receivedAt: ___, ...told } = reading!;
    const entry = {
      roundId,
      readings: [{ ...told, id: crypto.randomUUID(), lineId: crypto.randomUUID() }],
      strike: null,
    };
    const refused = await send(south!, '/api/readings', JSON.stringify(entry));
    expect(await refused.text()).toMatch(/round/);
    expect(refused.status).toBe(422);
    // The same job is another one there, and to take its place says nothing of the first.
    const brought = await send(south!, '/api/archive?as=replace', await demoArchive('solbris'));
    expect(brought.status, await brought.clone().text()).toBe(200);
    const chart = async (server: Server) => (await ask(server, `/api/jobs/${rows.jobs[0]!.id}/chart`)).json();
    expect(await chart(north!)).toEqual(await chart(south!));
  });

  it('have what one of them shares on purpose: a chart, a body and a bench, until it shares them no more', async () => {
    await here!.goto('/kept');
    await here!.getByText('North', { exact: true }).waitFor();
    await here!.getByRole('link', { name: 'between shops' }).click();
    const offer = async (what: string, name: string) => {
      await here!.getByRole('button', { name: 'Share …' }).click();
      await here!.getByLabel('What', { exact: true }).selectOption({ label: what });
      if (what === 'Chart') {
        // One that has none is refused in words, and what was typed stays.
        await here!.getByLabel('Of which job').selectOption({ label: jobs[1]!.jobs[0]!.name });
        await here!.getByLabel(/^Name by which/).fill(name);
        await here!.getByRole('button', { name: 'Share it' }).click();
        await here!.getByText('this job has no chart to share').waitFor();
        await here!.getByLabel('Of which job').selectOption({ label: jobs[0]!.jobs[0]!.name });
      } else await here!.getByLabel(/^Name by which/).fill(name);
      await here!.getByRole('button', { name: 'Share it' }).click();
      await here!.getByRole('cell', { name, exact: true }).waitFor();
    };
    await offer('Chart', 'Estate, two doors');
    await offer('Bench', 'Long rails');
    await there!.goto('/benches');
    const offered = there!.getByLabel('or what another shop shares');
    await offered.selectOption({ label: 'Long rails, of North' });
    await there!
      .getByRole('heading', { name: jobs.flatMap(({ benches }) => benches)[0]!.name })
      .first()
      .waitFor();
    // A chart is looked at before it is taken, as one of a file.
    await there!.goto(`/jobs/${jobs[0]!.jobs[0]!.id}/chart`);
    await there!.getByRole('button', { name: 'Bring in a chart' }).click();
    await there!.getByLabel('or what another shop shares').selectOption({ label: 'Estate, two doors, of North' });
    await there!
      .getByText(/\d+ (new|same)/)
      .first()
      .waitFor();
    await there!.goto('/shared');
    await there!.getByRole('cell', { name: 'Long rails' }).waitFor();
    // No name of the people of a shop comes to another.
    const told = await (await ask(south!, '/api/shared')).text();
    expect(told).toContain('Long rails');
    expect(told).not.toContain('Ronja');
    expect(await there!.getByRole('button', { name: 'Share no more' }).count()).toBe(0);
    await here!
      .getByRole('row', { name: /Long rails/ })
      .getByRole('button', { name: 'Share no more' })
      .click();
    await here!.getByRole('cell', { name: 'Long rails' }).waitFor({ state: 'detached' });
    await there!.goto('/benches');
    await there!
      .getByRole('heading', { name: jobs.flatMap(({ benches }) => benches)[0]!.name })
      .first()
      .waitFor();
    await there!.goto('/shared');
    await there!.getByRole('cell', { name: 'Estate, two doors' }).waitFor();
    expect(await there!.getByRole('cell', { name: 'Long rails' }).count()).toBe(0);
    for (const page of [here!, there!]) {
      await settled(page);
      expect(await faultsOf(page, 'day')).toEqual([]);
    }
    expect(errors).toEqual([]);
  });
});
