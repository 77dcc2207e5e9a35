import type { Browser, BrowserContext, Page } from 'playwright-core';

export { launch } from '../../scripts/browser.mjs';

/** A machine that others take four fifths of is slow, not wrong: how quick the program is, benchmarks say. */
const PATIENCE = 60_000;

export interface Choices {
  readonly words?: 'uk' | 'us';
  readonly units?: 'mm' | 'in16' | 'in32';
  readonly sheet?: 'day' | 'dark';
  readonly person?: string;
  /** It keeps pages for when the program is gone, as every window of a user does: that costs a load of all files, and some pages. */
  readonly keeps?: boolean;
}

/**
 * A page asked for has come only when every part of it is in its place: until then a part may be there twice, once drawn
 * and once hidden, where a window heard of something just then.
 */
export function whole(page: Page): void {
  const inPlace = async <Answer>(coming: Promise<Answer>): Promise<Answer> => {
    const answer = await coming;
    await page.waitForFunction(() => document.querySelector('[hidden][id^="S:"]') === null);
    return answer;
  };
  const [goto, reload, goBack] = [page.goto.bind(page), page.reload.bind(page), page.goBack.bind(page)];
  page.goto = (...asked) => inPlace(goto(...asked));
  page.reload = (...asked) => inPlace(reload(...asked));
  page.goBack = (...asked) => inPlace(goBack(...asked));
}

/** A window of the browser with a user's choices made; page errors fail the test that looks. */
export async function openWindow(
  browser: Browser,
  address: string,
  { keeps = false, ...choices }: Choices = {},
): Promise<{ context: BrowserContext; page: Page; errors: string[] }> {
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    baseURL: address,
    serviceWorkers: keeps ? 'allow' : 'block',
  });
  const value = JSON.stringify({
    words: 'uk',
    units: 'mm',
    sheet: 'day',
    person: 'Ronja',
    ...choices,
  });
  await context.addCookies([{ name: 'vinkel', value: encodeURIComponent(value), url: address }]);
  context.on('page', whole);
  context.setDefaultTimeout(PATIENCE);
  const page = await context.newPage();
  const errors: string[] = [];
  page.on('pageerror', (error) => errors.push(`${error.stack ?? error.message} at ${page.url()}`));
  return { context, page, errors };
}

/** What the page still waits for, nothing where it stands still: run in the page. */
function stirring(): string {
  const { dataset } = document.documentElement;
  if (dataset.alive !== location.pathname) return `it came to life at ${dataset.alive ?? 'no address'}`;
  if (dataset.working !== undefined) return 'it works at something';
  // A part of the page that has come is hidden until it is put in its place.
  const part = document.querySelector('template[id^="B:"], [hidden][id^="S:"], [data-fetching]');
  return part === null ? '' : `of a part there is only ${part.outerHTML.slice(0, 120)}`;
}

/** Waits until the page has come to life and has worked out what it shows. */
export async function settled(page: Page): Promise<void> {
  await page.getByRole('main').waitFor();
  const end = Date.now() + PATIENCE;
  // What has just come may ask for more: it stands still when it is seen to twice, a moment apart.
  for (let seen = 0; seen < 2;) {
    // A page that is just being left answers nothing.
    const why = await page.evaluate(stirring).catch(() => 'it is being left');
    seen = why === '' ? seen + 1 : 0;
    if (seen === 0 && Date.now() > end) throw new Error(`${page.url()} never stands still: ${why}`);
    if (seen < 2) await page.waitForTimeout(seen === 0 ? 40 : 80);
  }
}

/** Enter, and once more where the line is asked about. */
export async function pressEnter(page: Page): Promise<void> {
  await page.keyboard.press('Enter');
  const asked = page.locator('#entry-say[role=alert]', { hasText: 'Enter again' });
  if ((await asked.count()) > 0) await page.keyboard.press('Enter');
}

/** Types a line into the reading field and waits until it stands on the tape, acknowledged. */
export async function typeLine(page: Page, line: string): Promise<void> {
  const before = await page.locator('[data-line]').count();
  await page.getByLabel('Reading', { exact: true }).fill(line);
  await pressEnter(page);
  await page.locator('[data-line]').nth(before).waitFor();
  await page.locator('[data-state=waiting]').waitFor({ state: 'detached' });
}

/** Gives a reason for whatever is open in the dialog that signs. */
export async function acceptOpen(page: Page): Promise<void> {
  for (const reason of await page.locator('[data-open] input').all()) await reason.fill('handed over as it is');
}

/** Everything that is looked at before the first stroke with a rig is so. */
export async function clearRig(page: Page): Promise<void> {
  const checks = page.getByRole('region', { name: /Before the first stroke/ });
  await checks.waitFor();
  for (const box of await checks.getByRole('checkbox').all()) await box.check();
  await checks.getByRole('button', { name: 'All of it is so' }).click();
}
