import type { Browser, Page } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { launch, openWindow, settled } from '../support/browser';
import { demoRows } from '../support/demo-rows';
import { withDemo } from '../support/shared';

const [estate, coupe] = (['solbris', 'lodd'] as const).map((name) => `/jobs/${demoRows(name).jobs[0]!.id}`);

describe('from the weld to the signature', () => {
  let browser: Browser;
  let page: Page;
  let errors: readonly string[];
  beforeAll(async () => {
    const [server, launched] = await Promise.all([withDemo('solbris', 'lodd'), launch()]);
    browser = launched;
    ({ page, errors } = await openWindow(browser, server.address));
  });
  afterAll(async () => {
    await browser.close();
  });

  const open = async (address: string) => {
    await page.goto(address);
    await settled(page);
  };
  const dialog = () => page.getByRole('dialog');
  const field = (label: string | RegExp) => dialog().getByLabel(label);
  const press = (name: string | RegExp) => dialog().getByRole('button', { name }).click();
  const closed = () => dialog().waitFor({ state: 'detached' });
  const joint = (beside: string) =>
    page.getByRole('article').filter({ has: page.getByRole('heading', { name: beside, exact: true }) });

  it('shows the welds on the shell, and says what a seam is expected to do to the dimensions', async () => {
    await open(`${estate}/weld`);
    const sheet = page.getByRole('figure', { name: 'Welds on the sheet' });
    expect(await sheet.locator('[data-seam-on=plan]').count()).toBe(2);
    await sheet.getByRole('radio', { name: /floor flange/ }).click();
    await sheet.getByText('Left sill, outer, floor flange').first().waitFor();
    const flange = joint('floor flange');
    const said = await flange.locator('[data-effect=CL1]').innerText();
    expect(said).toMatch(/CL1 .*−\d/);
    await joint('rear wing').getByText('Say near which datum points it ends').waitFor();
  });

  it('logs what a joint shrank, and is refused in words where a figure is missing', async () => {
    const foot = joint('A post foot');
    await foot.getByRole('button', { name: 'Log what it shrank' }).click();
    await field(/^Marks/).fill('across 100');
    await press('Log it');
    await dialog()
      .getByText(/say across 100 99.6, or along/)
      .waitFor();
    expect(await field(/^Marks/).inputValue()).toBe('across 100');
    await field(/^Marks/).fill('across 100 99.8, across 80 79.8');
    await press('Log it');
    await closed();
    await foot.locator('[data-marks="2"]').waitFor();
    // One here, and one on the coupé.
    await foot.getByText(/2 joints of this shop logged/).waitFor();
  });

  it('lays two seams in turn with one count over both', async () => {
    const flange = joint('floor flange');
    await flange.getByRole('button', { name: 'Change', exact: true }).click();
    await field('Laid in turn with').selectOption({ label: 'A post foot' });
    await press('Mark it out');
    await closed();
    await flange
      .locator('[data-turns]')
      .getByText(/In turn with the joint at A post foot/)
      .waitFor();
    await joint('A post foot').locator('[data-turns]').waitFor();
    await joint('A post foot').getByRole('link', { name: 'Card for the floor' }).click();
    await page.getByText('in turn with floor flange').waitFor();
  });

  it('works out the order of a seam of many places beside the page, and leaves it off where somebody cancels', async () => {
    await open(`${estate}/weld`);
    const floor = joint('floor');
    await floor.getByRole('button', { name: 'Mark it out' }).click();
    await field('Length of the seam, mm').fill('5000');
    await field('Pitch, mm').fill('25');
    await press('Mark it out');
    await closed();
    const cancel = floor.getByRole('button', { name: 'Cancel' });
    const school = floor.locator('[data-school=coolest]');
    await cancel.or(school).waitFor();
    if (await cancel.isVisible()) await cancel.click({ timeout: 2000 }).catch(() => undefined);
    const again = floor.getByRole('button', { name: 'Work out its order' });
    if (await again.isVisible()) await again.click();
    await school.waitFor();
    expect(await school.innerText()).toMatch(/^\d+:\d\d/);
    await floor.getByRole('link', { name: 'Card for the floor' }).click();
    await page.locator('[data-next="1"]').waitFor();
  });

  it('mends a crack step by step, and tries a rib before it is made', async () => {
    await open(`${estate}/weld`);
    await page.getByRole('button', { name: 'Note a crack' }).click();
    await field(/^Length that shows/).fill('60');
    await press('Note it');
    await dialog().getByText('say where it is').waitFor();
    await field('Where').fill('Right A post');
    await press('Note it');
    await closed();
    const crack = page.locator('[data-crack=CR2]');
    await crack.getByText('Weld 64.0 mm from each hole towards the middle').waitFor();
    const drilled = crack.getByRole('checkbox', { name: /^Drill 3.0 mm through/ });
    await drilled.click();
    await crack.getByRole('checkbox', { name: /^Drill/, checked: true }).waitFor();

    await page.getByRole('button', { name: 'Try one' }).click();
    await field('What').selectOption('gusset');
    await press('Work it out');
    await dialog().getByText('a gusset ties one member to another').waitFor();
    await field('What').selectOption('rib');
    await field('On').selectOption('S1R-S2R');
    await press('Work it out');
    await closed();
    const rib = page.locator('[data-stiffener=ST3]');
    await rib.getByText(/Under the hand: .* % stiffer/).waitFor();
    await rib.getByRole('button', { name: 'It is welded on' }).click();
    await rib.getByText('it is on').waitFor();
    await rib.getByRole('button', { name: 'Take back' }).click();
    await field('Why').fill('only tried');
    await press('Take it back');
    await closed();
    await rib.waitFor({ state: 'detached' });
    await page.getByRole('region', { name: 'Taken back' }).getByText('stiffener ST3').waitFor();
  });

  it('says between which places it is planished and read, and remembers the tick', async () => {
    await open(`${coupe}/weld`);
    await joint('nose leg').getByRole('link', { name: 'Card for the floor' }).click();
    // Everything is done: a tick taken off asks for it again.
    await page.getByText(/^Every run is laid/).waitFor();
    expect(await page.locator('[data-first]').count()).toBe(0);
    await page
      .getByRole('checkbox', { name: /^Planish/ })
      .first()
      .click();
    await page.locator('[data-first="planish 3"]').waitFor();
    await page
      .getByRole('checkbox', { name: /^Planish/ })
      .first()
      .click();
    await page.locator('[data-first]').waitFor({ state: 'detached' });
  });

  it('sets what was expected beside what moved, reads the axles last, and signs what that comes to', async () => {
    await open(`${coupe}/verify`);
    const width = page.locator('[data-row=NW1]');
    expect(await width.locator('[data-expected]').innerText()).toMatch(/−\d\.\d … −\d\.\d/);
    await page.getByRole('button', { name: 'Read them again' }).click();
    await field('Left front to right rear, mm').fill('');
    await press('Keep it');
    await dialog().getByText('both diagonals, or neither').waitFor();
    await field('Left front to right rear, mm').fill('2690');
    await press('Keep it');
    await closed();
    await page.getByText('The four lengths contradict each other').waitFor();
    await page.getByRole('button', { name: 'Read them again' }).click();
    await field('Left front to right rear, mm').fill('2671');
    await press('Keep it');
    await closed();
    await page.locator('[data-axles=inside]').waitFor();

    await open(`${coupe}/record?record=now`);
    await page
      .locator('[data-conformity=undecided]')
      .getByText(/not decided.*Round 3/)
      .waitFor();
    await page.getByText(/Accepted by Alva, .*: NW1/).waitFor();
    await page.getByRole('button', { name: 'Sign …' }).click();
    for (const reason of await dialog().getByLabel('Or why it is signed all the same').all())
      await reason.fill('the owner knows');
    await press('Sign it');
    await page.waitForURL(/record=2/);
    await page.getByRole('heading', { name: 'Wheelbases and axles, read last' }).waitFor();
    await page.getByText(/Slam panel, front crossmember: plugs, MIG, 760.0 mm/).waitFor();
    expect(errors).toEqual([]);
  });
});
