import { expect, test, type Page } from '@playwright/test';
import { startLedrin, type Running } from './server';

let running: Running;
test.beforeAll(async () => {
  running = await startLedrin('demo/book');
});
test.afterAll(() => running.stop());

/** Hands on a keyboard: counts the keys beyond the text itself. */
class Hands {
  keys = 0;

  constructor(readonly page: Page) {}

  async press(key: string, times = 1): Promise<void> {
    for (let i = 0; i < times; i++) await this.page.keyboard.press(key);
    this.keys += times;
  }

  async type(text: string): Promise<void> {
    await this.page.keyboard.type(text);
  }
}

test('ten cost lines are entered and posted by the keyboard, in at most 14 keys a line beyond their text: columns nobody uses are hidden, and Tab passes them', async ({
  page,
}) => {
  await page.goto(`${running.url}/costs?as-of=2031-04`);
  await expect(page.getByLabel('Date, row 1', { exact: true })).toBeFocused();
  const hands = new Hands(page);
  for (let line = 1; line <= 10; line++) {
    for (const text of ['28', '2108', 'Podium', '0610', 'labour', 'Crew Dray', `K-${line}`, '4', '120.50', 'Seals']) {
      // Job and section of the line above stand there in grey, and are taken by Space.
      if (line > 1 && (text === '2108' || text === 'Podium')) await hands.press('Space');
      else await hands.type(text);
      await hands.press('Tab');
    }
  }
  // Party and code alone say where the next of them likely goes.
  await page.getByLabel('Supplier / payee, row 11', { exact: true }).fill('Crew Dray');
  await page.getByLabel('Code, row 11', { exact: true }).fill('0610');
  await page.getByLabel('Job, row 11', { exact: true }).focus();
  await expect(page.getByLabel('Job, row 11', { exact: true })).toHaveAttribute('placeholder', '2108');
  await page.getByRole('button', { name: 'Remove row 11' }).click();
  await page.getByLabel('Date, row 11', { exact: true }).focus();
  await hands.press('Alt+p');
  await expect(page.getByRole('heading', { name: 'Effect on jobs' })).toBeVisible();
  await hands.press('Alt+Enter');
  await expect(page.getByText('Posted 10 lines, 1,205.00')).toBeVisible();
  expect(hands.keys / 10).toBeLessThanOrEqual(14);
});

test('an application of nine lines and more is started, filled and submitted by the keyboard in at most 45 keys', async ({
  page,
}) => {
  await page.goto(`${running.url}/jobs/2104?as-of=2031-05`);
  await expect(page.getByRole('heading', { name: /^2104/ })).toBeVisible();
  const hands = new Hands(page);
  await hands.press('6');
  await expect(page.getByRole('button', { name: /Start application/ })).toBeVisible();
  await hands.press('Alt+Enter');
  await expect(page.getByLabel('% to date, row 1', { exact: true })).toBeVisible();
  await expect(page.getByRole('textbox').and(page.locator(':focus'))).toHaveCount(1);
  for (let line = 1; line <= 10; line++) {
    await hands.type('100');
    await hands.press('Enter');
  }
  await hands.press('Alt+Enter');
  await expect(page.getByText('Submitted, awaiting certification')).toBeVisible();
  console.log(`application: ${hands.keys} keys`);
  expect(hands.keys).toBeLessThanOrEqual(45);
});

test('what opens has the focus, Esc gives it back, and nothing that goes leaves it nowhere', async ({ page }) => {
  const focus = page.locator(':focus');
  // Workings: in by Enter, out by Esc, on the figure again.
  await page.goto(`${running.url}/reports/work-in-progress?as-of=2031-04`);
  const figure = page.getByRole('button', { name: /show its workings/ }).first();
  await figure.focus();
  await page.keyboard.press('Enter');
  const workings = page.getByRole('complementary', { name: 'Workings' });
  await expect(workings).toBeFocused();
  await page.keyboard.press('Tab');
  await expect(workings.getByRole('button', { name: 'Close, Esc' })).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(workings).toHaveCount(0);
  await expect(figure).toBeFocused();
  // What is new begins in its first field.
  await page.goto(`${running.url}/tenders/build-ups`);
  await page.getByRole('button', { name: 'New build-up' }).press('Enter');
  await expect(page.getByRole('textbox', { name: 'Code', exact: true })).toBeFocused();
  await page.goto(`${running.url}/jobs/2119/estimates`);
  await page.getByRole('button', { name: 'New estimate' }).press('Enter');
  await expect(page.getByLabel('Line, row 1', { exact: true })).toBeFocused();
  // A form that opens in place of its button, and a document that is reversed with it.
  await page.goto(`${running.url}/ledger/postings/178`);
  const reverse = page.getByRole('button', { name: 'Reverse this document …' });
  await reverse.press('Enter');
  await expect(page.getByLabel('Reason')).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(reverse).toBeFocused();
  await page.keyboard.press('Enter');
  await page.keyboard.type('Entered twice');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/^Document 178 was reversed already/)).toBeVisible();
  await expect(page.locator('#page')).toBeFocused();
  await page.keyboard.press('n');
  await expect(page).toHaveURL(/postings\/179/);
  await expect(focus).toHaveCount(1);
});
