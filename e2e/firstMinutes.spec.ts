import { expect, test, type Locator, type Page } from '@playwright/test';
import { ledrin, startLedrin, type Running } from './server';

let running: Running;
test.beforeAll(async () => {
  running = await startLedrin();
});
test.afterAll(() => running.stop());

/** Counts what somebody does: a click, a key, a field or cell typed in. */
class Acts {
  count = 0;

  constructor(readonly page: Page) {}

  async click(what: Locator): Promise<void> {
    await what.click();
    this.count += 1;
  }

  async fill(what: Locator, text: string): Promise<void> {
    await what.fill(text);
    this.count += 1;
  }

  /** Types in the cell one is in, and goes on to the next. */
  async cell(text: string): Promise<void> {
    await this.page.keyboard.type(text);
    await this.page.keyboard.press('Tab');
    this.count += text === '' ? 1 : 2;
  }

  async press(key: string): Promise<void> {
    await this.page.keyboard.press(key);
    this.count += 1;
  }
}

/*
 * Worked by hand. Eight hours at 22.50 are 180.00; material for 300.00: 480.00 of cost. A gate for 1,200.00 is billed whole: 5 % held,
 * 1,140.00 due, 228.00 tax at 20 %, 1,368.00 payable.
 */
test('from an empty database: the first job, hour, cost and bill in under three minutes and 120 acts, and no list before what needs it', async ({
  page,
}) => {
  const errors: string[] = [];
  page.on('console', (message) => message.type() === 'error' && !/409|400/.test(message.text()) && errors.push(message.text()));
  const acts = new Acts(page);
  const began = Date.now();
  const button = (name: string | RegExp) => page.getByRole('button', { name, exact: typeof name === 'string' });
  const cell = (name: string, row: number) => page.getByLabel(`${name}, row ${row}`, { exact: true });
  await page.goto(running.url);

  await test.step('a job of number, name and client', async () => {
    await acts.click(button('Start with a first job'));
    await acts.fill(page.getByLabel('Company name'), 'Aldergate Cladding');
    await acts.press('Enter');
    await acts.click(button('New client'));
    await acts.fill(page.getByLabel('Short code'), 'NORTH');
    await acts.fill(page.getByLabel('Client name'), 'Northbeck Estates');
    await acts.click(page.getByLabel(/^Never certifies/));
    await acts.click(button('Add client'));
    await expect(page.getByLabel('Client', { exact: true })).toContainText('NORTH');
    await acts.fill(page.getByLabel('Name', { exact: true }), 'Yard gate');
    await acts.click(button('Set up job 1001'));
    await expect(page.getByRole('heading', { name: '1001 Yard gate' })).toBeVisible();
  });

  await test.step('its first hours, with the employee and the cost code added where they are needed', async () => {
    await acts.click(page.getByRole('link', { name: 'Costs', exact: true }));
    await acts.click(page.getByRole('link', { name: 'Week sheets' }));
    await acts.click(page.getByRole('link', { name: 'New week sheet' }));
    await acts.fill(page.getByLabel('Name', { exact: true }), 'Ann Ash');
    await acts.fill(page.getByLabel('Short code'), 'AA');
    await acts.fill(page.getByLabel('Costs an hour'), '22.50');
    await acts.press('Enter');
    await acts.click(cell('Employee', 1));
    for (const text of ['AA', '1001', '', '100', '', '8']) await acts.cell(text);
    await acts.fill(page.getByLabel('Description of 100'), 'Gates');
    await acts.click(button('Add 100 to the cost codes'));
    await acts.click(button('Preview, to approve and post it now'));
    await acts.click(button('Approve and post 1 line, 180.00'));
    await expect(page.getByText(/posted 1 line of time, 180.00/)).toBeVisible();
  });

  await test.step('its first cost, with the vendor added in place', async () => {
    await acts.click(page.getByRole('link', { name: 'Enter costs' }));
    await expect(cell('Date', 1)).toBeFocused();
    // The day is proposed, and taken by Space.
    await acts.press('Space');
    await acts.press('Tab');
    for (const text of ['1001', '', '100', 'material', 'PANEL', 'D-1', '', '300', 'Steel']) await acts.cell(text);
    await acts.click(button('Add PANEL as a vendor'));
    await expect(page.getByText('Not a vendor yet')).toHaveCount(0);
    await acts.click(button('Preview 1 line, 300.00'));
    await acts.click(button('Post 1 line, 300.00'));
    await expect(page.getByText('Posted 1 line, 300.00')).toBeVisible();
  });

  await test.step('its first bill: the schedule when it is known, one percentage, billed in one act', async () => {
    await acts.click(page.getByRole('link', { name: 'Jobs', exact: true }));
    await acts.click(page.getByRole('link', { name: '1001', exact: true }));
    await acts.click(page.getByRole('link', { name: 'Enter the schedule of values' }));
    await acts.click(cell('Line', 1));
    for (const text of ['1', '', 'Gate, made and fitted', '1200']) await acts.cell(text);
    await acts.click(button('Save schedule and budget, 1,200.00'));
    await acts.click(page.getByLabel('Parts of the job').getByRole('link', { name: /^Billing/ }));
    await acts.click(button('Start application 1'));
    await acts.fill(page.getByLabel('All lines, %'), '100');
    await acts.press('Enter');
    await expect(page.getByText(/Invoice 1, due/)).toBeVisible();
    await acts.click(button('Bill it, 1,368.00'));
    await expect(page.getByText(/is billed: 1,368.00 payable/)).toBeVisible();
  });

  expect((Date.now() - began) / 1000).toBeLessThan(180);
  expect(acts.count).toBeLessThanOrEqual(120);
  expect(errors).toEqual([]);
  const month = new Date().toISOString().slice(0, 7);
  const ties = await ledrin('report', 'tie-out', '--db', running.database, '--as-of', `${month}-28`);
  expect(
    ties
      .split('\n')
      .slice(1)
      .filter(Boolean)
      .every((it) => it.endsWith(',0.00')),
  ).toBe(true);
  const [row] = (await ledrin('report', 'wip', '--db', running.database, '--as-of', '2099-12-31')).split('\n').slice(1);
  expect(row).toMatch(/^1001,Yard gate,1200\.00,/);
  expect(row).toContain(',480.00,');
});
