import { expect, test, type Browser, type Page } from '@playwright/test';
import { startLedrin, type Running } from './server';

let running: Running;
test.beforeAll(async () => {
  running = await startLedrin('demo/book');
});
test.afterAll(() => running.stop());

/** Two people, each at a page of their own. */
async function twoPages(browser: Browser): Promise<[Page, Page]> {
  return (await Promise.all([0, 1].map(async () => (await browser.newContext()).newPage()))) as [Page, Page];
}

/** Both open the same address, and have what is saved there before either types: else the second may read what the first saved. */
async function bothOpen(pages: readonly Page[], address: string, field: string): Promise<void> {
  for (const page of pages) {
    await page.goto(`${running.url}${address}`);
    await page.getByLabel(field, { exact: true }).waitFor();
  }
}

test('what one keeps is not written over by the other, who is told and loses nothing typed', async ({ browser }) => {
  const [first, second] = await twoPages(browser);
  await bothOpen([first, second], '/jobs/2116/file?as-of=2031-04', 'Estimator');
  await second.getByLabel('Name, row 1', { exact: true }).fill('Typed by the second');
  await first.getByLabel('Estimator').fill('Kept by the first');
  await first.getByRole('button', { name: 'Save job details' }).click();
  await expect(first.getByRole('button', { name: 'Saved' })).toBeVisible();
  await second.getByLabel('Site', { exact: true }).fill('Elsewhere');
  await second.getByRole('button', { name: 'Save job details' }).click();
  await expect(second.getByText(/The details of this job changed after you opened it/)).toBeVisible();
  await expect(second.getByLabel('Site', { exact: true })).toHaveValue('Elsewhere');
  // Something else saved on the same page reads everything again; what is typed and not saved stays as it is.
  await second.getByLabel('What', { exact: true }).fill('A call');
  await second.getByRole('button', { name: 'Add note' }).click();
  await expect(second.getByText('A call')).toBeVisible();
  await expect(second.getByLabel('Site', { exact: true })).toHaveValue('Elsewhere');
  await expect(second.getByLabel('Name, row 1', { exact: true })).toHaveValue('Typed by the second');
  await second.getByRole('button', { name: 'Save job details' }).click();
  await expect(second.getByText(/The details of this job changed after you opened it/)).toBeVisible();
  await first.reload();
  await expect(first.getByLabel('Estimator')).toHaveValue('Kept by the first');
  await expect(first.getByLabel('Site', { exact: true })).not.toHaveValue('Elsewhere');
});

test('a change order and a billing schedule kept twice tell the second, with all that was typed still there', async ({
  browser,
}) => {
  const [first, second] = await twoPages(browser);
  await bothOpen([first, second], '/jobs/2114/changes/CO1?as-of=2031-04', 'Title');
  for (const [page, name] of [
    [first, 'As the first has it'],
    [second, 'As the second has it'],
  ] as const) {
    await page.getByLabel('Title').fill(name);
    await page.getByRole('button', { name: /^Save CO1/ }).click();
    // The second goes only when the first is through.
    if (page === first) await expect(page.getByText('CO1 saved')).toBeVisible();
  }
  await expect(second.getByText(/Accounts office saved CO1 at/)).toBeVisible();
  await expect(second.getByLabel('Title')).toHaveValue('As the second has it');
  await first.reload();
  await expect(first.getByLabel('Title')).toHaveValue('As the first has it');

  await bothOpen([first, second], '/jobs/2116/billing/schedule?as-of=2031-04', 'Instalment, row 1');
  for (const [page, name] of [
    [first, 'Signed'],
    [second, 'Ordered'],
  ] as const) {
    await page.getByLabel('Instalment, row 1', { exact: true }).fill(name);
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'Save schedule' }).click();
    if (page === first) await expect(page.getByRole('button', { name: 'Saved', exact: true })).toBeVisible();
  }
  await expect(second.getByText(/This billing schedule changed after you opened it/)).toBeVisible();
  await expect(second.getByLabel('Instalment, row 1', { exact: true })).toHaveValue('Ordered');
  await expect(first.getByLabel('Instalment, row 1', { exact: true })).toHaveValue('Signed');
  // Laid out over what is typed, it can be taken back.
  await second.getByRole('button', { name: 'Lay out …' }).click();
  await second.getByRole('button', { name: 'Lay out by stages' }).click();
  await expect(second.getByLabel('Instalment, row 1', { exact: true })).toHaveValue('Plant deck, start');
  await second.getByRole('button', { name: 'Undo' }).click();
  await expect(second.getByLabel('Instalment, row 1', { exact: true })).toHaveValue('Ordered');
});

test('two who type in one estimate find both their lines in it, and who came first', async ({ browser }) => {
  const [first, second] = await twoPages(browser);
  await bothOpen([first, second], '/jobs/2119/estimates/2', 'Name of the estimate');
  const line = (page: Page, row: number) =>
    page.getByRole('grid', { name: /^Lines of/ }).getByLabel(`Description, row ${row}`, { exact: true });
  const [one, two] = [await line(first, 1).inputValue(), await line(first, 2).inputValue()];
  await line(first, 1).fill(`${one}, by the first`);
  await first.keyboard.press('Enter');
  const kept = async () =>
    (await (await first.request.get(`${running.url}/api/jobs/2119/estimates/2`)).json()).lines[0].description;
  await expect.poll(kept).toBe(`${one}, by the first`);
  await line(second, 2).fill(`${two}, by the second`);
  await second.keyboard.press('Enter');
  await expect(line(second, 1)).toHaveValue(`${one}, by the first`);
  await expect(second.getByText(/Accounts office saved this estimate at .* Taken over from theirs/)).toBeVisible();
  await expect(line(second, 2)).toHaveValue(`${two}, by the second`);
  await expect(async () => {
    await first.reload();
    await expect(line(first, 2)).toHaveValue(`${two}, by the second`, { timeout: 5_000 });
    await expect(line(first, 1)).toHaveValue(`${one}, by the first`);
  }).toPass({ timeout: 90_000 });
});
