import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Page } from '@playwright/test';
import { choose } from './choose';
import { startLedrin, type Running } from './server';

// Each test reads only: they run side by side, each worker on a server of its own.
test.describe.configure({ mode: 'parallel' });

let running: Running;
test.beforeAll(async () => {
  running = await startLedrin('demo/book');
});
test.afterAll(() => running.stop());

const VIEWS: [path: string, heading: string][] = [
  ['/jobs', 'Jobs'],
  ['/jobs/new', 'New job'],
  ['/tenders/new', 'New tender'],
  ['/set-up/kinds-of-job', 'Kinds of job'],
  ['/set-up/departments', 'Departments'],
  ['/jobs/2108', '2108 Hollin Quay tower, lower cladding'],
  ['/jobs/2104/contract', 'Schedule of values'],
  ['/jobs/2107/budget', 'Estimate versus actual'],
  ['/jobs/2110/costs', '2110 Tarnwick civic offices, atrium glazing'],
  ['/jobs/2101/billing', '2101 Ostrand retail park, units 4 to 9'],
  ['/jobs/2105/billing/12', 'Application 12'],
  ['/jobs/2110/billing/8', 'Application 8'],
  ['/jobs/2108/billing/12', 'Application 12'],
  ['/jobs/2098/postings', '2098 Pell Street library, reroofing'],
  ['/costs', 'Enter costs'],
  ['/costs/ledger', 'Cost ledger'],
  ['/costs/ledger?by=job', 'Cost ledger'],
  ['/billing', 'Billing'],
  ['/billing/unbilled', 'Unbilled'],
  ['/jobs/2118/charging', 'Invoices of charged cost'],
  ['/jobs/2118/charging/D-1', 'Invoice D-1 number 89'],
  ['/set-up/labour/charge-rates', 'Labour'],
  ['/reports/work-in-progress', 'Work in progress'],
  ['/reports/estimate-versus-actual', 'Estimate versus actual'],
  ['/reports/ageing', 'Ageing of receivables'],
  ['/ledger', 'Trial balance'],
  ['/ledger/tie-out', 'Tie-out'],
  ['/ledger/postings', 'Posted documents'],
  ['/ledger/postings/98', 'Document 98: opening cost'],
  ['/set-up', 'Set-up'],
  ['/set-up/vendors', 'Vendors'],
  ['/set-up/cost-codes', 'Cost codes'],
  ['/ledger/audit-trail', 'Audit trail'],
  ['/costs/material-on-site', 'Material on site, not installed'],
  ['/costs/correct?way=move&entries=1,2', 'Move cost'],
  ['/set-up/labour/wage-classes', 'Labour'],
  ['/set-up/labour/employees', 'Labour'],
  ['/set-up/labour/pay-rates', 'Labour'],
  ['/set-up/labour/burdens', 'Labour'],
  ['/set-up/labour/rate-finder', 'Labour'],
  ['/costs/time', 'Week sheets'],
  ['/costs/time/new', 'New week sheet'],
  ['/costs/time/person?employee=E06', 'Week of Mara Benning'],
  ['/costs/time/post', 'Post time'],
  ['/costs/time/sheets/8', 'Week sheet 8'],
  ['/costs/time/sheets/4', 'Week sheet 4'],
  ['/costs/day-sheets?on=2031-04-24', 'Day sheets'],
  ['/costs/day-sheets/2108/2031-04-24/Jory%20Sedge', 'Day sheet, 24 Apr 2031'],
  ['/costs/day-sheets/2105/2031-04-22/Hester%20Voss', 'Day sheet, 22 Apr 2031'],
  ['/costs/payroll', 'Payroll hand-over'],
  ['/jobs/2105/wages?on=2031-04-08', 'Statement of wages'],
  ['/reports/people', 'People at work'],
  ['/waiting', 'Waiting for you'],
  ['/account', 'Your account'],
  ['/set-up/people', 'People'],
  ['/set-up/users', 'Users'],
  ['/jobs/2117/set-up', 'Schedule of values'],
  ['/tenders', 'Tenders'],
  ['/tenders/quotations', 'Quotations'],
  ['/tenders/prices', 'Price list'],
  ['/tenders/build-ups?of=SLATED', 'Build-ups'],
  ['/jobs/2116/file', 'Job details'],
  ['/jobs/2116/billing/schedule', 'Billing: fixed schedule'],
  ['/jobs/2113/billing/schedule', 'Billing: fixed schedule'],
  ['/jobs/2105/plan', 'Sections: lots, phases, areas'],
  ['/jobs/2110/forecast', 'Forecast, 30 Apr 2031'],
  ['/jobs/2119/quotations/1', 'Quotation 1, draft'],
  ['/tenders/hours', 'Hours a unit, achieved'],
  ['/tenders/terms', 'Terms for quotations'],
  ['/tenders/outbox', 'Outbox'],
  ['/reports/changes', 'Change orders'],
  ['/reports/hours', 'Hours by task'],
  ['/reports/payroll', 'Payroll'],
  ['/jobs/2107/hours', 'Hours by task'],
  ['/jobs/2108/quantities', 'Quantities'],
  ['/set-up/roles', 'Roles'],
  ['/set-up/approvals', 'Approvals'],
  ['/jobs/2110/changes', 'Change orders'],
  ['/jobs/2110/changes/CO1', 'CO1 Solar control glass to south elevation'],
  ['/jobs/2114/changes/CO1', 'Cost'],
  ['/jobs/2119/estimates', 'Estimates'],
  ['/jobs/2119/estimates/1', '2119 Pell Street library, reading room and annexe'],
  ['/jobs/2119/estimates/1/award', 'Schedule of values'],
  ['/jobs/2119/estimates/compare/1/2', 'Estimates 1 and 2 side by side'],
  ['/jobs/2098/estimates/1', 'As offered'],
];

/** Tables that stand out of the column they are in, and so over what is beside it; those in a box that scrolls do not. */
const overlapping = (page: Page) =>
  page.evaluate(() => {
    const scrolls = (it: Element | null): boolean =>
      it !== null && it.tagName !== 'MAIN' && (getComputedStyle(it).overflowX !== 'visible' || scrolls(it.parentElement));
    const right = (it: Element | null) => it?.getBoundingClientRect().right ?? 0;
    return [...document.querySelectorAll('main table')]
      .filter((it) => !scrolls(it.parentElement) && right(it) > right(it.parentElement) + 1)
      .map((it) => `table ${it.getAttribute('aria-label') ?? ''} stands out`);
  });

for (const scheme of ['light', 'dark'] as const) {
  test(`every view opens in the ${scheme} scheme: no error, no accessibility fault, nothing wider than the window`, async ({
    browser,
  }) => {
    test.setTimeout(900_000);
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, colorScheme: scheme });
    const page = await context.newPage();
    const errors: string[] = [];
    const faults: string[] = [];
    page.on('console', (message) => message.type() === 'error' && errors.push(message.text()));
    page.on('pageerror', (error) => errors.push(error.message));
    for (const [path, heading] of VIEWS) {
      await page.goto(running.url + path);
      await expect(page.getByRole('heading', { name: heading, exact: true }).first()).toBeVisible();
      await expect(page.getByRole('status').filter({ hasText: /^Reading/ })).toHaveCount(0);
      const { violations } = await new AxeBuilder({ page }).analyze();
      faults.push(
        ...violations.map(
          (it) =>
            `${path} ${it.id}: ${it.nodes
              .map((node) => node.html)
              .slice(0, 3)
              .join(' | ')}`,
        ),
      );
      // As wide as the window, as narrow as a small laptop's, and on a sheet of A4 across, without the navigation.
      for (const [media, window] of [
        ['screen', 1280],
        ['screen', 1024],
        ['print', 1032],
      ] as const) {
        await page.emulateMedia({ media });
        await page.setViewportSize({ width: window, height: 800 });
        // Charts are drawn at their new width a moment later.
        const wide = () => page.evaluate(() => document.documentElement.scrollWidth);
        await expect
          .poll(wide, { timeout: 2000 })
          .toBeLessThanOrEqual(window)
          .catch(() => undefined);
        const width = await wide();
        if (width > window) faults.push(`${path} is ${width} wide, ${media} ${window}`);
        faults.push(...(await overlapping(page)).map((it) => `${path}: ${it}, ${media} ${window}`));
        const band = page.getByRole('navigation', { name: 'Main navigation' });
        if ((await band.isVisible()) !== (media === 'screen')) faults.push(`${path}: navigation on ${media}`);
      }
      await page.emulateMedia({ media: 'screen' });
      await page.setViewportSize({ width: 1280, height: 800 });
    }
    expect([...faults, ...errors]).toEqual([]);
    await context.close();
  });
}

test('the product opens at the newest month with entries, and a month back changes every figure', async ({ page }) => {
  await page.goto(`${running.url}/`);
  await expect(page.getByLabel('As at')).toHaveValue('30 Apr 2031');
  const earned = page.getByRole('row', { name: /2108/ }).getByRole('button', { name: /Complete/ });
  const april = await earned.textContent();
  await page.keyboard.press('[');
  await expect(page).toHaveURL(/as-of=2031-03/);
  await expect(earned).not.toHaveText(april!);
  // Every way on keeps the day.
  await page.getByRole('navigation', { name: 'Main navigation' }).getByRole('link', { name: 'Reports' }).click();
  await expect(page).toHaveURL(/work-in-progress\?as-of=2031-03/);
  await page.goBack();
  await page.keyboard.press(']');
  await expect(earned).toHaveText(april!);
});

test('jobs are filtered, sorted and found; the command box goes anywhere', async ({ page }) => {
  await page.goto(`${running.url}/jobs`);
  await expect(page.locator('tbody tr').first()).toBeVisible();
  await page.keyboard.press('Tab');
  await expect(page.getByRole('link', { name: 'Skip to the page' })).toBeFocused();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('main').locator('#page :focus')).toBeVisible();
  await choose(page.getByLabel('Manager'), 'Ines Tolland');
  await expect(page.locator('tbody tr')).toHaveCount(5);
  await page.getByRole('button', { name: 'Margin %' }).click();
  await expect(page.locator('tbody tr').first()).toContainText('2105');
  await page.getByLabel('Find a job').fill('library, reroofing');
  await expect(page.locator('tbody tr')).toHaveCount(1);
  await page.keyboard.press('Control+k');
  await page.keyboard.type('2111');
  await expect(page.getByRole('option', { name: /2111/, selected: true })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: '2111 Threap Road depot, over-roofing' })).toBeVisible();
  await page.keyboard.press('3');
  await expect(page).toHaveURL(/\/jobs\/2111\/budget/);
});

test('the cost ledger is narrowed by its subtotals and scrolls to its last row', async ({ page }) => {
  await page.goto(`${running.url}/costs/ledger?by=type`);
  await page.getByRole('button', { name: 'labour' }).click();
  await expect(page.getByLabel('Type', { exact: true })).toHaveText('labour');
  const box = page.getByRole('region', { name: 'Cost entries' });
  await expect(box.locator('tbody tr').nth(20)).toBeVisible();
  await box.evaluate((element) => element.scrollTo(0, element.scrollHeight));
  await expect(box.locator('tbody tr').filter({ hasText: '11 Nov 2029' }).last()).toBeVisible();
});

test('a printed application agrees with the screen to the penny', async ({ page }) => {
  await page.goto(`${running.url}/jobs/2104/billing/14`);
  await expect(page.getByRole('complementary', { name: 'What it comes to' })).toContainText('112,980.00');
  const summary = await page.request.get(
    `${running.url}/api/reports/application-summary.csv?asOf=2031-04&job=2104&application=14`,
  );
  expect(await summary.text()).toContain('payable,112980.00');
});
