import { expect, test, type Page } from '@playwright/test';
import { Secret, TOTP } from 'otpauth';
import { choose } from './choose';
import { startLedrin, type Running } from './server';

let running: Running;
test.beforeAll(async () => {
  running = await startLedrin('demo/book', { owned: false, demo: true });
});
test.afterAll(() => running.stop());

const asRole = async (page: Page, role: string) => {
  await page.goto(`${running.url}/`);
  await page.getByRole('button', { name: new RegExp(`^${role} `) }).click();
  await expect(page.getByRole('heading', { name: 'Sign in', exact: true })).toHaveCount(0);
};
const bands = (page: Page) => page.getByRole('navigation', { name: 'Main navigation' }).getByRole('link').allTextContents();

test('the accountant opens on the jobs, has all the books, and is signed out of every page', async ({ page }) => {
  await asRole(page, 'accountant');
  await expect(page.getByRole('heading', { name: 'Jobs', exact: true })).toBeVisible();
  expect(await bands(page)).toEqual(['Tenders', 'Jobs', 'Costs', 'Billing', 'Reports', 'Ledger', 'Set-up']);
  await page.getByRole('link', { name: 'Set-up' }).click();
  await expect(page.getByRole('link', { name: 'People' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Users' })).toHaveCount(0);
  await page.getByRole('button', { name: /Nora Quill: account and sign out/ }).click();
  await page.getByRole('button', { name: 'Sign out', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await page.goBack();
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
});

test('the manager sees the jobs of the team alone, and is offered what may be done on them', async ({ page }) => {
  await asRole(page, 'manager');
  await expect(page.getByText('3 jobs in the schedule')).toBeVisible();
  expect(await bands(page)).toEqual(['Jobs', 'Costs', 'Billing', 'Reports']);
  await page.goto(`${running.url}/jobs/2105?as-of=2031-04`);
  await expect(page.getByText('There is no job 2105')).toBeVisible();
  await page.goto(`${running.url}/jobs/2108/changes?as-of=2031-04`);
  await expect(page.getByRole('link', { name: 'Raise a change' })).toBeVisible();
  await page.goto(`${running.url}/costs/ledger?as-of=2031-04`);
  await expect(page.getByRole('region', { name: 'Cost entries' })).toBeVisible();
  await expect(page.getByRole('checkbox')).toHaveCount(0);
  await page.goto(`${running.url}/costs?as-of=2031-04`);
  await page.goto(`${running.url}/set-up/users`);
  await expect(page.getByText(/As manager you may not do this/)).toBeVisible();
});

test('the estimator opens on the tenders and posts nothing', async ({ page }) => {
  await asRole(page, 'estimator');
  await expect(page.getByRole('heading', { name: 'Tenders', exact: true })).toBeVisible();
  expect(await bands(page)).toEqual(['Tenders', 'Jobs', 'Costs', 'Billing', 'Reports']);
  await page.goto(`${running.url}/jobs/2108/billing?as-of=2031-04`);
  await expect(page.getByRole('table', { name: 'Applications' })).toBeVisible();
  await expect(page.getByRole('button', { name: /Start application/ })).toHaveCount(0);
});

test('the site sees own jobs, on a phone, without money', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 760 });
  await asRole(page, 'site');
  await page.getByRole('link', { name: /2105/ }).click();
  await expect(page.getByRole('heading', { name: 'Sections' })).toBeVisible();
  await expect(page.getByText('Jory Sedge').first()).toBeVisible();
  const hours = /^[\d,]+ of [\d,]+ h used.*$/gm;
  const text = await page.locator('body').innerText();
  expect(text).toMatch(hours);
  expect(text.replace(hours, '')).not.toMatch(/GBP|£|\d,\d{3}|\d\.\d\d/);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await page.goto(`${running.url}/jobs/2105`);
  await expect(page.getByRole('heading', { name: 'Your jobs' })).toBeVisible();
});

test('a second factor is turned on with an app, asked for at the next sign-in, and opened with a recovery code', async ({
  page,
}) => {
  await asRole(page, 'owner');
  await page.goto(`${running.url}/set-up/users`);
  await page.getByRole('button', { name: 'Invite somebody' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Una Lark');
  await page.getByLabel('E-mail').fill('una@brackenfell.example');
  await page.getByRole('button', { name: 'Make the invitation' }).click();
  const { pathname } = new URL(await page.getByLabel('Invitation link').inputValue());
  await page.goto(`${running.url}${pathname}`);
  await page.getByLabel('Password', { exact: true }).fill('rain on the roof tiles');
  await page.getByRole('button', { name: 'Set password and sign in' }).click();
  await page.getByRole('button', { name: /Una Lark: account/ }).click();
  await page.getByRole('link', { name: 'Your account' }).click();
  await page.getByRole('form', { name: 'Begin the second factor' }).getByLabel('Your password').fill('rain on the roof tiles');
  await page.getByRole('button', { name: 'Turn it on …' }).click();
  const key = (await page.getByText('Or type this key:').textContent())!.split(': ')[1]!;
  await page.getByLabel('Code', { exact: true }).fill(new TOTP({ secret: Secret.fromBase32(key) }).generate());
  await page.getByRole('button', { name: 'Turn it on', exact: true }).click();
  await expect(page.getByText('It is on. Write these recovery codes down')).toBeVisible();
  const codes = await page.getByRole('status').getByRole('listitem').allTextContents();
  expect(codes).toHaveLength(10);
  await page.getByRole('button', { name: /Una Lark: account/ }).click();
  await page.getByRole('button', { name: 'Sign out', exact: true }).click();
  await page.getByLabel('Name or e-mail').fill('Una Lark');
  await page.getByLabel('Password', { exact: true }).fill('rain on the roof tiles');
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await page.getByLabel('Code', { exact: true }).fill(codes[0]!);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(page.getByRole('button', { name: /Una Lark: account/ })).toBeVisible();
});

test('the owner invites somebody, whose session ends in the midst of typing: what is typed stays', async ({ page, browser }) => {
  await asRole(page, 'owner');
  await page.goto(`${running.url}/set-up/users`);
  await page.getByRole('button', { name: 'Invite somebody' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Ines Tolland');
  await page.getByLabel('E-mail').fill('ines@brackenfell.example');
  await choose(page.getByLabel('Role'), 'accountant');
  await page.getByRole('button', { name: 'Make the invitation' }).click();
  const link = await page.getByLabel('Invitation link').inputValue();
  const context = await browser.newContext();
  const ines = await context.newPage();
  await ines.goto(`${running.url}${new URL(link).pathname}`);
  await expect(ines.getByRole('heading', { name: 'Welcome, Ines Tolland' })).toBeVisible();
  await ines.getByLabel('Password', { exact: true }).fill('rain on the roof tiles');
  await ines.getByRole('button', { name: 'Set password and sign in' }).click();
  await expect(ines.getByRole('heading', { name: 'Jobs', exact: true })).toBeVisible();
  await ines.goto(`${running.url}/set-up/clients`);
  await ines.getByRole('button', { name: 'New client' }).click();
  await ines.getByLabel('Code', { exact: true }).fill('LANTERN');
  await ines.getByLabel('Name', { exact: true }).fill('Lantern Estates');
  // Somewhere else all sessions are ended.
  await ines.request.post(`${running.url}/api/sign-out`);
  await ines.getByRole('button', { name: 'Add client' }).click();
  await expect(ines.getByRole('heading', { name: 'Sign in to go on' })).toBeVisible();
  await ines.getByLabel('Name or e-mail').fill('ines@brackenfell.example');
  await ines.getByLabel('Password', { exact: true }).fill('rain on the roof tiles');
  await ines.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(ines.getByRole('heading', { name: 'Sign in to go on' })).toHaveCount(0);
  await expect(ines.getByLabel('Code', { exact: true })).toHaveValue('LANTERN');
  await ines.getByRole('button', { name: 'Add client' }).click();
  await expect(ines.getByText('Added client LANTERN')).toBeVisible();
  await context.close();
});
