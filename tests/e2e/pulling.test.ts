import type { Browser, Page } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { clearRig, launch, openWindow, settled } from '../support/browser';
import { demoRows } from '../support/demo-rows';
import { withDemo } from '../support/shared';

const estate = demoRows('solbris');
const job = `/jobs/${estate.jobs[0]!.id}`;

/** Where the block at the far end of a pull is drawn in plan. */
async function blockOf(page: Page, code: string): Promise<readonly [number, number]> {
  const block = page.locator(`[data-pulls=plan] [data-pull=${code}] rect`).last();
  await block.scrollIntoViewIfNeeded();
  const { x, y, width, height } = (await block.boundingBox())!;
  return [x + width / 2, y + height / 2];
}

describe('pulling', () => {
  let server: { readonly address: string };
  let browser: Browser;
  beforeAll(async () => {
    [server, browser] = await Promise.all([withDemo('solbris'), launch()]);
  });
  afterAll(async () => {
    await browser.close();
  });

  const proposals = (page: Page) => page.locator('[data-proposed]');
  const card = (page: Page, code: string) => page.locator(`article[data-code=${code}]`);

  it('proposes pulls, looks for others when one is declined, and plans one with what it is to be held at', async () => {
    const { page, context } = await openWindow(browser, server.address);
    await page.goto(`${job}/pull`);
    await settled(page);
    const first = (await proposals(page).first().getAttribute('data-proposed'))!;
    await proposals(page).first().getByRole('button', { name: 'Decline …' }).click();
    await page.getByRole('button', { name: 'Decline it' }).click();
    await page.getByText('say why not').waitFor();
    await page.getByLabel('Why not').fill('no way to anchor there');
    await page.getByRole('button', { name: 'Decline it' }).click();
    await page.locator(`[data-proposed="${first}"]`).waitFor({ state: 'detached' });
    await page.getByText(/no way to anchor there/).waitFor();
    await settled(page);
    await page.getByRole('button', { name: 'Allow again' }).click();
    await page.locator(`[data-proposed="${first}"]`).waitFor();

    await proposals(page).first().getByRole('button', { name: 'Take' }).click();
    await card(page, 'P2').waitFor();
    await settled(page);
    expect(await card(page, 'P2').textContent()).toMatch(/Next: pull to [\d.]+ under load/);
    await page.getByRole('button', { name: 'Side by side' }).click();
    expect(await page.locator('svg [data-pulls=plan]').count()).toBe(2);
    // Two plans of one's own: the left without the second pull, the right without what is proposed.
    const of = (name: string) => page.getByRole('group', { name: `Pulls of the ${name} plan` });
    const table = page.getByRole('region', { name: 'What the plans leave' });
    await of('right').getByRole('button', { name: 'Proposed' }).click();
    const alike = (await table.getByRole('row').nth(1).textContent())!;
    await of('left').getByRole('button', { name: 'P2' }).click();
    expect(await table.getByRole('row').nth(1).textContent()).not.toBe(alike);
    await context.close();
  });

  it('goes by a bar through several plates, and keeps its anchor on the floor while it is turned', async () => {
    const { page, context } = await openWindow(browser, server.address);
    await page.goto(`${job}/pull`);
    await settled(page);
    await card(page, 'P2').getByRole('button', { name: 'Plates' }).click();
    const field = page.getByLabel('Bar also through plates at');
    await field.fill('R2L 30 R9Z');
    await page.getByRole('button', { name: 'Keep these' }).click();
    await page.getByText('no point “R9Z” in this job').waitFor();
    expect(await field.inputValue()).toBe('R2L 30 R9Z');
    await field.fill('R2L 30 R1L 20');
    await page.getByRole('button', { name: 'Keep these' }).click();
    await card(page, 'P2').getByText('R2L 30 %, R1L 20 % of the force').waitFor();
    await settled(page);

    // And its anchor in the floor stays at its height while the pull is turned.
    await card(page, 'P2').getByRole('button', { name: 'Correct …' }).click();
    await page.getByLabel('Anchored to').selectOption('floor');
    await page.getByLabel(/Chain so long/).fill('2000');
    await page.getByRole('button', { name: 'Keep it so' }).click();
    await card(page, 'P2').getByText('anchor in the floor').waitFor();
    const [x, y] = await blockOf(page, 'P2');
    await page.mouse.click(x, y);
    const turning = page.getByRole('region', { name: 'Turn a pull' });
    await turning.getByText('The anchor in the floor from the point').waitFor();
    await turning.getByLabel('Up').fill('-600');
    await turning.getByLabel('Up').press('Enter');
    await turning.getByRole('button', { name: 'Keep this direction' }).waitFor();
    const heading = turning.getByRole('slider', { name: /In plan/ });
    for (let i = 0; i < 3; i++) await heading.press('ArrowRight');
    expect(await turning.getByLabel('Up').inputValue()).toMatch(/^[-−]600/);
    await turning.getByRole('button', { name: 'Keep this direction' }).click();
    await page.getByText('nothing is kept until you say so').waitFor();
    await settled(page);
    await card(page, 'P2')
      .getByText(/to the anchor in the floor: it stands .* away in plan and 600.* lower/)
      .waitFor();
    await context.close();
  });

  it('turns a pull: the prediction follows at once, and is kept when one says so', async () => {
    const { page, context } = await openWindow(browser, server.address);
    await page.goto(`${job}/pull`);
    await settled(page);
    const ghost = () =>
      page.locator('[data-ghost=plan] line').evaluateAll((all) => all.map((line) => line.getAttribute('y1')).join());
    const before = await ghost();
    // By the mouse: the block at its far end, taken towards the rear.
    const [x, y] = await blockOf(page, 'P2');
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x + 60, y - 10, { steps: 4 });
    await page.getByText('Direction of P2').waitFor();
    expect(await ghost()).not.toBe(before);
    await page.mouse.up();
    const heading = page.getByRole('slider', { name: /In plan/ });
    const angle = Number(await heading.getAttribute('aria-valuenow'));
    await heading.press('ArrowRight');
    expect(Number(await heading.getAttribute('aria-valuenow'))).toBe(angle + 1);
    await page.getByText(/Reckoned with what yields|No pull that way/).waitFor();
    await page.getByRole('button', { name: 'Keep this direction' }).click();
    await page.getByText('nothing is kept until you say so').waitFor();
    await settled(page);
    await page.reload();
    await settled(page);
    const [atX, atY] = await blockOf(page, 'P2');
    await page.mouse.click(atX, atY);
    await page.getByText('Direction of P2').waitFor();
    expect(Number(await heading.getAttribute('aria-valuenow'))).toBe(angle + 1);
    await context.close();
  });

  it('is pulled stroke by stroke on the simulated shell, a mistyped reading undone, until it is there', async () => {
    const { page, context } = await openWindow(browser, server.address);
    const [pull] = estate.pulls;
    await page.goto(`${job}/pull/${pull!.id}`);
    await settled(page);
    await clearRig(page);
    const stroke = async (number: number) => {
      await page.getByRole('heading', { name: `Stroke ${number}`, exact: true }).waitFor();
      await page.getByRole('button', { name: 'Clear', exact: true }).click();
      await page.getByRole('heading', { name: `Stroke ${number}: pull until it reads` }).waitFor();
    };
    await stroke(2);
    await page
      .getByText(/Never harder than [\d.]+ kN, [\d]+ bar at the pump/)
      .first()
      .waitFor();
    await page.getByRole('button', { name: 'Take the reading' }).click();
    await page.getByText('type what it reads').waitFor();
    await page.getByLabel(/Reads under load/).fill('3342');
    await page.getByRole('button', { name: 'Take the reading' }).click();
    await page.getByText(/past its mark: let go/).waitFor();
    await page.getByRole('button', { name: /Undo “R4L l 3342”/ }).click();
    await page.getByRole('heading', { name: 'Stroke 2: pull until it reads' }).waitFor();

    const simulate = () => page.getByRole('button', { name: 'Read the simulated shell' }).click();
    await simulate();
    await page.getByRole('heading', { name: 'Stroke 2: under load' }).waitFor();
    await simulate();
    await page.locator('[data-stroke="2"]').waitFor();
    for (let number = 3; number < 12; number++) {
      await settled(page);
      if ((await page.getByRole('region', { name: 'There' }).count()) > 0) break;
      await stroke(number);
      await simulate();
      await page.getByRole('heading', { name: `Stroke ${number}: under load` }).waitFor();
      await simulate();
      await page.locator(`[data-stroke="${number}"]`).waitFor();
    }
    await page.getByRole('region', { name: 'There' }).getByRole('button', { name: 'Done' }).click();
    await page.getByText('This pull is over.').waitFor();
    await page.goto(`${job}/record?record=now`);
    await settled(page);
    await page
      .getByText(/P1: .*R4L/)
      .first()
      .waitFor();
    await context.close();
  });

  it('of a point that this round did not read begins with reading where it stands', async () => {
    const { page, context } = await openWindow(browser, server.address);
    await page.goto(`${job}/pull`);
    await settled(page);
    await page.getByRole('button', { name: 'Plan a pull' }).click();
    await page.getByLabel('Point that is to move').fill('R3L');
    await page.getByText(/Back by 12.9/).waitFor();
    await page.getByLabel('Held at these points').fill('C1L C9X');
    await page.getByRole('button', { name: 'Plan it' }).click();
    await page.getByText('no point "C9X" in this job').waitFor();
    await page.getByLabel('Held at these points').fill('C1L C1R');
    await page.getByRole('button', { name: 'Plan it' }).click();
    await card(page, 'P3').getByRole('link', { name: 'At the pump' }).click();
    await settled(page);
    await clearRig(page);
    await page.getByRole('heading', { name: 'Before it is loaded' }).waitFor();
    await page.getByRole('button', { name: 'Read the simulated shell' }).click();
    await page.getByRole('button', { name: 'Clear', exact: true }).click();
    await page.getByRole('heading', { name: 'Stroke 1: pull until it reads' }).waitFor();
    await page.getByRole('button', { name: 'Read the simulated shell' }).click();
    await page.getByRole('heading', { name: 'Stroke 1: under load' }).waitFor();
    await context.close();
  });
});
