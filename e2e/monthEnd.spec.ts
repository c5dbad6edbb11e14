import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { choose } from './choose';
import { ledrin, startLedrin, type Running } from './server';

let running: Running;
test.beforeAll(async () => {
  running = await startLedrin('demo/book');
});
test.afterAll(() => running.stop());

const cell = (page: Page, name: string, row: number) => page.getByLabel(`${name}, row ${row}`, { exact: true });

async function ties(asOf: string): Promise<void> {
  const lines = (await ledrin('report', 'tie-out', '--db', running.database, '--as-of', asOf)).trim().split('\n').slice(1);
  expect(lines.map((line) => line.split(',').at(-1))).toEqual(['0.00', '0.00', '0.00', '0.00', '0.00']);
}

test('the sheet of costs is worked like a good ledger: arrows, completion, fill down, undo, and kept over a reload', async ({
  page,
}) => {
  await page.goto(`${running.url}/costs?as-of=2031-04`);
  await cell(page, 'Date', 1).focus();
  await page.keyboard.type('30');
  await page.keyboard.press('ArrowDown');
  await expect(cell(page, 'Date', 1)).toHaveValue('30 Apr 2031');
  await expect(cell(page, 'Date', 2)).toBeFocused();
  await page.keyboard.type('29/4');
  await page.keyboard.press('Enter');
  await page.keyboard.type('28 apr 31');
  await page.keyboard.press('Tab');
  await expect(cell(page, 'Job', 3)).toBeFocused();

  await test.step('completion by typing: the job by its name, chosen with the arrows', async () => {
    await cell(page, 'Job', 1).focus();
    await page.keyboard.type('infirmary');
    await expect(page.getByRole('option')).toHaveCount(2);
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await expect(cell(page, 'Job', 1)).toHaveValue('2116');
  });

  await test.step('a column is filled down, and the fill is taken back', async () => {
    await cell(page, 'Job', 1).focus();
    await page.keyboard.press('Alt+ArrowDown');
    for (const row of [2, 3]) await expect(cell(page, 'Job', row)).toHaveValue('2116');
    await page.keyboard.press('Control+z');
    for (const row of [2, 3]) await expect(cell(page, 'Job', row)).toHaveValue('');
  });

  await test.step('what is typed outlives a reload, and is cleared when asked', async () => {
    await page.reload();
    await expect(cell(page, 'Date', 2)).toHaveValue('29 Apr 2031');
    await page.getByRole('button', { name: 'Clear all lines' }).click();
    await expect(cell(page, 'Date', 1)).toHaveValue('');
  });
});

test('a submitted application is certified as applied for; money comes in, and is taken back', async ({ page }) => {
  await page.goto(`${running.url}/jobs/2107/billing/11?as-of=2031-04`);
  // 858,500.00 less 31,032.00 retention, less 808,014.25 certified before: 19,453.75, with VAT 23,344.50.
  await page.getByLabel('Certified on').fill('29 Apr 2031');
  await page.getByRole('button', { name: 'Certify application 11, 23,344.50' }).click();
  await expect(page.getByText('23,344.50 outstanding, due 29 May 2031')).toBeVisible();
  await page.getByRole('textbox', { name: 'Amount' }).fill('30,000');
  await page.getByRole('button', { name: 'Record receipt of 30,000.00' }).click();
  await expect(page.getByText('30,000.00 is more than the 23,344.50 outstanding on it')).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Amount' })).toHaveValue('30,000.00');
  await page.getByRole('textbox', { name: 'Amount' }).fill('20000');
  await page.getByRole('main').getByRole('button', { name: 'Calendar' }).click();
  await page.getByRole('button', { name: /29 April 2031/ }).click();
  await expect(page.getByRole('textbox', { name: 'Date' })).toHaveValue('29 Apr 2031');
  await page.getByLabel('Reference').fill('BACS 7');
  await page.getByRole('button', { name: 'Record receipt of 20,000.00' }).click();
  await expect(page.getByText(/^3,344\.50 outstanding/)).toBeVisible();
  await ties('2031-04-30');

  await page
    .getByRole('row', { name: /BACS 7/ })
    .getByRole('link')
    .click();
  await page.getByRole('button', { name: 'Reverse this document' }).click();
  await page.getByRole('button', { name: /Reverse document \d+/ }).click();
  await expect(page.getByText('Enter a reason for the reversal')).toBeVisible();
  await page.getByLabel('Reason').fill('on the wrong job');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/reversed already, by document/)).toBeVisible();
  await page.goto(`${running.url}/jobs/2107/billing/11?as-of=2031-04`);
  await expect(page.getByText('23,344.50 outstanding')).toBeVisible();
  await ties('2031-04-30');
});

test('retention is released, never more than is held, and its invoice is paid', async ({ page }) => {
  await page.goto(`${running.url}/jobs/2101/billing?as-of=2031-04`);
  await page.getByRole('button', { name: 'Invoice released retention' }).click();
  await page.getByRole('textbox', { name: 'Amount' }).fill('29,660.01');
  await page.getByRole('button', { name: 'Invoice 29,660.01' }).click();
  await expect(page.getByText('29,660.01 is more than the 29,660.00 held on 30 Apr 2031')).toBeVisible();
  await page.getByRole('textbox', { name: 'Amount' }).fill('14,830.00');
  await page.getByLabel('Reference').fill('Half at completion');
  await page.getByRole('button', { name: 'Invoice 14,830.00' }).click();
  const row = page.getByRole('row', { name: /Half at completion/ });
  await expect(row).toContainText('2,966.00');
  await row.getByRole('button', { name: 'Money received' }).click();
  await page.getByRole('button', { name: 'Record receipt of 17,796.00' }).click();
  await expect(row.getByRole('button', { name: 'Money received' })).toHaveCount(0);
  await ties('2031-04-30');
  expect(await ledrin('report', 'ageing', '--db', running.database, '--as-of', '2031-04-30', '--job', '2101')).toContain(
    'OSTRAND,2101,12,2030-12-22,2031-02-11,0.00,0.00,0.00,0.00,0.00,14830.00,14830.00',
  );
});

test('an application taken back is a draft again, and its figures are kept as they are typed', async ({ page }) => {
  await page.goto(`${running.url}/jobs/2111/billing/7?as-of=2031-04`);
  await page.getByRole('button', { name: 'Return to draft' }).click();
  await expect(page.getByRole('button', { name: /^Submit,/ })).toBeVisible();
  await cell(page, 'Materials on site', 1).focus();
  await page.keyboard.type('250');
  const saved = page.waitForResponse((reply) => reply.request().method() === 'PUT' && reply.url().includes('/applications/7'));
  await page.keyboard.press('Enter');
  expect((await saved).status()).toBe(200);
  await page.reload();
  await expect(cell(page, 'Materials on site', 1)).toHaveValue('250.00');
});

test('estimate versus actual folds by section, code and type, and keeps unbudgeted cost in sight', async ({ page }) => {
  await page.goto(`${running.url}/reports/estimate-versus-actual?job=2107&as-of=2031-04`);
  const table = page.getByRole('region', { name: 'Estimate versus actual' });
  await expect(table.getByText('no budget')).toBeVisible();
  await choose(page.getByLabel('Grouped by'), 'Cost type');
  const labour = table.getByRole('button', { name: /labour 10/ });
  await expect(labour).toBeVisible();
  const lines = await table.locator('tbody tr').count();
  await labour.click();
  expect(await table.locator('tbody tr').count()).toBe(lines - 10);
  await page.getByRole('button', { name: 'Unfold all' }).click();
  expect(await table.locator('tbody tr').count()).toBe(lines);
  for (const format of ['CSV', 'XLSX', 'PDF']) {
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: format, exact: true }).click(),
    ]);
    expect(download.suggestedFilename()).toBe(`estimate-vs-actual-2107-2031-04-30.${format.toLowerCase()}`);
  }
});

test('what is still to come is said by line at month end, and the job follows', async ({ page }) => {
  await page.goto(`${running.url}/jobs/2110/forecast?as-of=2031-04`);
  const head = page.getByRole('status').filter({ hasText: 'Estimate at completion, GBP' });
  const before = (await head.textContent()) ?? '';
  await page.getByLabel('Cost to complete, row 1', { exact: true }).fill('25,000');
  await page.getByLabel('Note, row 1', { exact: true }).fill('Two more weeks of hoist');
  await page.keyboard.press('Enter');
  await expect(head).not.toHaveText(before);
  const now = /GBP ([\d,.]+)/.exec((await head.textContent()) ?? '')?.[1] ?? 'none';
  await page.getByRole('button', { name: 'Save forecast' }).click();
  await expect(page.getByRole('button', { name: 'Saved' })).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('Cost to complete, row 1', { exact: true })).toHaveValue('25,000.00');
  await page.goto(`${running.url}/jobs?as-of=2031-04`);
  await expect(page.getByRole('row', { name: /^2110/ })).toContainText(now);
});

test('a faulty book is refused with every fault by file, row and column; a good one adds to what is there', async ({ page }) => {
  const folder = mkdtempSync(join(tmpdir(), 'ledrin-book-'));
  writeFileSync(join(folder, 'cost_codes.csv'), 'cost_code,description\n0310,Again\n0999,\n');
  writeFileSync(
    join(folder, 'costs.csv'),
    'dated,job,cost_code,cost_type,reference,amount\n2031-04-31,2107,0310,labour,T,5.00\n',
  );
  await page.goto(`${running.url}/set-up`);
  const choose = page.getByLabel('Import CSV files or a ZIP …');
  await choose.setInputFiles([join(folder, 'cost_codes.csv'), join(folder, 'costs.csv')]);
  await expect(page.getByText('3 faults; nothing can be imported')).toBeVisible();
  await expect(page.getByText('cost_codes.csv:2: cost_code: duplicate key: 0310 is already there')).toBeVisible();
  await expect(page.getByText('costs.csv:2: dated: "2031-04-31" is not a date; write it as 2031-04-30')).toBeVisible();
  writeFileSync(join(folder, 'cost_codes.csv'), 'cost_code,description\n0999,Odds and ends\n');
  await choose.setInputFiles([join(folder, 'cost_codes.csv')]);
  await expect(page.getByText('The books tie afterwards')).toBeVisible();
  await page.getByRole('button', { name: 'Import 1 row' }).click();
  await expect(page.getByText('Imported 1 cost codes')).toBeVisible();
  await page.goto(`${running.url}/set-up/cost-codes`);
  await expect(page.getByRole('cell', { name: 'Odds and ends' })).toBeVisible();
});

test('what is not there says so, and leads back', async ({ page }) => {
  await page.goto(`${running.url}/jobs/9999`);
  await expect(page.getByText('There is no job 9999')).toBeVisible();
  await page.goto(`${running.url}/nowhere`);
  await page.getByRole('link', { name: 'Go to the jobs' }).click();
  await expect(page.getByRole('heading', { name: 'Jobs' })).toBeVisible();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keyboard shortcuts' })).toBeVisible();
});
