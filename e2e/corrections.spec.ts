import { expect, test, type Page } from '@playwright/test';
import { choose } from './choose';
import { ledrin, startLedrin, type Running } from './server';

let running: Running;
test.beforeAll(async () => {
  running = await startLedrin('demo/book');
});
test.afterAll(() => running.stop());

async function ties(): Promise<void> {
  const lines = (await ledrin('report', 'tie-out', '--db', running.database)).trim().split('\n').slice(1);
  expect(lines.map((line) => line.split(',').at(-1))).toEqual(['0.00', '0.00', '0.00', '0.00', '0.00']);
}

const costOf = async (job: string) =>
  (await ledrin('report', 'wip', '--db', running.database, '--job', job)).trim().split('\n')[1]!.split(',').at(-9);

const open = (page: Page, path: string) => page.goto(`${running.url}${path}`);

test('cost on the wrong job is picked in the ledger, seen moved before it is, and names what it was', async ({ page }) => {
  const before = [await costOf('2108'), await costOf('2111')];
  await open(page, '/costs/ledger?as-of=2031-04&q=TS-3104-4&job=2108');
  const box = page.getByRole('checkbox', { name: 'Pick TS-3104-4, 0610' });
  await expect(page.getByText('Tick entries to move or reverse them')).toBeVisible();
  const stands = await box.boundingBox();
  await box.click();
  await expect(page.getByText('1 entry picked, 2,468.77 GBP')).toBeVisible();
  expect(await box.boundingBox()).toEqual(stands);
  await page.getByRole('link', { name: 'Move …' }).click();
  await choose(page.getByLabel('To job'), '2111 Threap Road depot, over-roofing');
  await expect(page.getByRole('region', { name: 'Preview' }).getByText('No budget for this line')).toBeVisible();
  await page.getByRole('button', { name: 'Move 1 entry, 2,468.77' }).click();
  await expect(page.getByText('Enter a reason')).toBeVisible();
  await page.getByLabel('Reason').fill('booked to the wrong job');
  await page.getByRole('button', { name: 'Move 1 entry, 2,468.77' }).click();
  await expect(page.getByRole('heading', { name: /cost moved/ })).toBeVisible();
  await expect(page.getByText('booked to the wrong job')).toBeVisible();
  // 2,468.77 less on the one, more on the other.
  const moved = [await costOf('2108'), await costOf('2111')].map(Number);
  expect(moved.map((it, i) => Math.round((it - Number(before[i])) * 100))).toEqual([-246_877, 246_877]);
  await ties();
  await open(page, '/costs/ledger?as-of=2031-04&q=TS-3104-4&job=2111');
  await expect(page.getByText(/moved from document/)).toBeVisible();
});

test('from a line of estimate versus actual its entries are moved, all but those ticked off', async ({ page }) => {
  const before = await costOf('2108');
  await open(page, '/jobs/2108/budget?as-of=2031-04');
  await page
    .getByRole('button', { name: /^Actual of 0410 labour/ })
    .first()
    .click();
  await page.getByRole('link', { name: 'Move the cost of all these entries' }).click();
  const boxes = page.getByRole('region', { name: 'Entries picked' }).getByRole('checkbox');
  await expect(boxes.first()).toBeVisible();
  const count = await boxes.count();
  expect(count).toBeGreaterThan(1);
  await boxes.first().click();
  await expect(page.getByText(`${count - 1} entries of ${count} picked`)).toBeVisible();
  await choose(page.getByLabel('Cost code'), '0420 Rainscreen panels');
  await page.getByLabel('Reason').fill('coded to the line beside it');
  await page.getByRole('button', { name: new RegExp(`^Move ${count - 1} entr`) }).click();
  await expect(page.getByRole('heading', { name: /cost moved/ })).toBeVisible();
  expect(await costOf('2108')).toBe(before);
  await ties();
});

test('rows are picked by the keyboard, and reversed to be entered again', async ({ page }) => {
  await open(page, '/costs/ledger?as-of=2031-04&q=TS-3104-4&job=2105');
  await page.getByRole('cell', { name: 'Membrane' }).click();
  await page.getByRole('region', { name: 'Cost entries' }).press('Space');
  await page.getByRole('link', { name: 'Reverse …' }).click();
  await page.getByLabel('Reason').fill('wrong hours');
  await page.getByRole('button', { name: 'Reverse and enter again …' }).click();
  await expect(page.getByLabel('Amount, row 1', { exact: true })).toHaveValue('3,225.23');
  await expect(page.getByLabel('Reference, row 1', { exact: true })).toHaveValue('TS-3104-4');
  await ties();
});

test('material on site is installed in part, refused beyond what lies there, and undone', async ({ page }) => {
  await open(page, '/costs/material-on-site?as-of=2031-04');
  await page.getByRole('checkbox', { name: 'Pick DN-50240, 0440' }).click();
  await choose(page.getByLabel('What'), 'an amount');
  await page.getByLabel('Amount installed').fill('200000');
  await page.getByRole('button', { name: 'Install a part' }).click();
  await expect(page.getByText('more than the 164,300.00 not installed yet')).toBeVisible();
  await page.getByLabel('Amount installed').fill('64300');
  await page.getByRole('button', { name: 'Install a part' }).click();
  await expect(page.getByText('64,300.00 installed on 30 Apr 2031')).toBeVisible();
  await expect(page.getByRole('row', { name: /DN-50240.*100,000.00/ })).toBeVisible();
  await page
    .getByRole('row', { name: /64,300.00 Undo/ })
    .getByRole('button', { name: 'Undo' })
    .click();
  await expect(page.getByText('64,300.00 lies uninstalled again')).toBeVisible();
  await ties();
});

test('a certification nothing rests on is reversed with a reason, and certified again', async ({ page }) => {
  await open(page, '/jobs/2104/billing?as-of=2031-04');
  await open(page, '/jobs/2104/billing/14?as-of=2031-04');
  await expect(page.getByText(/Certified 28 Apr 2031/)).toBeVisible();
  await page.getByRole('button', { name: 'Reverse certification …' }).click();
  await page.getByLabel('Reason').fill('certified for the wrong month');
  await page.getByRole('button', { name: 'Reverse certification of application 14' }).click();
  await expect(page.getByText('Submitted, awaiting certification')).toBeVisible();
  await ties();
  await page.getByLabel('Certified on').fill('29 Apr 2031');
  await page.getByRole('button', { name: /^Certify application 14/ }).click();
  await expect(page.getByText(/Certified 29 Apr 2031/)).toBeVisible();
  await page.getByRole('link', { name: 'History' }).click();
  await expect(page.getByText('Certification reversed')).toBeVisible();
  await expect(page.getByText('certified for the wrong month')).toBeVisible();
  await ties();
});
