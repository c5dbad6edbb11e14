import { expect, test } from '@playwright/test';
import { present } from '../core/errors/known';
import { ledrin, startLedrin, type Running } from './server';

let running: Running;
test.beforeAll(async () => {
  running = await startLedrin('demo/book');
});
test.afterAll(() => running.stop());

test('Alt Enter pressed twice posts once, also where the first reply never comes', async ({ page }) => {
  const costs = () => ledrin('report', 'trial-balance', '--db', running.database, '--as-of', '2031-04-30');
  const labour = async () => Number(/^5010,"[^"]*",([\d.]+)/m.exec(await costs())?.[1]);
  const before = await labour();
  const cell = (name: string) => page.getByLabel(`${name}, row 1`, { exact: true });
  // The server carries the first one out, and its reply is lost on the way; then it is pressed again, twice.
  let sent = 0;
  await page.route(/\/api\/costs\??$/, async (route) => {
    sent += 1;
    if (sent > 1) return route.continue();
    await route.fetch();
    await route.abort();
  });
  await page.goto(`${running.url}/costs?as-of=2031-04`);
  for (const [name, typed] of [
    ['Date', '30'],
    ['Job', '2107'],
    ['Section', 'Sports hall'],
    ['Code', '0340'],
    ['Type', 'labour'],
    ['Supplier / payee', 'Crew Dray'],
    ['Reference', 'TWICE-1'],
    ['Hours', '8'],
    ['Amount', '276'],
  ] as const) {
    await cell(name).fill(typed);
    await page.keyboard.press('Tab');
  }
  await page.keyboard.press('Alt+p');
  await page.getByRole('region', { name: 'Preview' }).waitFor();

  await page.keyboard.press('Alt+Enter');
  await expect(page.getByRole('alert')).toBeVisible();
  await page.keyboard.press('Alt+Enter');
  await page.keyboard.press('Alt+Enter');
  await expect(page.getByText('Posted 1 line, 276.00')).toBeVisible();
  await expect(page.getByRole('alert')).toHaveCount(0);
  expect(sent).toBeGreaterThan(1);
  expect(await labour()).toBeCloseTo(before + 276, 2);
  await page.goto(`${running.url}/costs/ledger?as-of=2031-04`);
  await page.getByPlaceholder('Reference, party, description').fill('TWICE-1');
  await expect(page.getByText('1 entry')).toBeVisible();
});

test('columns of work in progress are chosen, stay so, and the job stays in sight', async ({ page }) => {
  await page.setViewportSize({ width: 1024, height: 768 });
  await page.goto(`${running.url}/reports/work-in-progress?as-of=2031-04`);
  const heads = page.getByRole('columnheader');
  await expect(page.getByRole('button', { name: 'Columns (11 hidden)' })).toBeVisible();
  await expect(heads.filter({ hasText: 'Backlog' })).toHaveCount(0);
  const table = page.getByRole('region', { name: 'Work-in-progress schedule' });
  expect(await table.evaluate((it) => it.scrollWidth - it.clientWidth)).toBeLessThanOrEqual(0);
  await page.getByRole('button', { name: /^Columns/ }).click();
  await page.getByLabel('Backlog').check();
  await page.keyboard.press('Escape');
  await page.reload();
  await expect(heads.filter({ hasText: 'Backlog' })).toHaveCount(1);
  await table.evaluate((it) => it.scrollTo({ left: 500 }));
  await expect(page.getByRole('link', { name: '2116' })).toBeInViewport();
  // Another month than the newest offers the way back to it, and pushes nothing off the band.
  await page.goto(`${running.url}/reports/work-in-progress?as-of=2031-02`);
  await expect(page.getByRole('button', { name: 'to Apr 2031' })).toBeVisible();
  await expect(page.getByRole('button', { name: /account and sign out/ })).toBeInViewport({ ratio: 1 });
});

test('what is typed waits where it is kept, and is asked about where it is not; deleting asks first', async ({ page }) => {
  await page.goto(`${running.url}/jobs/2110/changes/new?as-of=2031-04`);
  await page.getByLabel('Title').fill('Smoke vents');
  const leave = () => page.getByRole('navigation', { name: 'Main navigation' }).getByRole('link', { name: 'Ledger' }).click();
  await leave();
  await expect(page.getByRole('heading', { name: 'Trial balance' })).toBeVisible();
  await page.goBack();
  await expect(page.getByLabel('Title')).toHaveValue('Smoke vents');
  await page.getByRole('button', { name: 'Save CO2' }).click();
  await expect(page.getByRole('button', { name: 'Saved' })).toBeVisible();
  // What is said of it lies on nothing that is pressed next.
  const [said, next] = [page.getByText('CO2 saved'), page.getByRole('button', { name: 'Delete draft' })];
  const [a, b] = [present(await said.boundingBox()), present(await next.boundingBox())];
  expect(a.x >= b.x + b.width || b.x >= a.x + a.width || a.y >= b.y + b.height || b.y >= a.y + a.height).toBe(true);
  await page.getByRole('button', { name: 'Delete draft' }).click();
  await page.getByRole('button', { name: 'Delete draft permanently?' }).click();
  await expect(page.getByRole('link', { name: 'Raise a change' })).toBeVisible();
  await page.goto(`${running.url}/tenders/build-ups`);
  const description = page.getByRole('textbox', { name: 'Description', exact: true });
  const before = await description.inputValue();
  await description.fill(`${before}, typed`);
  await leave();
  await page.getByRole('alertdialog').getByRole('button', { name: 'Stay' }).click();
  await expect(description).toHaveValue(`${before}, typed`);
  // Within a page too: another build-up in the place of the one that is typed in.
  const another = page.getByRole('table', { name: 'Build-ups' }).locator('tbody').getByRole('button').nth(1);
  await another.click();
  await page.getByRole('alertdialog').getByRole('button', { name: 'Stay' }).click();
  await expect(description).toHaveValue(`${before}, typed`);
  await another.click();
  await page.getByRole('alertdialog').getByRole('button', { name: 'Leave' }).click();
  await expect(description).not.toHaveValue(new RegExp(before));
  await description.fill('Typed again');
  await leave();
  await page.getByRole('alertdialog').getByRole('button', { name: 'Leave' }).click();
  await expect(page.getByRole('heading', { name: 'Trial balance' })).toBeVisible();
});
