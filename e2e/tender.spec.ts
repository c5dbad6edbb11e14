import { expect, test } from '@playwright/test';
import { paste } from './paste';
import { ledrin, startLedrin, type Running } from './server';

let running: Running;
test.beforeAll(async () => {
  running = await startLedrin();
});
test.afterAll(() => running.stop());

/*
 * The tender worked by hand in core/estimating/tender.test.ts. One m2 of ROOF is 25.0975; 137.5 m2 with the scaffold and the
 * outlets cost 5,031.33; markups make 5,576.44, overhead 6 % and profit 4.5 % with −0.03 of rounding 6,177.00: a margin of
 * 18.5 %, a markup of 22.8 %. Agreed at 6,150.00 by section: 5,646.55 and 503.45.
 */
test('a tender goes from an empty page to an awarded job', async ({ page, browser }) => {
  const errors: string[] = [];
  page.on('console', (message) => message.type() === 'error' && !/409|400/.test(message.text()) && errors.push(message.text()));
  await page.goto(running.url);
  await page.getByRole('button', { name: 'Start with a first job' }).press('Enter');
  await page.getByLabel('Company name').fill('Aldergate Cladding');
  await page.getByLabel('Company name').press('Enter');
  await expect(page.getByRole('heading', { name: 'New job' })).toBeVisible();

  await test.step('fills the price book by pasting', async () => {
    await page.goto(`${running.url}/set-up`);
    await page.getByLabel('New code, row 1').focus();
    await paste(page, '100\tLabour\n200\tRoofing\n300\tScaffold\n400\tPlant\n');
    await page.getByRole('button', { name: 'Add 4 cost codes' }).click();
    await page.getByRole('link', { name: 'Prices' }).click();
    await page.getByLabel('Code, row 1', { exact: true }).focus();
    await paste(
      page,
      'CREW\tRoofer\tlabour\t100\t\t32.5\t\nMEMBRANE\tMembrane\tmaterial\t200\tm2\t14.25\t\nFIXING\tFixing\tmaterial\t200\tnr\t0.1234\t\nADHESIVE\tAdhesive\tmaterial\t999\tkg\t6.40\t15\n',
    );
    await expect(page.getByText('1 cell says what is missing or wrong')).toBeVisible();
    await page.getByLabel('Cost code, row 4').focus();
    await page.keyboard.type('200');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'Keep 4 changed items' }).click();
    await expect(page.getByRole('button', { name: 'Nothing to keep' })).toBeVisible();
  });

  await test.step('makes build-ups, one inside the other, and is refused a circle', async () => {
    await page.getByRole('link', { name: 'Build-ups' }).click();
    const make = async (code: string, block: string, button: string) => {
      await page.getByLabel('Code', { exact: true }).fill(code);
      await page.getByLabel('Description', { exact: true }).fill(`${code} of the works`);
      await page.getByLabel('Unit', { exact: true }).fill('m2');
      await page.getByLabel('Item or build-up, row 1').focus();
      await paste(page, block);
      await page.getByRole('button', { name: button }).click();
      await expect(page.getByRole('button', { name: 'Nothing to keep' })).toBeVisible();
    };
    await make('BED', 'ADHESIVE\t0.35\t5\nCREW\t0.02\t\n', 'Keep BED, 3.002 a m2');
    await page.getByRole('button', { name: 'New build-up' }).click();
    await make('ROOF', 'MEMBRANE\t1\t8\nFIXING\t4.5\t\nBED\t1.1\t\nCREW\t0.18\t\n', 'Keep ROOF, 25.0975 a m2');
    await page.getByRole('button', { name: /^BED/ }).click();
    await page.getByLabel('Item or build-up, row 3').focus();
    await paste(page, 'ROOF\t1\t\n');
    await expect(page.getByText('A build-up cannot be made of itself: BED → ROOF → BED')).toBeVisible();
    await expect(page.getByRole('button', { name: /^Keep BED/ })).toBeDisabled();
  });

  await test.step('sets up the tender', async () => {
    await page.goto(`${running.url}/jobs/new`);
    await page.getByRole('button', { name: 'New client' }).click();
    await page.getByLabel('Short code').fill('NORTH');
    await page.getByLabel('Client name').fill('Northbeck Estates');
    await page.getByLabel('Client name').press('Enter');
    await page.getByLabel('Name', { exact: true }).fill('Chapel roof');
    await page.getByLabel('Status').selectOption('tender');
    await page.getByRole('button', { name: /^Set up job 1001/ }).click();
    await expect(page.getByRole('heading', { name: '1001 Chapel roof' })).toBeVisible();
    await page.getByRole('link', { name: 'A tender without an estimate: price it' }).click();
    await page.getByRole('button', { name: 'New estimate' }).click();
  });

  await test.step('prices it: lines, parts, markups, a rounding', async () => {
    await page.getByLabel('Line, row 1', { exact: true }).focus();
    await paste(page, '1\tA\tRoof\t137.5\tm2\tROOF\n2\tA\tScaffold\t1\t\t\t12.5\n3\tB\tOutlets\t10\tnr\n');
    await page.getByLabel('Line, row 2', { exact: true }).focus();
    await page.getByLabel('Price item, row 1').focus();
    await paste(page, '\tScaffold hire\tsub\t300\tin all\t1\t\t1,200.00\n');
    await page.getByLabel('Line, row 3', { exact: true }).focus();
    await page.getByLabel('Price item, row 1').focus();
    await page.keyboard.type('CREW');
    await page.keyboard.press('Enter');
    await expect(page.getByLabel('Unit cost, row 1')).toHaveValue('32.50');
    await page.getByLabel('Quantity, row 1').last().focus();
    await page.keyboard.type('0.75');
    await page.keyboard.press('Enter');
    await page.getByLabel('Price item, row 2').focus();
    await paste(page, '\tCutting plant\tequipment\t400\tin all\t3\tday\t45.5555\n');
    await page.getByLabel('Markup on labour').fill('10');
    await page.getByLabel('Markup on material').fill('8');
    await page.getByText('Markup by section').click();
    await page.getByLabel('Markup of section B').fill('20');
    await page.getByLabel('Overhead %').fill('6');
    await page.getByLabel('Profit %').fill('4.5');
    await page.getByLabel('Rounding').fill('-0.03');
    const foot = page.getByLabel('From cost to price');
    await expect(foot).toContainText('6,177.00');
    await expect(foot).toContainText('Margin 18.5 % of the price');
    await expect(foot).toContainText('Markup 22.8 % on the cost');
    await expect(page.getByRole('status').filter({ hasText: 'Kept.' })).toBeVisible();
  });

  await test.step('two windows change it: neither loses anything, and the second is told', async () => {
    const other = await (await browser.newContext()).newPage();
    await other.goto(page.url());
    await expect(other.getByLabel('From cost to price')).toContainText('6,177.00');
    await page.getByLabel('Quantity, row 1').first().focus();
    await page.keyboard.type('100');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('status').filter({ hasText: 'Kept.' })).toBeVisible();
    await page.waitForTimeout(1200);
    await other.getByLabel('Profit %').fill('5');
    await expect(other.getByRole('alert')).toContainText('Taken over from theirs: line 1');
    await other.getByLabel('Quantity, row 1').first().focus();
    await other.keyboard.type('137.5');
    await other.keyboard.press('Enter');
    await other.getByLabel('Profit %').fill('4.5');
    await expect(other.getByLabel('From cost to price')).toContainText('6,177.00');
    await expect(other.getByRole('status').filter({ hasText: 'Kept.' })).toBeVisible();
    await other.waitForTimeout(1200);
    await other.close();
    await page.reload();
    await expect(page.getByLabel('From cost to price')).toContainText('6,177.00');
  });

  await test.step('is awarded for less, and every figure leads back to its price', async () => {
    await page.getByRole('link', { name: 'Award …' }).click();
    await page.getByLabel('Agreed price').fill('6150');
    await page.getByLabel('Accepted on').fill('20 Apr 2031');
    await page.getByLabel('Accepted by').fill('Letter of 19 April');
    await page.getByRole('button', { name: 'Award job 1001, 6,150.00' }).click();
    await expect(page.getByRole('heading', { name: 'Schedule of values' })).toBeVisible();
    await page.goto(`${running.url}/jobs/1001/contract?as-of=2031-04`);
    await expect(page.getByRole('row', { name: /^1 A/ })).toContainText('5,646.55');
    await expect(page.getByRole('row', { name: /^2 B/ })).toContainText('503.45');
    await page.getByRole('button', { name: /^As signed, line 1/ }).click();
    const workings = page.getByRole('complementary', { name: 'Workings' }).or(page.getByRole('dialog'));
    await expect(workings).toContainText('Estimate line 1 Roof, 137.5 m2: cost');
    await expect(workings).toContainText('3,450.91');
    await expect(workings).toContainText('551.40');
  });

  const report = await ledrin('report', 'estimate-vs-actual', '--db', running.database, '--job', '1001', '--as-of', '2031-04-30');
  expect(report.trimEnd().split('\n').at(-1)).toBe('TOTAL,,,5031.33,0.00,5031.33,0.00,0.00,5031.33,0.00,35.275,0,');
  expect(errors).toEqual([]);
});
