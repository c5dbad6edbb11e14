import { expect, test, type Browser, type Page } from '@playwright/test';
import { startLedrin, type Running } from './server';

let running: Running;
test.beforeAll(async () => {
  running = await startLedrin('demo/book', { owned: false, demo: true });
});
test.afterAll(() => running.stop());

/** A browser of its own, in which somebody of a role is signed in. */
async function as(browser: Browser, role: string): Promise<Page> {
  const page = await (await browser.newContext({ baseURL: running.url, storageState: { cookies: [], origins: [] } })).newPage();
  await page.goto('/');
  await page.getByRole('button', { name: new RegExp(`^${role} `) }).click();
  await expect(page.getByRole('heading', { name: 'Sign in', exact: true })).toHaveCount(0);
  return page;
}

test('a transfer waits for the owner, is given, carried out by the manager and stands on the job', async ({ browser }) => {
  const [owner, manager] = [await as(browser, 'owner'), await as(browser, 'manager')];
  await owner.getByRole('link', { name: /Waiting for you:/ }).click();
  await owner.getByRole('link', { name: 'Approval for moving budget between lines' }).click();
  await expect(owner.getByText('12,000.00').first()).toBeVisible();
  await expect(owner.getByText('Panels come cut to size: less labour, more material')).toBeVisible();
  await owner.getByLabel('Note, or why it is refused').fill('Agreed with the works');
  await owner.getByRole('button', { name: 'Give approval' }).click();
  await expect(owner.getByText(/^Given by Halvard Brack.*Agreed with the works; not yet carried out$/)).toBeVisible();
  await manager.goto('/waiting');
  await manager.getByRole('link', { name: 'Approval for moving budget between lines' }).click();
  await manager.getByRole('button', { name: 'Carry it out' }).click();
  await expect(manager).toHaveURL(/\/jobs\/2108\/budget/);
  const transfers = manager.getByRole('region', { name: 'Budget transfers' });
  await expect(transfers.getByText(/given by Halvard Brack.*carried out$/)).toBeVisible();
  await expect(transfers.getByRole('cell', { name: 'Panels come cut to size: less labour, more material' })).toBeVisible();
});

test('the accountant asks to reverse a certification where she stands, with the reason she typed; the owner refuses it', async ({
  browser,
}) => {
  const [owner, accountant] = [await as(browser, 'owner'), await as(browser, 'accountant')];
  await accountant.goto('/jobs/2110/billing/8?as-of=2031-04');
  await accountant.getByRole('button', { name: /^Certify application 8/ }).click();
  await accountant.getByRole('button', { name: 'Reverse certification …' }).click();
  await accountant.getByLabel('Reason').fill('Figures of the month before');
  await accountant.getByRole('button', { name: 'Reverse certification of application 8' }).click();
  const dialog = accountant.getByRole('dialog', { name: 'Ask for approval' });
  await expect(dialog.getByText(/Reversing a certification has to be approved by an owner/)).toBeVisible();
  await expect(dialog.getByLabel('Reason')).toHaveValue('Figures of the month before');
  await dialog.getByRole('button', { name: 'Ask for approval' }).click();
  await expect(dialog).toHaveCount(0);
  // What was typed is still there, and the application says what it waits for.
  await expect(accountant.getByLabel('Reason')).toHaveValue('Figures of the month before');
  const approvals = accountant.getByRole('region', { name: 'Approvals' });
  await expect(approvals.getByText(/waits for an owner$/)).toBeVisible();
  await owner.goto('/waiting');
  await owner.getByRole('link', { name: 'Approval for reversing a certification' }).click();
  await owner.getByRole('button', { name: 'Refuse' }).click();
  await expect(owner.getByText('Say why it is refused')).toBeVisible();
  await owner.getByLabel('Note, or why it is refused').fill('Put it right in the next one');
  await owner.getByRole('button', { name: 'Refuse' }).click();
  await accountant.reload();
  await expect(approvals.getByText(/refused by Halvard Brack.*Put it right in the next one$/)).toBeVisible();
});

test('the owner takes a report and an action from managers, who are offered neither from then on', async ({ browser }) => {
  const [owner, manager] = [await as(browser, 'owner'), await as(browser, 'manager')];
  await owner.goto('/set-up/roles');
  await owner.getByRole('checkbox', { name: 'Ageing: manager' }).uncheck();
  await owner.getByRole('checkbox', { name: 'Move budget between lines: manager' }).uncheck();
  await owner.getByRole('button', { name: 'Save roles' }).click();
  await expect(owner.getByText('2 removed')).toBeVisible();
  await manager.goto('/jobs/2108/budget?as-of=2031-04');
  await expect(manager.getByRole('heading', { name: 'Budget transfers' })).toBeVisible();
  await expect(manager.getByRole('button', { name: /Move budget between lines/ })).toHaveCount(0);
  await manager.getByRole('link', { name: 'Reports' }).click();
  await expect(manager.getByRole('link', { name: 'Change orders', exact: true })).toBeVisible();
  await expect(manager.getByRole('link', { name: 'Ageing', exact: true })).toHaveCount(0);
  await manager.goto('/reports/ageing');
  await expect(manager.getByText(/As manager you may not do this/)).toBeVisible();
});
