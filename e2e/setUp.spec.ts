import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { choose } from './choose';
import { startLedrin, type Running } from './server';

let running: Running;
test.beforeAll(async () => {
  running = await startLedrin('demo/book');
});
test.afterAll(() => running.stop());

test('a job is begun from a sheet and from another job, and goes on site warned of what is missing', async ({ page }) => {
  const sheet = join(mkdtempSync(join(tmpdir(), 'ledrin-sheet-')), 'schedule.csv');
  writeFileSync(sheet, 'Pos;Work;Scheduled value;Unit\n1;Roof;12500.50;m2\n2;Trims;800;m\n');
  await page.goto(`${running.url}/jobs/new`);
  await page.getByLabel('Name', { exact: true }).fill('Begun from a sheet');
  await choose(page.getByLabel('Client', { exact: true }), 'TARNWICK · Tarnwick Borough Estates');
  await page.getByRole('button', { name: /Dates, people, retention and terms/ }).click();
  await page.getByLabel('Awarded on').fill('28 Apr 2031');
  await page.getByRole('button', { name: /Schedule of values and budget/ }).click();
  await page.locator('input[type=file]').first().setInputFiles(sheet);
  const match = page.getByRole('region', { name: 'Columns of the file' });
  await expect(match.getByLabel('Column 3 of the file goes to')).toHaveText('Scheduled value');
  await choose(match.getByLabel('Column 1 of the file goes to'), 'Line');
  await choose(match.getByLabel('Column 2 of the file goes to'), 'Description');
  await page.getByRole('button', { name: 'Take 2 rows' }).click();
  await expect(page.getByText('13,300.50 of 13,300.50 GBP')).toBeVisible();
  // What was matched is remembered for the next sheet with these heads.
  await page.locator('input[type=file]').first().setInputFiles(sheet);
  await expect(match.getByLabel('Column 2 of the file goes to')).toHaveText('Description');
  await page.getByRole('button', { name: 'Leave it' }).click();
  await page.getByRole('button', { name: 'Copy from a job …' }).click();
  await page.getByLabel('Job', { exact: true }).fill('2116');
  for (const part of ['schedule of values', 'budget']) await page.getByRole('checkbox', { name: part }).uncheck();
  await page.getByRole('button', { name: 'Copy', exact: true }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByLabel('Retention %', { exact: true })).toHaveValue('3');
  await page.getByRole('button', { name: /^Set up job 2121/ }).click();
  await expect(page.getByRole('heading', { name: '2121 Begun from a sheet' })).toBeVisible();
  await page.keyboard.press('8');
  await expect(page.getByRole('link', { name: 'The budget is empty' })).toBeVisible();
  await expect(page.getByLabel('Insurance, bond, permit …, row 2')).toHaveValue('Performance bond');
  await page.getByRole('button', { name: /^awarded/ }).click();
  await choose(page.getByLabel('Move the job on to'), 'on-site');
  await expect(page.getByRole('status', { name: 'Missing for site' })).toContainText('The budget is empty');
  await page.getByRole('button', { name: 'Move to on-site' }).click();
  await expect(page.getByRole('button', { name: /^on-site/ })).toBeVisible();
});

test('the job file keeps facts, events and postings; a locked job takes no transfer', async ({ page }) => {
  await page.goto(`${running.url}/jobs/2105/file?as-of=2031-04`);
  await page.getByLabel('Estimator').fill('Adaeze Firth');
  await page.getByRole('button', { name: 'Save job details' }).click();
  await expect(page.getByRole('button', { name: 'Saved' })).toBeVisible();
  await expect(page.getByLabel('Retention %')).toBeDisabled();
  await page.getByLabel('What', { exact: true }).fill('Snag list agreed');
  await page.getByRole('button', { name: 'Add note' }).click();
  await expect(page.getByText('Snag list agreed')).toBeVisible();
  const folder = mkdtempSync(join(tmpdir(), 'ledrin-posting-'));
  writeFileSync(join(folder, 'Drawing 12.pdf'), '%PDF-1.4 made up');
  await page.locator('input[type=file]').setInputFiles(join(folder, 'Drawing 12.pdf'));
  await expect(page.getByRole('link', { name: 'Drawing 12.pdf' })).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('Estimator')).toHaveValue('Adaeze Firth');

  await page.goto(`${running.url}/jobs/2105/budget?as-of=2031-04`);
  await page.getByRole('button', { name: 'Move budget between lines …' }).click();
  await page.getByLabel('Reason').fill('Tried');
  const cell = (name: string) => page.getByLabel(name, { exact: true });
  for (const [row, code, amount] of [
    [1, '0310', '-500'],
    [2, '0330', '400'],
  ] as const) {
    await cell(`Section, row ${row}`).fill('Roof');
    await cell(`Cost code, row ${row}`).fill(code);
    await cell(`Type, row ${row}`).fill('labour');
    await cell(`In (+) / out (−), row ${row}`).fill(amount);
    await page.keyboard.press('Enter');
  }
  await expect(page.getByText('unallocated')).toContainText('−100.00');
  await expect(page.getByRole('button', { name: /^Move 400/ })).toBeDisabled();
  await cell('In (+) / out (−), row 2').fill('500');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Move 500.00' }).click();
  const log = page.getByRole('region', { name: 'Budget transfers' });
  await expect(log.getByRole('row', { name: /^2 30 Apr 2031 Tried/ })).toContainText('−500.00');
  await expect(page.getByRole('button', { name: 'Transfers of 0310 labour: −500.00, show its workings' })).toBeVisible();

  await page.getByRole('button', { name: /^on-site/ }).click();
  await page.getByLabel('Reason for locking').fill('Audit');
  await page.getByRole('button', { name: 'Lock', exact: true }).click();
  await expect(page.getByRole('button', { name: /^on-site, locked/ })).toBeVisible();
  // A change is no longer offered; by its address, it is refused.
  await page.goto(`${running.url}/jobs/2105/changes?as-of=2031-04`);
  await expect(page.getByRole('heading', { name: 'Change orders' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Raise a change' })).toHaveCount(0);
  await page.goto(`${running.url}/jobs/2105/changes/new?as-of=2031-04`);
  await page.getByLabel('Title').fill('Too late');
  await page.getByRole('button', { name: 'Save CO2' }).click();
  await expect(page.getByRole('alert')).toContainText('Job 2105 is locked');
});

test('prices move after they were shown, and a draft estimate follows only when it is told to', async ({ page }) => {
  await page.goto(`${running.url}/jobs/2119/estimates/1`);
  const foot = page.getByLabel('From cost to price');
  await expect(foot).toContainText('115,444.91');
  await page.goto(`${running.url}/tenders/prices`);
  await page.getByRole('button', { name: 'Adjust prices …' }).click();
  await page.getByLabel('By %').fill('10');
  await choose(page.getByLabel('Of vendor'), 'Slatewright Supplies');
  await page.getByRole('button', { name: 'Show what moves' }).click();
  const moves = page.getByRole('region', { name: 'Build-ups that follow, cost of one unit' });
  await expect(moves.getByRole('row', { name: /SLATED/ })).toContainText('77.9369');
  await page.getByRole('button', { name: /^Adjust 9 prices by 10 %/ }).click();
  await expect(page.getByText('9 prices moved by 10 %')).toBeVisible();
  await page.goto(`${running.url}/jobs/2119/estimates/1`);
  await expect(foot).toContainText('115,444.91');
  await page.getByRole('button', { name: 'Reprice …' }).click();
  const told = page.getByRole('region', { name: 'Lines that change' });
  await expect(told.getByRole('row', { name: /1.3 Natural slating/ })).toContainText('36,167.80');
  await page.getByRole('button', { name: /^Reprice \d+ lines/ }).click();
  await expect(foot).not.toContainText('115,444.91');
});

test('a job is billed by a fixed schedule, which is laid out anew and taken over', async ({ page }) => {
  const cell = (name: string) => page.getByLabel(name, { exact: true });
  await page.goto(`${running.url}/billing?as-of=2031-04`);
  // 10 % of 735,600.00 with the order; the stages have not begun.
  await expect(page.getByRole('row', { name: /^2116/ })).toContainText('73,560.00');
  await page.goto(`${running.url}/jobs/2116/plan?as-of=2031-04`);
  await cell('Started, row 1').fill('12');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Save plan' }).click();
  await expect(page.getByRole('button', { name: 'Saved' })).toBeVisible();
  await page.goto(`${running.url}/jobs/2116/billing?as-of=2031-04`);
  // 14 days after, 40 % of 355,286.00 for the material: 142,114.40.
  await expect(page.getByText('By the schedule 215,674.40')).toBeVisible();
  await page.getByRole('button', { name: 'Start application 1' }).click();
  // 3 % held line by line, 6,470.23; 209,204.17 due, and 20 % tax.
  await expect(page.getByRole('button', { name: 'Submit, 251,045.00' })).toBeVisible();
  await expect(cell('Work to date, row 1')).toHaveValue('22,068.00');

  await page.goto(`${running.url}/jobs/2116/billing/schedule?as-of=2031-04`);
  const grid = page.getByRole('grid', { name: 'Instalments' });
  await page.getByRole('button', { name: 'Lay out …' }).click();
  await page.getByLabel('Stages on one bill').fill('2');
  await page.getByRole('button', { name: 'Lay out by stages' }).click();
  // Material is 309,910 of the budget of 595,840: 52.0123 % of 735,600.00, when the first of the two began.
  await expect(grid.getByRole('row').nth(1)).toContainText('382,602.4812 Apr 2031due');
  await cell('% or GBP, row 1').fill('60 %');
  await page.keyboard.press('Enter');
  await expect(page.getByText('too much')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Save schedule' })).toBeDisabled();
  await page.getByRole('button', { name: 'Lay out …' }).click();
  await page.getByLabel('At intervals').check();
  await page.getByLabel('First on').fill('30 Apr 2031');
  await page.getByLabel('Not after').fill('31 Dec 2031');
  await page.getByRole('button', { name: 'Lay out at intervals' }).click();
  // Nine month ends: 81,733.33 and a third; the three odd pennies to the first.
  await expect(grid.getByRole('row').nth(9)).toContainText('81,733.3331 Dec 2031to come');
  await page.getByRole('button', { name: 'Save schedule' }).click();
  await expect(page.getByRole('button', { name: 'Saved', exact: true })).toBeVisible();
  await page.goto(`${running.url}/jobs/2116/billing/1?as-of=2031-04`);
  await page.getByRole('button', { name: 'Take the schedule’s figures' }).click();
  await expect(page.getByRole('row', { name: /^Total/ })).toContainText('81,733.34');
});
