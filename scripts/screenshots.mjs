import { mkdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { launch } from './browser.mjs';

/**
 * `node scripts/screenshots.mjs [view …]`: pictures of the main views into docs/screenshots, from
 * the demo data served at VINKEL_ADDRESS (default http://127.0.0.1:3000); SHOTS chooses another folder.
 */
const address = process.env.VINKEL_ADDRESS ?? 'http://127.0.0.1:3000';
const folder = process.env.SHOTS ?? 'docs/screenshots';

const json = (file) => JSON.parse(readFileSync(path.join('demo/jobs', file), 'utf8'));
const base = (name) => `/jobs/${json(`${name}/job.json`).rows.jobs[0].id}`;
const round = (name, file) => `${base(name)}/rounds/${json(`${name}/rounds/${file}.json`).rows.rounds[0].id}`;
const [solbris, lodd] = ['solbris', 'lodd'].map(base);

/** View: its address, then what differs from a working window by day. */
const VIEWS = {
  'day-sheet': [solbris],
  chart: [`${solbris}/chart`],
  measuring: [round('solbris', '02')],
  'lay-out': [`${base('kvist')}/lay-out`],
  sheet: [`${round('solbris', '01')}/sheet`],
  'sheet-dark-inches-us': [`${round('solbris', '01')}/sheet`, { sheet: 'dark', units: 'in16', words: 'us' }],
  calendar: [`${solbris}/calendar`, { wait: '[data-bar] >> nth=0' }],
  space: [`${round('solbris', '01')}/space?point=R4L`, { wait: '[data-scene] canvas' }],
  references: [`${solbris}/references`],
  time: [`${lodd}/time`],
  brace: [`${solbris}/brace?stage=2`, { press: 'Show without braces' }],
  cut: [`${solbris}/cut`],
  pull: [`${solbris}/pull`, { wait: '[data-proposed] >> nth=0' }],
  'set-up': [`${lodd}/set-up`],
  fit: [`${solbris}/fit`, { click: 'Panels', wait: '[data-face] >> nth=0' }],
  weld: [`${solbris}/weld`, { wait: '[data-layout] >> nth=0' }],
  verify: [`${lodd}/verify`],
  record: [`${lodd}/record?record=1`],
  'tape-phone': [round('kvist', '01'), { width: 390, height: 844 }],
};

const wanted = process.argv.slice(2);
mkdirSync(folder, { recursive: true });
const browser = await launch();
for (const [name, [where, options = {}]] of Object.entries(VIEWS)) {
  if (wanted.length > 0 && !wanted.includes(name)) continue;
  const { width = 1280, height = 800, click, press, wait, ...choices } = options;
  const context = await browser.newContext({ viewport: { width, height }, baseURL: address });
  const value = JSON.stringify({
    words: 'uk',
    units: 'mm',
    sheet: 'day',
    person: 'Ronja',
    ...choices,
  });
  await context.addCookies([{ name: 'vinkel', value: encodeURIComponent(value), url: address }]);
  const page = await context.newPage();
  await page.goto(where);
  await page.waitForLoadState('networkidle');
  await page.waitForTimeout(1500);
  if (click) await page.getByRole('tab', { name: click }).click();
  if (press) await page.getByRole('button', { name: press }).click();
  if (press) await page.waitForTimeout(500);
  if (wait) await page.locator(wait).waitFor();
  if (wait) await page.waitForTimeout(1500);
  await page.evaluate(() => document.fonts.ready);
  await page.screenshot({ path: path.join(folder, `${name}.png`) });
  await context.close();
}
await browser.close();
