import { expect, test } from '@playwright/test';
import { paste } from './paste';
import { ledrin, startLedrin, type Running } from './server';

let running: Running;
test.beforeAll(async () => {
  running = await startLedrin(undefined, { owned: false });
});
test.afterAll(() => running.stop());

/*
 * Worked by hand. Contract 10,000.00: framing 6,000.00, panels 4,000.00; retention 5 %, VAT 20 %. Budget: labour 3,600.00 with
 * 120 h, material 2,400.00, together 6,000.00. Cost in May: labour 1,250.00 (50 h), material 1,000.00, and 150.00 with no budget.
 * E = 3,600 + 2,400 + 150 = 6,150.00; C = 2,400.00; complete 2,400 ÷ 6,150 = 39.0244 %; earned 3,902.44; margin 38.5 %.
 * Application 1: framing 50 % = 3,000.00, panels 800.00, materials on site 200.00: gross 4,000.00, retention 200.00, due 3,800.00,
 * tax 760.00, payable 4,560.00. Certified for 2,900.00 on framing: gross 3,900.00, retention 195.00, due 3,705.00, payable 4,446.00.
 * Underbilled 3,902.44 − 3,900.00 = 2.44. Received 4,446.00.
 */
test('a newcomer takes a first job from nothing to the work-in-progress schedule', async ({ page }) => {
  const errors: string[] = [];
  page.on('console', (message) => message.type() === 'error' && !/409|400/.test(message.text()) && errors.push(message.text()));
  await page.goto(running.url);
  await test.step('becomes the owner, with a password that is good enough', async () => {
    await page.getByLabel('Your name').fill('Ann Ash');
    await page.getByLabel('E-mail').fill('ann@aldergate.example');
    await page.getByLabel('Password').fill('password1234');
    await page.getByRole('button', { name: 'Become the owner' }).click();
    await expect(page.getByText('among the passwords everybody tries first')).toBeVisible();
    await page.getByLabel('Password').fill('four words in a row');
    await page.getByLabel('Password').press('Enter');
  });
  await expect(page.getByRole('heading', { name: 'Get started' })).toBeVisible();
  await expect(page.getByText('Import CSV files or a ZIP …')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Load the sample company' })).toBeVisible();

  await test.step('names the company by keyboard', async () => {
    await page.getByRole('button', { name: 'Start with a first job' }).press('Enter');
    await page.getByLabel('Company name').fill('Aldergate Cladding');
    await page.getByLabel('Company name').press('Enter');
    await expect(page.getByRole('heading', { name: 'New job' })).toBeVisible();
  });

  await test.step('sets up the job, what is typed still there after a reload', async () => {
    await page.getByRole('button', { name: 'New client' }).click();
    await page.getByLabel('Short code').fill('NORTH');
    await page.getByLabel('Client name').fill('Northbeck Estates');
    await page.getByLabel('Client name').press('Enter');
    await expect(page.getByLabel('Client', { exact: true })).toContainText('North');
    await page.getByLabel('Name', { exact: true }).fill('Mill, east wall');
    await page.getByRole('button', { name: /Dates, people, retention and terms/ }).click();
    await page.getByLabel('Contract sum').fill('10000');
    await page.getByLabel('Awarded on').fill('2 May 2031');
    await page.getByRole('button', { name: /Schedule of values and budget/ }).click();
    await page.getByLabel('Line, row 1', { exact: true }).focus();
    await paste(page, '1\t\tFraming\t6,000.00\n2\t\tPanels\t3,900.00\n');
    await expect(page.getByText('difference 100.00')).toBeVisible();
    await page.getByLabel('Scheduled value, row 2').focus();
    await page.keyboard.type('4000');
    await page.keyboard.press('Enter');
    await expect(page.getByText('difference 0.00')).toBeVisible();
    await page.reload();
    await expect(page.getByLabel('Scheduled value, row 2')).toHaveValue('4,000.00');
    await page.goto(`${running.url}/jobs`);
    await page.getByRole('link', { name: '1001 Mill, east wall' }).click();
    await expect(page.getByLabel('Scheduled value, row 2')).toHaveValue('4,000.00');
  });

  await test.step('pastes a budget with codes that are new, and adds them', async () => {
    await page.getByLabel('Section, row 1', { exact: true }).last().focus();
    await paste(page, '\t100\tlabour\t1\tFraming\t\t\t120\t3600\n\t200\tmaterial\t2\tPanels\t\t\t\t2,400.00\n');
    await page.getByLabel('Description of 100').fill('Framing');
    await page.getByLabel('Description of 200').fill('Panels');
    await page.getByRole('button', { name: 'Add 2 codes' }).click();
    await expect(page.getByText('expected profit 4,000.00')).toBeVisible();
    await page.getByRole('button', { name: 'Set up job 1001, 10,000.00' }).click();
    await expect(page.getByRole('heading', { name: '1001 Mill, east wall' })).toBeVisible();
  });

  await test.step('enters costs by keyboard with completion, previews and posts them', async () => {
    await page.goto(`${running.url}/costs?as-of=2031-05`);
    const cell = (name: string, row: number) => page.getByLabel(`${name}, row ${row}`, { exact: true });
    await cell('Date', 1).focus();
    for (const typed of ['12', '10', '', '1', 'lab', 'Crew', 'TS-1', '50', '1250', 'Framing']) {
      if (typed) await page.keyboard.type(typed);
      await page.keyboard.press('Tab');
    }
    await expect(cell('Job', 1)).toHaveValue('1001');
    await expect(cell('Code', 1)).toHaveValue('100');
    await expect(cell('Type', 1)).toHaveValue('labour');
    await cell('Date', 2).focus();
    await paste(
      page,
      '20\t1001\t\t200\tmaterial\tPANEL\tDN-1\t\t1,000.00\tPanels\n21\t1001\t\t200\tother\t\tX-1\t\t150\tSkip hire',
    );
    await page.keyboard.press('Alt+p');
    await expect(page.getByText('No budget for this line')).toBeVisible();
    const preview = page.getByRole('region', { name: 'Preview' });
    await expect(preview.getByRole('row', { name: /200 · material/ })).toContainText('1,400.00');
    await expect(preview).toContainText('6,000.00 → 6,150.00');
    await page.keyboard.press('Alt+Enter');
    await expect(page.getByText('Posted 3 lines, 2,400.00')).toBeVisible();
  });

  await test.step('bills by per cent and by amount; overbilling is refused with its figure', async () => {
    await page.goto(`${running.url}/jobs/1001/billing?as-of=2031-05`);
    await page.getByRole('button', { name: 'Start application 1' }).click();
    await page.getByLabel('% to date, row 1').focus();
    await page.keyboard.type('50');
    await page.keyboard.press('Enter');
    await expect(page.getByLabel('Work to date, row 1')).toHaveValue('3,000.00');
    await page.getByLabel('This period, row 2').focus();
    await page.keyboard.type('4,100');
    await page.keyboard.press('Enter');
    await page.getByLabel('Work to date, row 2').focus();
    await expect(page.getByText('Line 2 would pass its scheduled value by 100.00. Bill 4,000.00 or less to date')).toBeVisible();
    await page.keyboard.type('800');
    await page.keyboard.press('Enter');
    await page.getByLabel('Materials on site, row 2').focus();
    await page.keyboard.type('200');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'Submit, 4,560.00' }).click();
    await expect(page.getByText('Submitted, awaiting certification')).toBeVisible();
  });

  await test.step('has it certified for less, line by line, and is paid', async () => {
    await page.getByLabel('for different amounts').check();
    await page.getByLabel('Work certified, row 1').focus();
    await page.keyboard.type('2900');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'Certify application 1, 4,446.00' }).click();
    await expect(page.getByText('4,446.00 outstanding, due 30 Jun 2031')).toBeVisible();
    await page.getByRole('button', { name: 'Record receipt of 4,446.00' }).click();
    await expect(page.getByText('paid in full')).toBeVisible();
    const pdf = await page.request.get(`${running.url}/api/jobs/1001/applications/1/print`);
    expect((await pdf.body()).subarray(0, 4).toString()).toBe('%PDF');
  });

  await test.step('sees it all in the schedule, down to the entries', async () => {
    await page.goto(`${running.url}/reports/work-in-progress?as-of=2031-05`);
    const row = page.getByRole('row', { name: /1001/ });
    for (const figure of [
      '10,000.00',
      '6,150.00',
      '3,850.00',
      '38.5',
      '2,400.00',
      '39.0',
      '3,902.44',
      '1,502.44',
      '3,900.00',
      '2.44',
      '6,097.56',
    ])
      await expect(row.getByText(figure, { exact: true }).first()).toBeVisible();
    await row.getByRole('button', { name: /Earned revenue/ }).click();
    const workings = page.getByRole('complementary', { name: 'Workings' });
    await expect(workings).toContainText('Contract sum times the share complete, rounded once.');
    await workings.getByRole('button', { name: 'Complete: show its workings' }).click();
    await workings.getByRole('button', { name: 'Cost to date: show its workings' }).click();
    await workings.getByRole('link', { name: 'material', exact: true }).click();
    await expect(page.getByRole('cell', { name: 'DN-1', exact: true })).toBeVisible();
    await page.goto(`${running.url}/ledger/tie-out?as-of=2031-05`);
    await expect(page.getByText('All 5 reconciliations agree.')).toBeVisible();
  });

  await test.step('reverses a batch from its posting', async () => {
    await page.goto(`${running.url}/ledger/postings?as-of=2031-05`);
    await page
      .getByRole('row', { name: /Cost batch/ })
      .getByRole('link')
      .first()
      .click();
    await page.getByRole('button', { name: 'Reverse this document' }).click();
    await page.getByLabel('Reason').fill('typed for the wrong job');
    await page.keyboard.press('Enter');
    await expect(page.getByText(/was reversed already/)).toBeVisible();
  });

  // The command line says the same of the same database: after the reversal no cost is left.
  expect(await ledrin('report', 'wip', '--db', running.database, '--as-of', '2031-05-31')).toContain(
    '1001,"Mill, east wall",10000.00,6000.00,4000.00,40.0000,0.00,0.0000,0.00,0.00,3900.00,3900.00,0.00,10000.00,0.00',
  );
  expect(errors).toEqual([]);
});
