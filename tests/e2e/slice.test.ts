import { readFileSync } from 'node:fs';
import type { Browser, Page } from 'playwright-core';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { acceptOpen, clearRig, launch, openWindow, settled, typeLine } from '../support/browser';
import { textOfPdf } from '../support/pdf';
import { Server } from '../support/server';

const POINTS = `id;name;side;x;y;z;tolerance
F1L;Chassis leg hole;left;0;-400;230;3
F1R;Chassis leg hole;right;0;400;230;3
S1L;Sill front hole;left;760;-690;150;3
S1R;Sill front hole;right;760;690;150;3
R1L;Rear leg hole;left;3240,0;-430;345;3
R1R;Rear leg hole;right;3240,0;430;345;3
`;
const DIMENSIONS = `from;to;value;tolerance;tip or level
F1L;F1R;800;3;tip
S1L;S1R;1380;4;level
F1L;R1L;3242,2;3;tip
`;
const csv = (name: string, text: string) => ({
  name,
  mimeType: 'text/csv',
  buffer: Buffer.from(text),
});

/** The verdicts of a round's sheet, by point or dimension code. */
const verdicts = (page: Page): Promise<Record<string, string>> =>
  page.$$eval('tr[data-verdict]', (rows) =>
    Object.fromEntries(rows.map((row) => [row.getAttribute('data-code'), row.textContent])),
  );

describe('the whole slice, as a new user walks it', () => {
  let server: Server;
  let other: Server;
  let browser: Browser;
  let page: Page;
  let errors: string[];
  let roundUrl = '';
  beforeAll(async () => {
    [server, other, browser] = await Promise.all([Server.start(), Server.start(), launch()]);
    ({ page, errors } = await openWindow(browser, server.address, { keeps: true }));
  });
  afterAll(async () => {
    await browser.close();
    await Promise.all([server.remove(), other.remove()]);
  });

  it('starts empty and creates a job', async () => {
    await page.goto('/');
    await page.getByText('No shell is on the bench yet').waitFor();
    await page.getByRole('link', { name: 'New job' }).click();
    await page.getByRole('button', { name: 'Start the job' }).click();
    await page.getByText('Give the job a name').waitFor();
    await page.getByLabel('Name of the job').fill('Solbris test shell');
    await page.getByLabel('Owner').fill('Lighthouse society');
    await page.getByLabel('The driver sits on the').selectOption('left');
    await page.getByRole('button', { name: 'Start the job' }).click();
    await page.getByText('The chart is empty').waitFor();
  });

  it('shows the faults of a chart at their rows and takes nothing until they are mended', async () => {
    await page.getByRole('button', { name: 'Bring in a chart' }).click();
    const bad = POINTS.replace('S1L;Sill front hole;left;760;-690', 'S1L;Sill front hole;left;760;690').replace(
      'R1R;Rear leg hole;right;3240,0',
      'R1L;Rear leg hole;right;',
    );
    await page
      .locator('input[type=file]')
      .last()
      .setInputFiles([csv('points.csv', bad), csv('dimensions.csv', `${DIMENSIONS}F1L;X9;100;3;tip\n`)]);
    await page.getByText('left-hand points have y below zero').waitFor();
    await page.getByText('"R1L" stands here twice').waitFor();
    await page.getByText('x is missing').waitFor();
    await page.getByText('no point "X9"').waitFor();
    expect(await page.getByRole('button', { name: /^Take all/ }).isDisabled()).toBe(true);
  });

  it('takes a sound chart, semicolons and decimal commas and all', async () => {
    await page
      .locator('input[type=file]')
      .last()
      .setInputFiles([csv('points.csv', POINTS), csv('dimensions.csv', DIMENSIONS)]);
    await page.getByText('9 rows, all sound').waitFor();
    await page.getByRole('button', { name: 'Take all 9 rows' }).click();
    await page.getByText('Taken: 9 new, 0 changed, 0 gone, 0 the same.').waitFor();
    await page.getByRole('tab', { name: 'Points (6)' }).waitFor();
  });

  it('edits a point in the table', async () => {
    await page.getByRole('button', { name: 'Edit point S1L' }).click();
    await page.getByLabel('Height from the datum plane').fill('twelve');
    await page.getByRole('button', { name: 'Save' }).click();
    await page.getByText('"twelve" is not a length').waitFor();
    await page.getByLabel('Height from the datum plane').fill('151');
    await page.getByRole('button', { name: 'Save' }).click();
    await page.getByRole('cell', { name: '151.0' }).waitFor();
  });

  it('opens a round and takes readings by the keyboard alone', async () => {
    await page.getByRole('link', { name: 'Measure' }).click();
    await page.getByRole('button', { name: 'New round' }).click();
    await page.getByLabel('Temperature, °C').fill('16,5');
    await page.getByRole('button', { name: 'Start measuring' }).click();
    await page.getByText('The tape is empty').waitFor();
    roundUrl = page.url();
    for (const line of [
      'F1L 1.2 -400.8 540',
      'F1R 0.4 399 541',
      'S1L 760.5 -690 460',
      'S1R 761 690 461.5',
      'R1L 3228 -424 664',
      'R1R 3240 h 655 w 431',
    ])
      await typeLine(page, line);
    for (const line of ['F1L F1R 800.4', 'r1l-f1l 3230']) await typeLine(page, line);
    expect(await page.locator('[data-line]').count()).toBe(8);
  });

  it('refuses a line that says nothing, at the field, and keeps it', async () => {
    const field = page.getByLabel('Reading', { exact: true });
    await field.fill('F1L S1L twelve');
    await page.keyboard.press('Enter');
    await page.getByText('"twelve" is not a length').waitFor();
    expect(await field.inputValue()).toBe('F1L S1L twelve');
    await field.fill('');
  });

  it('strikes a line when it is corrected, and keeps both', async () => {
    await typeLine(page, 'S1L S1R 1483');
    await page.getByLabel('Reading', { exact: true }).press('ArrowUp');
    await page.getByText('Corrects “S1L S1R 1483”').waitFor();
    await page.getByLabel('Reason of the correction').selectOption('misheard');
    await page.getByLabel('Reading', { exact: true }).fill('S1L S1R 1380.6');
    await page.keyboard.press('Enter');
    await page.getByText(/struck by Ronja.*misheard/).waitFor();
    expect(await page.locator('[data-state=struck]').count()).toBe(1);
  });

  it('offers back what was half typed after the tab is killed', async () => {
    await page.getByLabel('Reading', { exact: true }).fill('R1L R1R 85');
    await page.reload();
    await page.getByText('This was half typed before').waitFor();
    expect(await page.getByLabel('Reading', { exact: true }).inputValue()).toBe('R1L R1R 85');
    await page.getByLabel('Reading', { exact: true }).fill('');
    expect(await page.locator('[data-line]').count()).toBe(10);
  });

  it('judges points only once control points are held, on the sheet and in the list alike', async () => {
    await page.getByRole('link', { name: 'Sheet', exact: true }).click();
    await page.getByText('Not aligned: no control points are chosen').waitFor();
    for (const code of ['F1L', 'F1R', 'S1L', 'S1R']) await page.getByLabel(`Hold ${code} as control point`).check();
    await page.getByText(/Aligned on F1L, F1R, S1L, S1R/).waitFor();
    expect(await page.locator('tr[data-code=R1L]').getAttribute('data-verdict')).toBe('outside');
    await page.locator('tr[data-code=R1L] button').click();
    await page
      .getByRole('region', { name: 'Why' })
      .getByText(/forward/)
      .waitFor();
    await page.getByRole('group', { name: /selected R1L/ }).focus();
    await page.keyboard.press('ArrowUp');
    await page.getByRole('group', { name: /selected R1R/ }).waitFor();
    await page.getByRole('tab', { name: /Dimensions/ }).click();
    expect(await page.locator('tr[data-code=D3]').getAttribute('data-verdict')).toBe('outside');
    expect(await page.locator('tr[data-code=D1]').getAttribute('data-verdict')).toBe('inside');
    await page.reload();
    await page.getByText(/Aligned on F1L, F1R, S1L, S1R/).waitFor();
  });

  it('logs a decision with its reason and a photograph', async () => {
    await page.getByRole('link', { name: 'Log' }).click();
    await page.getByText('decision', { exact: true }).click();
    await page.getByLabel('What was decided').fill('Measure from the chart <b>only</b>');
    await page.getByRole('button', { name: 'Write it into the log' }).click();
    await page.getByText('a decision needs its reason').waitFor();
    await page.getByLabel('Reason', { exact: true }).fill('The front is sound');
    await page.getByLabel('Points or dimensions it is about').fill('F1L D1');
    const picture = await sharp({
      create: { width: 1200, height: 800, channels: 3, background: '#886644' },
    })
      .jpeg()
      .toBuffer();
    await page
      .locator('input[type=file]')
      .setInputFiles({ name: 'front.jpg', mimeType: 'image/jpeg', buffer: picture });
    await page.getByRole('button', { name: 'Write it into the log' }).click();
    await page.getByText('Measure from the chart <b>only</b>').waitFor();
    await page.getByRole('img', { name: 'front.jpg' }).waitFor();
  });

  it('plans a brace with its length, fits it, and shows it on the day sheet', async () => {
    await page.getByRole('link', { name: /Brace/ }).click();
    await page.getByRole('button', { name: 'Plan a brace' }).click();
    await page.getByLabel('From point').fill('S1L');
    await page.getByLabel('To point').fill('R1R');
    await page.getByText(/between the points, rising/).waitFor();
    await page.getByLabel('Dimensions it holds').fill('D2');
    await page.getByRole('button', { name: 'Plan it' }).click();
    await page.locator('tr[data-code=X1]').getByRole('button', { name: 'Fitted' }).click();
    await page.getByRole('button', { name: 'Yes, fitted' }).click();
    await page.locator('tr[data-code=X1]').getByRole('button', { name: 'Removed' }).waitFor();
    await page.getByRole('link', { name: 'Day sheet' }).click();
    await page.getByText(/holds D2/).waitFor();
  });

  it('plans a pull from the deviation and shows its spring-back', async () => {
    await page.getByRole('link', { name: /Pull/ }).click();
    await page.getByRole('button', { name: 'Plan a pull' }).click();
    await page.getByLabel('Point that is to move').fill('R1L');
    await page.getByText(/Back by .* rearward/).waitFor();
    await page.getByRole('button', { name: 'Plan it' }).click();
    await page.getByRole('link', { name: 'At the pump' }).click();
    await clearRig(page);
    await page.getByRole('button', { name: 'Clear', exact: true }).click();
    await page.getByLabel(/Reads under load/).fill('3236');
    await page.getByRole('button', { name: 'Take the reading' }).click();
    await page.getByLabel(/Reads after release/).fill('3231.5');
    await page.getByRole('button', { name: 'Take the reading' }).click();
    await page.locator('[data-stroke="1"]').waitFor();
    await page.getByRole('link', { name: 'Back to the plan' }).click();
    await page.locator('article[data-code=P1]').getByText('−4.5').waitFor();
    await page.locator('article[data-code=P1]').getByText('+3.5').waitFor();
  });

  it('names a seam and reads its gaps on the tape', async () => {
    await page.getByRole('link', { name: /Fit/ }).click();
    await page.getByRole('button', { name: 'Name a seam' }).click();
    await page.getByLabel('Code').fill('DL');
    await page.getByLabel('Name', { exact: true }).fill('Door rear edge');
    await page.getByLabel('Stations, in order').fill('bottom, top');
    await page.getByRole('button', { name: 'Name it' }).click();
    await page.getByRole('table', { name: 'DL, left' }).waitFor();
    await page.goto(roundUrl);
    await typeLine(page, 'DL.1 5.3 0.2');
    await typeLine(page, 'DL.2 2.4');
    await page.getByRole('link', { name: /Fit/ }).click();
    expect(await page.locator('[data-station="DL.2"]').textContent()).toContain('2.4');
  });

  it('places the seam on the shell, refuses an end that is none, and reads along it station by station', async () => {
    await page.getByRole('button', { name: 'Correct …' }).first().click();
    await page.getByLabel('First station near').fill('S1L');
    await page.getByLabel('Last near').fill('S9L');
    await page.getByRole('button', { name: 'Keep it so' }).click();
    await page.getByText('no point “S9L” in this job').waitFor();
    await page.getByLabel('Last near').fill('R1L');
    await page.getByRole('button', { name: 'Keep it so' }).click();
    await page.getByRole('dialog').waitFor({ state: 'detached' });
    await settled(page);
    await page.locator('[data-seam=DL]').first().waitFor();
    const along = page.getByRole('region', { name: 'Read along a seam' });
    await along.getByLabel(/^DL\.1 bottom/).press('Enter');
    await along.getByText('type the gap, then the flush').waitFor();
    await along.getByRole('button', { name: 'Simulated caliper' }).click();
    expect(await along.getByLabel(/^DL\.1 bottom/).inputValue()).toMatch(/^-?[\d.]+ [-−]?[\d.]+$/);
    await along.getByLabel(/^DL\.1 bottom/).fill('5.1 0.4');
    await along.getByLabel(/^DL\.1 bottom/).press('Enter');
    await along.getByLabel(/^DL\.2 top/).fill('-0.5');
    await along.getByLabel(/^DL\.2 top/).press('Enter');
    await along.getByText('That seam is read.').waitFor();
    // Read twice in one round it is the mean of both.
    await page.locator('[data-station="DL.1"]', { hasText: '5.2' }).waitFor();
    await settled(page);
    await page.reload();
    await page.locator('[data-station="DL.1"]', { hasText: '5.2' }).waitFor();
  });

  it('measures again after welding and gives the verdict', async () => {
    await page.getByRole('link', { name: 'Measure' }).click();
    await page.getByRole('button', { name: 'New round' }).click();
    await page.getByLabel('Name', { exact: true }).fill('Welded, cold');
    await page.getByLabel('State of the shell').selectOption('cold');
    await page.getByRole('button', { name: 'Start measuring' }).click();
    await page.getByText('The tape is empty').waitFor();
    for (const line of ['F1L F1R 800.2', 'S1L S1R 1380.4', 'F1L R1L 3241.6']) await typeLine(page, line);
    await page.getByRole('link', { name: /Verify/ }).click();
    await page.getByText(/2 changed within their limit, 1 beyond it, 0 undecided/).waitFor();
    expect(await page.locator('tr[data-code=D3]').getAttribute('data-verdict')).toBe('moved');
    await page.locator('tr[data-code=D3]').getByRole('link', { name: 'Accept …' }).click();
    await page.getByRole('heading', { name: 'Accept D3' }).waitFor();
    await page.getByLabel('Reason', { exact: true }).fill('It is where the chart wants it');
    await page.getByRole('button', { name: 'Write it into the log' }).click();
    await page.getByText(/accepted at/).waitFor();
  });

  let before: Record<string, string>;
  it('signs the record and makes a PDF of it', async () => {
    await page.getByRole('link', { name: 'Record' }).click();
    await page.getByText('not signed yet').waitFor();
    await page.getByRole('button', { name: 'Sign …' }).click();
    await page.getByText('Signed by Ronja').waitFor();
    await page.getByRole('button', { name: 'Sign it' }).click();
    // What is open is accepted with a reason first.
    await page.getByText('settle it, or say why it is signed all the same').first().waitFor();
    await acceptOpen(page);
    await page.getByRole('button', { name: 'Sign it' }).click();
    await page.getByRole('link', { name: /Record 1: Ronja/ }).waitFor();
    for (const paper of ['a4', 'letter']) {
      const pdf = await page.request.get(
        `${page.url().replace('/jobs/', '/api/jobs/').replace(/\?.*/, '')}?paper=${paper}&record=1`,
      );
      expect(pdf.headers()['content-type']).toBe('application/pdf');
      const bytes = await pdf.body();
      const text = textOfPdf(bytes);
      expect(text).toContain('Solbris test shell');
      expect(text).toContain('It is where the chart wants it');
      expect(text).toContain('two standard deviations');
    }
    await page.goto(`${roundUrl}/sheet`);
    await page.getByText(/Aligned on/).waitFor();
    before = await verdicts(page);
  });

  it('exports the job and imports it into a fresh folder with the same numbers', async () => {
    await page.getByRole('link', { name: 'Record', exact: true }).click();
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: 'Whole job, zip' }).click(),
    ]);
    const zip = readFileSync(await download.path());
    const fresh = await openWindow(browser, other.address, { keeps: true });
    await fresh.page.goto('/');
    await fresh.page
      .locator('input[type=file]')
      .setInputFiles({ name: 'job.zip', mimeType: 'application/zip', buffer: zip });
    await fresh.page.getByRole('heading', { name: 'Solbris test shell' }).waitFor();
    await fresh.page.goto(`${roundUrl.replace(server.address, other.address)}/sheet`);
    await fresh.page.getByText(/Aligned on F1L, F1R, S1L, S1R/).waitFor();
    expect(await verdicts(fresh.page)).toEqual(before);
    await fresh.page.getByRole('link', { name: 'Log' }).click();
    await fresh.page.getByRole('img', { name: 'front.jpg' }).waitFor();
    await fresh.page.goto('/');
    await fresh.page
      .locator('input[type=file]')
      .setInputFiles({ name: 'job.zip', mimeType: 'application/zip', buffer: zip });
    await fresh.page.getByText('is here already').waitFor();
    await fresh.context.close();
  });

  it('threw no error in the browser on the way', () => expect(errors).toEqual([]));
});
