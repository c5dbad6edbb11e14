import { expect, test } from '@playwright/test';
import { ledrin, startLedrin, type Running } from './server';

let running: Running;
test.beforeAll(async () => {
  running = await startLedrin('demo/book');
});
test.afterAll(() => running.stop());

/*
 * Job 2118 of the sample company is charged, material with 15 %, subcontract work with 8 %, at most 14,000.00. In April 2,546.45 and 1,209.60 are
 * on no invoice: 3,756.05. A delivery of 200.00 is charged at 230.00: 3,986.05, and 797.21 of tax.
 */
test('cost is charged as it is entered, one entry waits, and the rest is invoiced, credited and free again', async ({ page }) => {
  const cell = (name: string, row: number) => page.getByLabel(`${name}, row ${row}`, { exact: true });
  await page.goto(`${running.url}/costs?as-of=2031-04`);
  await expect(cell('Date', 1)).toBeFocused();
  for (const text of ['28', '2118', '', '0330', 'material', 'BARROW', 'DN-77', '', '200', 'Patches']) {
    await page.keyboard.type(text);
    await page.keyboard.press('Tab');
  }
  await page.getByRole('button', { name: 'Preview 1 line, 200.00' }).click();
  await page.getByRole('button', { name: 'Post 1 line, 200.00' }).click();
  await expect(page.getByText('Posted 1 line, 200.00')).toBeVisible();

  await page.getByRole('link', { name: 'Billing', exact: true }).click();
  await page.getByRole('link', { name: 'Unbilled' }).click();
  const row = page.getByRole('row', { name: /2118 Quillane Mill/ });
  await expect(row).toContainText('3,986.05');
  await row.getByRole('link', { name: /^2118/ }).click();

  // One that the client has not agreed to yet waits, and is left out of what is invoiced.
  await page.getByLabel('Pick SC-3104, 0200').check();
  await page.getByRole('button', { name: 'Hold', exact: true }).click();
  await expect(page.getByText('1 entry: held')).toBeVisible();
  await page.getByRole('button', { name: 'Preview all 2 entries, 2,776.45' }).click();
  await expect(page.getByLabel('Preview').getByText(/2 entries, 2,343\.62, held/)).toBeVisible();
  await expect(page.getByLabel('Lines of D-2')).toContainText('Patches');
  // 2,776.45 and 555.29.
  await page.getByRole('button', { name: 'Issue 1 invoice, 3,331.74 with tax' }).click();
  await expect(page.getByText('Issued 1 invoice, 3,331.74 with tax')).toBeVisible();

  await page.getByRole('link', { name: 'D-2', exact: true }).click();
  await expect(page.getByText('3,331.74 outstanding')).toBeVisible();
  const [pdf] = await Promise.all([
    page.request.get(new URL('/api/jobs/2118/daywork/D-2/print', running.url).href),
    page.getByRole('link', { name: 'PDF' }).isVisible(),
  ]);
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');
  await page.getByRole('button', { name: 'Credit it …' }).click();
  await page.getByLabel('Reason').fill('To another address');
  await page.getByRole('button', { name: 'Credit 3,331.74' }).click();
  await expect(page.getByText('Credited in full')).toBeVisible();
  await page.getByRole('link', { name: 'Charged', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Preview all 2 entries, 2,776.45' })).toBeVisible();
  const proofs = (await ledrin('report', 'tie-out', '--db', running.database)).trim().split('\n').slice(1);
  expect(proofs.map((line) => line.split(',').at(-1))).toEqual(['0.00', '0.00', '0.00', '0.00', '0.00']);
});
