import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Page } from '@playwright/test';
import { choose } from './choose';
import { ledrin, startLedrin, type Running } from './server';

let running: Running;
test.beforeAll(async () => {
  running = await startLedrin('demo/book');
});
test.afterAll(() => running.stop());

const open = (page: Page, path: string) => page.goto(`${running.url}${path}`);

async function ties(): Promise<void> {
  const lines = (await ledrin('report', 'tie-out', '--db', running.database)).trim().split('\n').slice(1);
  expect(lines.map((line) => line.split(',').at(-1))).toEqual(['0.00', '0.00', '0.00', '0.00', '0.00']);
}

/** Types cells one after the other, each left by Tab; null is passed over. Counts the keys beyond the text itself. */
async function typeRow(page: Page, cells: readonly (string | null)[]): Promise<number> {
  let keys = 0;
  for (const cell of cells) {
    if (cell !== null) await page.keyboard.type(cell);
    await page.keyboard.press('Tab');
    keys += 1;
  }
  return keys;
}

test('rates: a list shows what changes before it is saved, what is posted is not altered, and the finder says which rung wins', async ({
  page,
}) => {
  await open(page, '/set-up/labour/pay-rates');
  const rate = page.getByLabel('Rate an hour, row 9', { exact: true });
  await expect(rate).toHaveValue('18.15');
  await rate.fill('19');
  await rate.press('Tab');
  await page.getByRole('button', { name: 'Show what changes' }).click();
  await expect(page.getByRole('alert')).toContainText('would alter time that is posted');
  await rate.fill('18.15');
  await rate.press('Tab');
  await page.getByLabel('From, row 13', { exact: true }).fill('1 May 2031');
  await page.getByLabel('Wage class, row 13', { exact: true }).fill('mate');
  await page.getByLabel('Rate an hour, row 13', { exact: true }).fill('18.6');
  await page.getByLabel('At least, row 13', { exact: true }).focus();
  await page.getByRole('button', { name: 'Show what changes' }).click();
  await expect(page.getByRole('region', { name: 'What changes' })).toContainText('Added');
  await page.getByRole('button', { name: 'Save 1 change' }).click();
  await expect(page.getByText('Pay rates saved: 1 change')).toBeVisible();
  await page.getByRole('link', { name: 'Rate finder' }).click();
  await expect(page.getByRole('region', { name: 'How the rate is found' })).toBeVisible();
  await choose(page.getByLabel('Employee', { exact: true }), 'E04 Ilka Morrow');
  await page.getByLabel('Day', { exact: true }).fill('5 May 2031');
  await expect(page.getByRole('region', { name: 'How the rate is found' })).toContainText('18.6000');
});

test('a week: typed by keyboard for a crew, returned, put right, approved, posted as previewed, and corrected', async ({
  page,
}) => {
  await open(page, '/costs/time?as-of=2031-05&on=2031-05-05');
  await page.getByRole('link', { name: 'New week sheet' }).click();
  await expect(page.getByLabel('Employee, row 1', { exact: true })).toBeFocused();
  // Employee, job, section, code, kind, and hours of five days: ten keys beyond the text for a row.
  const keys = await typeRow(page, ['E05', '2105', 'Roof', '0510', null, '7-16:30-0:30', '8', '8', '8', '8']);
  expect(keys).toBeLessThanOrEqual(10);
  await expect(page.getByLabel('Mon 5 May, row 1', { exact: true })).toHaveValue('07:00-16:30-0:30');
  await page.getByLabel('Employee, row 1', { exact: true }).focus();
  await page.getByRole('button', { name: 'Repeat the row for …' }).click();
  await page.getByLabel('E06 Mara Benning').check();
  await page.getByRole('button', { name: 'Add 1 row' }).click();
  // 9 h on Monday, of which one is overtime, for each of the two.
  await expect(page.getByRole('region', { name: 'Hours by person and day' })).toContainText('80 + 2 overtime');
  // A wrong cell says so there, and nothing is sent.
  const friday = page.getByLabel('Fri 9 May, row 2', { exact: true });
  await friday.fill('lots');
  await friday.press('Tab');
  await page.getByRole('button', { name: /^Submit/ }).click();
  await expect(page.getByRole('alert')).toContainText('1 cell needs attention');
  await expect(friday).toHaveAttribute('aria-invalid', 'true');
  await friday.fill('8');
  await friday.press('Tab');
  await page.getByRole('button', { name: 'Submit 10 lines, 82 h' }).click();
  await expect(page.getByRole('heading', { name: 'Week sheet 12' })).toBeVisible();

  await page.getByLabel('All lines that are not posted').uncheck();
  await page.getByLabel(/^Mara Benning, 2105/).check();
  await page.getByLabel('Reason for returning').fill('Left early on Friday');
  await page.getByRole('button', { name: 'Return 5 lines, 41 h' }).click();
  await expect(page.getByRole('row', { name: /Mara Benning/ }).first()).toContainText('Left early on Friday');
  await page.getByRole('button', { name: 'Correct and resubmit' }).click();
  const right = page.getByLabel('Fri 9 May, row 2', { exact: true });
  await expect(right).toHaveValue('8');
  await right.fill('4');
  await right.press('Tab');
  await page.getByRole('button', { name: 'Submit 10 lines, 78 h' }).click();
  await page.getByRole('button', { name: 'Approve 10 lines, 78 h' }).click();
  await expect(page.getByRole('cell', { name: 'approved' }).first()).toBeVisible();

  await open(page, '/costs/time/post?as-of=2031-05');
  for (const sheet of ['7', '8']) await page.getByLabel(`Sheet ${sheet}`, { exact: true }).uncheck();
  await page.getByRole('button', { name: 'Preview 78 h' }).click();
  await expect(page.getByRole('region', { name: 'Preview', exact: true })).toContainText('0510');
  // At 25.60, the least of the job: 76 h are 1,945.60, 2 h of overtime 76.80. Burden of 8 h: 28.26 + 8.19 + 4.96 = 41.41, of 1 h of
  // overtime 5.30 + 1.02 + 0.62 = 6.94, of 4 h 14.13 + 4.10 + 2.48 = 20.71; 9 × 41.41 + 2 × 6.94 + 20.71 = 407.28.
  await page.getByRole('button', { name: 'Post 12 lines, 2,429.68' }).click();
  await expect(page.getByText(/^Posted 12 lines of time/)).toBeVisible();
  await ties();

  await open(page, '/costs/time/sheets/12?as-of=2031-05');
  await page.getByRole('button', { name: 'Correct posted hours' }).click();
  const thursday = page.getByLabel('Thu 8 May, row 1', { exact: true });
  await thursday.fill('6');
  await thursday.press('Tab');
  await page.getByLabel('Reason', { exact: true }).fill('Two hours less on Thursday');
  await page.getByRole('button', { name: 'Preview the correction' }).click();
  await expect(page.getByRole('region', { name: 'Preview', exact: true })).toContainText('0510');
  await page.getByRole('button', { name: 'Post the correction' }).click();
  await expect(page.getByRole('heading', { name: 'Week sheet 13' })).toBeVisible();
  await expect(page.getByText('Corrects sheet 12', { exact: true })).toBeVisible();
  await page.getByRole('link', { name: 'sheet 12' }).first().click();
  await expect(page.getByText('Corrected by sheet 13', { exact: true })).toBeVisible();
  await ties();
  expect((await new AxeBuilder({ page }).analyze()).violations.map((it) => [it.id, it.nodes.map((n) => n.html)])).toEqual([]);
});

test('what is done of a task is said where its hours are read, and is the forecast of its line', async ({ page }) => {
  await open(page, '/jobs/2111/hours?as-of=2031-04');
  await page.getByRole('button', { name: 'Set % done of Shed 2 · 0340 Standing seam' }).click();
  const done = page.getByLabel('% done of Shed 2 · 0340 Standing seam');
  await done.fill('60');
  await done.press('Enter');
  await expect(page.getByText('0340: done as said, in the forecast of the line')).toBeVisible();
  const set = page.getByRole('button', { name: 'Set % done of Shed 2 · 0340 Standing seam' });
  await expect(page.getByRole('row').filter({ has: set })).toContainText('60.0');
  await open(page, '/jobs/2111/forecast?as-of=2031-04');
  await expect(page.getByRole('grid')).toContainText('0340 Standing seam');
  await expect(page.locator('input[value="60"]').first()).toBeVisible();
});

test('payroll takes each posted line once, with a proof; a statement of wages goes out as PDF', async ({ page }) => {
  await open(page, '/costs/payroll?as-of=2031-04');
  await expect(page.getByRole('region', { name: 'Proof' })).toContainText('Ties');
  await page.getByRole('button', { name: /^Hand over/ }).click();
  await expect(page.getByRole('heading', { name: 'Payroll hand-over 1' })).toBeVisible();
  await expect(page.getByRole('status')).toContainText('the total above ties to them');
  const file = page.waitForEvent('download');
  await page.getByRole('link', { name: 'CSV for payroll' }).click();
  expect((await file).suggestedFilename()).toBe('payroll-1.csv');
  await open(page, '/costs/payroll?as-of=2031-04');
  await expect(page.getByText('All posted time until 30 Apr 2031 is handed over.')).toBeVisible();
  const pdf = await page.request.get(`${running.url}/api/jobs/2105/wage-statement.pdf?on=2031-04-08`);
  expect([pdf.status(), (await pdf.body()).subarray(0, 5).toString()]).toEqual([200, '%PDF-']);
});

test('on a phone of 390 px the weeks are entered, read and listed without moving sideways', async ({ browser }) => {
  const phone = await browser.newContext({ viewport: { width: 390, height: 800 } });
  const page = await phone.newPage();
  const fits = async (path: string) => {
    await page.goto(`${running.url}${path}`);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  };
  await fits('/costs/time?on=2031-04-28');
  await expect(page.getByRole('list', { name: 'Sheets of the week' })).toContainText('Sheet 10');
  await fits('/costs/time/sheets/10');
  await expect(page.getByRole('button', { name: /^Approve/ })).toBeVisible();
  await fits('/costs/time/new?on=2031-05-05');
  await page.getByLabel('Employee, row 1', { exact: true }).fill('E01');
  await page.getByRole('button', { name: /^Take 2111/ }).click();
  await page.getByLabel('Mon 5 May, row 1', { exact: true }).fill('8:30');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('button', { name: 'Submit 1 line, 8.5 h' })).toBeEnabled();
  await phone.close();
});
