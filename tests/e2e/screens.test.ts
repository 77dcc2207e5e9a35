import type { Browser, Page } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TERMS } from '@/core/report/vocabulary/terms';
import { faultsOf } from '../support/accessibility';
import { launch, openWindow, settled } from '../support/browser';
import { demoRows } from '../support/demo-rows';
import { withDemo } from '../support/shared';

const solbris = demoRows('solbris');
const lodd = demoRows('lodd');
const kvist = demoRows('kvist');
const [s, l, k] = [solbris, lodd, kvist].map((rows) => `/jobs/${rows.jobs[0]!.id}`);

type Screen = readonly [name: string, path: string, tab?: string];

const SCREENS: readonly Screen[] = [
  ['jobs', '/'],
  ['new job', '/jobs/new'],
  ['instruments', '/instruments'],
  ['benches', '/benches'],
  ['on the floor', '/floor'],
  ['people', '/people'],
  ['check a record', '/check'],
  ['kept data', '/kept'],
  ['day sheet', s!],
  ['day sheet of a finished job', l!],
  ['calendar', `${s}/calendar`],
  ['chart', `${s}/chart`],
  ['job without a chart', `${k}/chart`],
  ['log', `${s}/log`],
  ['look', `${s}/look`],
  ['set up', `${s}/set-up`],
  ['set up on rails', `${l}/set-up`],
  ['set up without a chart', `${k}/set-up`],
  ['measure', `${s}/measure`],
  ['tape', `${s}/rounds/${solbris.rounds[1]!.id}`],
  ['tape without a chart', `${k}/rounds/${kvist.rounds[0]!.id}`],
  ['sheet', `${s}/rounds/${solbris.rounds[0]!.id}/sheet`],
  ['left against right', `${s}/rounds/${solbris.rounds[0]!.id}/sides`],
  ['in space', `${s}/rounds/${solbris.rounds[0]!.id}/space`],
  ['references', `${s}/references`],
  ['references of a job without a chart', `${k}/references`],
  ['over time', `${l}/time`],
  ['brace', `${s}/brace`],
  ['cut', `${s}/cut`],
  ['pull', `${s}/pull`],
  ['pump', `${s}/pull/${solbris.pulls[0]!.id}`],
  ['fit', `${s}/fit`],
  ['weld', `${s}/weld`],
  ['weld, a card for the floor', `${s}/weld/${solbris.weldSeams[0]!.id}`],
  ['verify', `${l}/verify`],
  ['record', `${l}/record`],
  ['signed record', `${l}/record?record=1`],
  ['record as it stands', `${s}/record?record=now`],
  ['first walk on a picture', `${k}/lay-out`],
];

/** What stands behind a tab of a screen. */
const TABS: readonly Screen[] = ['Panels', 'Fit board', 'Checks'].map((tab) => [`fit, ${tab}`, `${s}/fit`, tab]);

const BRITISH = new RegExp(
  `\\b(${Object.values(TERMS)
    .map(({ uk }) => uk)
    .join('|')})s?\\b`,
  'gi',
);
const METRIC = /\d ?mm\b|\bmm\b|°C|\bmillimet/gi;

/** What a page says in British words or in millimetres to somebody who chose others; it is spoilt by it. */
async function foreign(page: Page, behindTabs: boolean): Promise<string[]> {
  if (behindTabs) for (const each of await page.getByRole('tab').all()) await each.click();
  const text = await page.evaluate(() => {
    const fields = [...document.querySelectorAll<HTMLInputElement>('input[placeholder]')];
    const drawn = [...document.querySelectorAll('svg text')].map(({ textContent }) => textContent);
    // What somebody typed stands as it was typed.
    for (const typed of document.querySelectorAll('td.font-mono, [data-line], [data-typed]')) typed.remove();
    return [document.body.innerText, ...fields.map(({ placeholder }) => placeholder), ...drawn].join('\n');
  });
  const told = text.replace(/the (100|50) mm mark/g, '');
  return [...told.matchAll(BRITISH), ...told.matchAll(METRIC)].map(([hit]) => hit);
}

describe('every screen of the demo', () => {
  let server: { readonly address: string };
  let browser: Browser;
  beforeAll(async () => {
    [server, browser] = await Promise.all([withDemo(), launch()]);
  });
  afterAll(async () => {
    await browser.close();
  });

  describe('by day and in a dark shop', () => {
    type Window = Awaited<ReturnType<typeof openWindow>>;
    /** Two of them: while one is looked through, the other fetches its page. */
    const free: Window[] = [];
    const all = [...SCREENS, ...TABS].map(([name, path, tab = '']) => [name, path, tab] as const);
    beforeAll(async () => {
      for (let i = 0; i < 2; i++) {
        const window = await openWindow(browser, server.address, { words: 'us', units: 'in16' });
        await window.page.addInitScript(() => {
          document.addEventListener('securitypolicyviolation', ({ violatedDirective, blockedURI }) =>
            setTimeout(() => {
              throw new Error(`policy: ${violatedDirective} ${blockedURI}`);
            }),
          );
        });
        free.push(window);
      }
    });
    afterAll(() => Promise.all(free.map(({ context }) => context.close())));

    it.concurrent.each(all)(
      '%s is accessible, in the words and units that were chosen, and throws nothing',
      async (_, path, tab) => {
        const window = free.pop()!;
        const { page, errors } = window;
        try {
          await page.goto(path);
          await settled(page);
          if (tab !== '') await page.getByRole('tab', { name: tab }).click();
          expect(await faultsOf(page, 'day')).toEqual([]);
          // The sheet is the same page in other tones.
          await page.evaluate(() => (document.documentElement.dataset.sheet = 'dark'));
          expect(await faultsOf(page, 'dark')).toEqual([]);
          expect(errors).toEqual([]);
          expect(await foreign(page, tab === '')).toEqual([]);
        } finally {
          errors.splice(0);
          free.push(window);
        }
      },
    );
  });

  it.each([
    [1024, 768],
    [390, 844],
  ])('stay within a window of %i × %i', async (width, height) => {
    const { page, context } = await openWindow(browser, server.address);
    await page.setViewportSize({ width, height });
    for (const path of [s!, `${s}/rounds/${solbris.rounds[1]!.id}`, '/', '/jobs/new']) {
      await page.goto(path);
      await settled(page);
      expect(await page.evaluate(() => document.documentElement.scrollWidth), path).toBeLessThanOrEqual(width);
    }
    await context.close();
  });

  it.each([
    [390, 844, 'in16'],
    [1024, 768, 'mm'],
    [640, 400, 'mm'],
    [640, 400, 'in16'],
  ] as const)('keep prompt, field, keypad and three lines in sight at %i × %i in %s', async (width, height, units) => {
    const { page, context } = await openWindow(browser, server.address, { units });
    await page.setViewportSize({ width, height });
    await page.goto(`${s}/rounds/${solbris.rounds[1]!.id}`);
    await page.locator('[data-prompt]').waitFor();
    const inSight = async (selector: string, nth = -1) => {
      const box = await page.locator(selector).nth(nth).boundingBox();
      return (
        box !== null && box.y >= -1 && box.y + box.height <= height + 1 && box.x >= 0 && box.x + box.width <= width
      );
    };
    const wanted = async () => [
      await inSight('[data-prompt]'),
      await inSight('[data-main-field]'),
      ...(await Promise.all([-1, -2, -3].map((nth) => inSight('[data-line]', nth)))),
    ];
    await expect.poll(wanted).toEqual([true, true, true, true, true]);
    await page.getByRole('button', { name: 'Keypad' }).click();
    const keys = await page.getByRole('group', { name: 'Keypad' }).getByRole('button').count();
    expect(keys).toBe(units === 'mm' ? 15 : 30);
    const pad = async () =>
      Promise.all(Array.from({ length: keys }, (_, i) => inSight('[aria-label=Keypad] button', i)));
    await expect.poll(async () => [...(await wanted()), ...(await pad())].filter((seen) => !seen)).toEqual([]);
    await context.close();
  });

  it('speak the words and the units the user chose', async () => {
    const { page, context } = await openWindow(browser, server.address, {
      words: 'us',
      units: 'in16',
    });
    await page.goto(`${s}/chart`);
    await page
      .getByText(/A pillar lower hinge bolt/)
      .first()
      .waitFor();
    await page.getByLabel('Search the points').fill('rocker');
    await page.getByText('Rocker panel front jacking hole').first().waitFor();
    await page.getByLabel('Search the points').fill('F2R');
    await page.getByRole('cell', { name: '15 3/4' }).waitFor();
    await context.close();
  });

  it('show the list of keys and reach the field by the keyboard', async () => {
    const { page, context } = await openWindow(browser, server.address);
    await page.goto(`${s}/chart`);
    await page.getByRole('heading', { level: 1 }).waitFor();
    await page.locator('body').press('?');
    await page.getByRole('dialog', { name: 'Keys' }).waitFor();
    // Whoever types on at once: the key comes while the dialog is still giving the focus back.
    await page.evaluate(() => {
      const press = () => document.body.dispatchEvent(new KeyboardEvent('keydown', { key: '/', bubbles: true }));
      const gone = new MutationObserver(() => {
        if (document.querySelector('[role=dialog]')) return;
        gone.disconnect();
        press();
      });
      gone.observe(document.body, { childList: true, subtree: true });
    });
    await page.keyboard.press('Escape');
    await page.getByRole('dialog').waitFor({ state: 'detached' });
    await page.waitForTimeout(100);
    expect(await page.evaluate(() => document.activeElement?.getAttribute('aria-label'))).toBe('Search the points');
    await context.close();
  });

  it('find the demo’s hidden damage outside, and the dent at the B post', async () => {
    const { page, context } = await openWindow(browser, server.address);
    await page.goto(`${s}/rounds/${solbris.rounds[0]!.id}/sheet`);
    await page.getByText(/Aligned on/).waitFor();
    for (const code of ['R4L', 'R3L', 'D1L', 'B1L'])
      expect(await page.locator(`tr[data-code=${code}]`).getAttribute('data-verdict')).toBe('outside');
    // Only its length and height were read: the lengths taped to it locate it all the same.
    expect(await page.locator('tr[data-code=D2R]').getAttribute('data-verdict')).not.toBeNull();
    expect(await page.locator('tr[data-code=K5]').textContent()).toContain('not measured');
    await page.getByRole('tab', { name: 'Control' }).click();
    await page.getByLabel('How far undisturbed points may be off').selectOption('2.5');
    const found = page.locator('[aria-busy=false] [data-undisturbed]');
    await found.waitFor();
    const [agreeing, moved] = (await found.textContent())!.split('Moved, if so:');
    expect(agreeing).toMatch(/^3\d of 47 located points agree/);
    for (const code of ['R4L', 'R3L', 'D1L', 'B1L']) expect(moved).toContain(code);
    await context.close();
  });
});
