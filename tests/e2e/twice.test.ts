import type { Browser, Locator, Page, Route } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { loadDemoJobs } from '../../scripts/demo-archive.mjs';
import { Job } from '@/core/shell/job/job';
import type { JobRows } from '@/core/shell/job/job-rows';
import { loadJob } from '@/db/jobs';
import { openStore } from '@/server/store';
import { acceptOpen, launch, openWindow, pressEnter, settled } from '../support/browser';
import { demoRows } from '../support/demo-rows';
import { Server } from '../support/server';

/** The rows of all jobs in a folder that no program has open. */
async function rowsIn(folder: string): Promise<JobRows[]> {
  const { database, close } = await openStore(folder);
  const ids = await database.query<{ id: string }>('select id from job');
  const rows = await Promise.all(ids.map(async ({ id }) => (await loadJob(database, id))!));
  await close();
  return rows;
}

/** Things that stand twice in a row for the same thing, or were made twice with the same words. */
function doubled(rows: JobRows): string[] {
  const job = Job.of(rows);
  // What was done, taken back and done again was done once.
  const workEvents = rows.workEvents.filter(({ id }) => !job.withdrawal(id));
  const runs = <Row>(what: string, list: readonly Row[], of: (row: Row) => string, says: (row: Row) => string) => {
    const last = new Map<string, string>();
    return list.flatMap((row) => {
      const again = last.get(of(row)) === says(row);
      last.set(of(row), says(row));
      return again ? [`${what} ${says(row)}`] : [];
    });
  };
  const same = <Row>(what: string, list: readonly Row[], says: (row: Row) => string) =>
    list.map(says).flatMap((each, i, all) => (all.indexOf(each) < i ? [`${what} ${each}`] : []));
  return [
    ...runs(
      'brace',
      job.braceEvents,
      ({ braceId }) => braceId,
      ({ kind }) => kind,
    ),
    ...runs(
      'pull',
      workEvents.filter(({ itemId }) => rows.pulls.some(({ id }) => id === itemId)),
      ({ itemId }) => itemId,
      ({ kind, key }) => `${kind} ${key}`,
    ),
    ...runs(
      'step',
      rows.stepEvents,
      ({ stepId }) => stepId,
      ({ kind, until, note }) => `${kind} ${until} ${note}`,
    ),
    ...runs(
      'round',
      rows.roundEvents,
      ({ roundId }) => roundId,
      ({ kind }) => kind,
    ),
    ...runs(
      'withdrawal',
      rows.withdrawals,
      ({ rowId }) => rowId,
      ({ kind }) => kind,
    ),
    ...runs(
      'edit',
      rows.changes,
      ({ rowId }) => rowId,
      ({ after }) => JSON.stringify(after),
    ),
    ...same('entry', rows.logEntries, ({ text, supersedes }) => `${text} ${supersedes}`),
    ...same('added step', rows.steps, ({ rung, title }) => `${rung} ${title}`),
    ...same('tag', rows.partTags, ({ part }) => part),
    ...same('reading', rows.readings, ({ roundId, raw, quantity, phase, lineId }) =>
      [roundId, raw, quantity, phase, rows.readings.find((each) => each.lineId === lineId)!.takenAt].join(' '),
    ),
    ...same('strike', rows.readingStrikes, ({ readingId }) => readingId),
    ...same('keep', rows.readingKeeps, ({ readingId }) => readingId),
    ...same('choice', rows.referenceChoices, ({ pointId, dimensionId, at }) => `${pointId} ${dimensionId} ${at}`),
    ...same(
      'tick',
      workEvents,
      ({ itemId, kind, key, value, at: when }) => `${itemId} ${kind} ${key} ${value ?? ''} ${when.slice(0, 16)}`,
    ),
    ...same('mount', rows.mounts, ({ pointId, name }) => `${pointId} ${name}`),
    ...same('record', rows.signedRecords, ({ snapshot: { madeAt: _, ...snapshot } }) => JSON.stringify(snapshot)),
  ];
}

const [s, l, k] = ['solbris', 'lodd', 'kvist'].map((name) => demoRows(name as 'lodd'));
const at = (rows: JobRows, path = '') => `/jobs/${rows.jobs[0]!.id}${path}`;
const round = (rows: JobRows, number: number) => at(rows, `/rounds/${rows.rounds[number - 1]!.id}`);
const OF_THE_ESTATE: readonly string[] = [
  // Before the list of pulls, where it may be taken away.
  at(s!, `/pull/${s!.pulls[0]!.id}`),
  ...['', '/log', '/references', '/brace', '/pull', '/fit', '/weld'].map((path) => at(s!, path)),
  ...[round(s!, 2), `${round(s!, 1)}/sheet`],
];
/** In another window at the same time, so that waiting for one is not waiting for the other. */
const OF_THE_OTHERS: readonly string[] = [
  ...[at(l!, '/record?record=now'), at(l!, '/verify'), at(l!, '/chart'), at(l!, '/measure')],
  ...[at(k!, '/lay-out'), at(k!, '/set-up'), '/benches', '/instruments', '/'],
];

/** Buttons of one kind are pressed once: what they are about is left out of their names. */
const kindOf = (name: string) => name.replace(/[A-Z]{1,3}\d*[LR]?\b|\d+/g, '#').trim();
const MOST_OF_A_KIND = 1;

/** What the buttons are called; disabled ones, which have nothing to do twice, nothing. */
const labelsOf = (buttons: Locator): Promise<string[]> =>
  buttons.evaluateAll((all) =>
    all.map((each) => (each.matches(':disabled') ? '' : (each.ariaLabel ?? (each as HTMLElement).innerText))),
  );

/** Presses every kind of button of a screen twice, and what its dialogs decide too; nothing is typed but reasons. */
async function pressAllTwice(page: Page, path: string): Promise<number> {
  await page.goto(path);
  await settled(page);
  const pressed = new Map<string, number>();
  const buttons = page.getByRole('main').getByRole('button');
  for (let more = true; more;) {
    more = false;
    const labels = await labelsOf(buttons);
    for (const [i, label] of labels.entries()) {
      const kind = kindOf(label);
      if (kind === '' || (pressed.get(kind) ?? 0) >= MOST_OF_A_KIND) continue;
      more = true;
      // What an answer of the server has put there since is another button.
      if ((await labelsOf(buttons))[i] !== label) break;
      pressed.set(kind, (pressed.get(kind) ?? 0) + 1);
      await buttons
        .nth(i)
        .dblclick({ timeout: 300, noWaitAfter: true })
        .catch(() => undefined);
      await answerDialog(page);
      if (new URL(page.url()).pathname !== new URL(path, page.url()).pathname) await page.goto(path);
      break;
    }
  }
  return pressed.size;
}

/** All of some screens in a window of their own, which throws nothing: how many buttons there were. */
async function pressIn(browser: Browser, server: Server, paths: readonly string[]): Promise<number> {
  const { page, errors } = await openWindow(browser, server.address);
  // A field that was gone before it was filled is none that is wrong: nobody waits for it long.
  page.setDefaultTimeout(20_000);
  await page.addInitScript(() => {
    window.print = () => undefined;
  });
  let pressed = 0;
  for (const path of paths) pressed += await pressAllTwice(page, path);
  expect(errors).toEqual([]);
  await page.context().close();
  return pressed;
}

/** Fills what a dialog asks for and presses twice what decides it, then leaves it. */
async function answerDialog(page: Page): Promise<void> {
  const dialog = page.getByRole('dialog').last();
  if ((await dialog.count()) === 0) return;
  for (const field of await dialog.locator('input:not([type]):not([readonly]), textarea').all())
    if ((await field.inputValue().catch(() => 'gone')) === '') await field.fill('pressed twice').catch(() => undefined);
  const deciding = dialog.getByRole('button').last();
  await deciding.dblclick({ timeout: 300, noWaitAfter: true }).catch(() => undefined);
  await page.waitForTimeout(60);
  for (let i = 0; i < 3 && (await page.getByRole('dialog').count()) > 0; i++) await page.keyboard.press('Escape');
}

describe('a button pressed twice', () => {
  let server: Server;
  let browser: Browser;
  beforeAll(async () => {
    [server, browser] = await Promise.all([Server.start(), launch()]);
    await loadDemoJobs(server.address);
  });
  afterAll(async () => {
    await browser.close();
    await server.remove();
  });

  it('does its thing once, on every screen', { timeout: 600_000 }, async () => {
    const before = (await Promise.all(['solbris', 'lodd', 'kvist'].map((name) => demoRows(name as 'lodd')))).flatMap(
      doubled,
    );
    const pressed = await Promise.all([OF_THE_ESTATE, OF_THE_OTHERS].map((paths) => pressIn(browser, server, paths)));
    expect(pressed[0]! + pressed[1]!).toBeGreaterThan(90);
    await server.stop();
    const after = (await rowsIn(server.folder)).flatMap(doubled);
    expect(after.filter((each) => !before.includes(each))).toEqual([]);
  });
});

describe('a careless user, with double clicks and two windows, from an empty folder', () => {
  let server: Server;
  let browser: Browser;
  let page: Page;
  let other: Page;
  const errors: string[] = [];
  beforeAll(async () => {
    [server, browser] = await Promise.all([Server.start(), launch()]);
    const window = await openWindow(browser, server.address, { person: 'Nils', keeps: true });
    page = window.page;
    other = await window.context.newPage();
    for (const each of [page, other]) {
      each.on('pageerror', (error) => errors.push(error.message));
    }
  });
  afterAll(async () => {
    await browser.close();
    await server.remove();
  });

  it('starts one job, one chart, one round', async () => {
    await page.goto('/jobs/new');
    await page.getByLabel('Name of the job').fill('In a hurry');
    await page.getByRole('button', { name: 'Start the job' }).dblclick();
    await page.getByText('The chart is empty').waitFor();
    await page.getByRole('button', { name: 'Bring in a chart' }).first().click();
    const text =
      'id,x,y,z\nF1L,0,-400,540\nF1R,0,400,540\nS1L,760,-690,150\nS1R,760,690,150\nR1L,3240,-420,330\nR1R,3240,420,330\n';
    await page
      .locator('input[type=file]')
      .setInputFiles({ name: 'points.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
    await page.getByRole('button', { name: 'Take all 6 rows' }).dblclick();
    await page.getByText('Taken: 6 new').waitFor();
    await page.getByRole('link', { name: 'Measure' }).click();
    await page.getByRole('button', { name: 'New round' }).click();
    await page.getByRole('button', { name: 'Start measuring' }).dblclick();
    await page.getByLabel('Reading', { exact: true }).waitFor();
    await other.goto(page.url());
    await other.getByLabel('Reading', { exact: true }).waitFor();
  });

  it('writes each line once, whichever window it is typed in', async () => {
    // The other window hears of a line, and is typed in, before this one has its answer: both send from one outbox.
    const late = async (route: Route) => {
      const response = await route.fetch();
      await page.waitForTimeout(300);
      await route.fulfill({ response });
    };
    for (const each of [page, other]) await each.route('**/api/readings', late);
    const lines = ['F1L 0 -400 540', 'F1R 0 400 540', 'S1L 760 -690 150', 'S1R 760 690 150', 'R1L 3240 -420 330'];
    for (const [i, line] of [...lines, 'R1R 3240 420 330'].entries()) {
      const window = i % 2 ? other : page;
      await window.getByLabel('Reading', { exact: true }).fill(line);
      await pressEnter(window);
      await window.keyboard.press('Enter');
      for (const each of [page, other]) await each.locator('[data-line]').nth(i).waitFor();
    }
    expect(await page.locator('[data-line]').count()).toBe(6);
    for (const each of [page, other]) await each.unrouteAll({ behavior: 'wait' });
  });

  it('closes the round once; the other window takes nothing more', async () => {
    await page.getByRole('button', { name: 'Close the round' }).click();
    await page.getByRole('button', { name: /^Close it/ }).dblclick();
    await page.getByRole('button', { name: 'Open the round again' }).waitFor();
    // Closed is closed in every window, without being asked for anew.
    await other.locator('[aria-label="Reading"]:disabled').waitFor();
    await other.getByRole('button', { name: 'Open the round again' }).waitFor();
  });

  it('signs one record over what is open', async () => {
    await page.getByRole('link', { name: 'Record', exact: true }).click();
    await page.getByRole('button', { name: 'Sign …' }).click();
    await acceptOpen(page);
    await page.getByRole('button', { name: 'Sign it' }).dblclick();
    await page.getByRole('link', { name: /Record 1: Nils/ }).waitFor();
    expect(errors).toEqual([]);
    await browser.close();
    await server.stop();
    const [rows] = await rowsIn(server.folder);
    expect([rows!.rounds.length, rows!.signedRecords.length, rows!.references.length, rows!.points.length]).toEqual([
      1, 1, 1, 6,
    ]);
    expect(rows!.readings).toHaveLength(18);
    expect(rows!.roundEvents.map(({ kind }) => kind)).toEqual(['closed']);
    expect(doubled(rows!)).toEqual([]);
  });
});
