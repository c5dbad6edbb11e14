// Takes docs/screenshots/ again from the demo data, at 1280 × 800, a phone's at 390 × 844. Run after a view has changed, and look at the pictures.
import { mkdirSync } from 'node:fs';
import { chromium, type Page } from '@playwright/test';
import { SESSION, startLedrin } from '../e2e/server';

const FOLDER = 'docs/screenshots';
mkdirSync(FOLDER, { recursive: true });
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
});

async function open(colorScheme: 'light' | 'dark'): Promise<Page> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, colorScheme });
  await context.addCookies([{ name: 'ledrin', value: SESSION, domain: '127.0.0.1', path: '/' }]);
  return context.newPage();
}

async function shoot(page: Page, url: string, name: string, act?: () => Promise<void>): Promise<void> {
  await page.goto(url);
  await page.waitForLoadState('networkidle');
  await act?.();
  await page.waitForTimeout(500);
  await page.screenshot({ path: `${FOLDER}/${name}.png` });
}

async function paste(page: Page, cell: string, text: string): Promise<void> {
  await page.getByLabel(cell, { exact: true }).first().focus();
  await page.evaluate((block) => {
    const clipboardData = new DataTransfer();
    clipboardData.setData('text/plain', block);
    document.activeElement?.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
  }, text);
}

/** Rows of a week sheet: employee, job, section, code, kind, five days. */
const WEEK = [
  'E05\t2105\tRoof\t0510\t\t7-16:30-0:30\t8\t8\t8\t8',
  'E06\t2105\tRoof\t0510\t\t9\t8\t8\t8\t4',
  'E07\t2105\tRoof\t0330\t\t8\t8\t8\t\t8',
  'E07\t\t\t\t\t\t\t\t8',
  'E02\t2111\tShed 1\t0340\t\t8\t8\t8\t8\t6',
].join('\n');

const demo = await startLedrin('demo/book');
const page = await open('light');
await shoot(page, `${demo.url}/jobs`, 'jobs');
await shoot(page, `${demo.url}/jobs/2110`, 'job');
await shoot(page, `${demo.url}/jobs`, 'workings', async () => {
  await page
    .getByRole('row', { name: /2110/ })
    .getByRole('button', { name: /Complete/ })
    .click();
});
await shoot(page, `${demo.url}/jobs/new`, 'new-job', async () => {
  await page.getByLabel('Name', { exact: true }).fill('Saltmarsh pumping station, roof and louvres');
  await page.getByRole('combobox', { name: 'Client' }).click();
  await page.getByRole('option', { name: /MERROWBY/ }).click();
  await page.getByRole('combobox', { name: 'Kind of job' }).click();
  await page.getByRole('option', { name: /ROOF/ }).click();
  await page.getByRole('button', { name: /Schedule of values and budget/ }).click();
  await paste(
    page,
    'Line, row 1',
    '1\tRoof\tDeck and insulation\t92,400.00\n2\tRoof\tMembrane\t61,250.00\n3\tLouvres\tLouvre panels\t26,000.00',
  );
  await page.getByLabel('Section, row 1', { exact: true }).last().focus();
  await paste(
    page,
    'Cost code, row 1',
    '0310\tlabour\t1\tDeck\t\t\t320\t11,040.00\n0320\tmaterial\t1\tInsulation\t\t\t\t48,200.00\n0330\tlabor\t2\tMembrane\t\t\t410\t14,145.00',
  );
});
await shoot(page, `${demo.url}/tenders`, 'tenders');
await shoot(page, `${demo.url}/tenders/build-ups?of=SLATED`, 'build-ups');
await shoot(page, `${demo.url}/jobs/2119/estimates/1`, 'tender', async () => {
  await page.getByLabel('Description, row 3', { exact: true }).first().focus();
});
await shoot(page, `${demo.url}/jobs/2110/changes/CO1`, 'change');
await shoot(page, `${demo.url}/jobs/2108/forecast`, 'forecast', async () => {
  await page.getByLabel('Cost to complete, row 9').fill('62,500');
  await page.getByLabel('Note, row 9').fill('Panels of level 5 made again');
  await page.keyboard.press('Enter');
});
await shoot(page, `${demo.url}/costs`, 'costs', async () => {
  await paste(
    page,
    'Date, row 1',
    '28\t2107\tSports hall\t0340\tlabour\tCrew Dray\tTS-3104-7\t64\t2,208.00\tSeam finishing\n29\t2110\tAtrium\t0440\tmaterial\tGLIMMER\tDN-50288\t\t18,400.00\tGlass units, level 2\n30\t2110\tAtrium\t0510\tmaterial\tGLIMMER\tDN-50290\t\t960.00\tMoulds, CO1',
  );
  await page.keyboard.press('Alt+p');
  await page.getByRole('region', { name: 'Preview' }).waitFor();
});
await shoot(page, `${demo.url}/billing`, 'billing');
await shoot(page, `${demo.url}/billing/unbilled`, 'unbilled');
await shoot(page, `${demo.url}/jobs/2105/billing/12`, 'application');
await shoot(page, `${demo.url}/costs/time/new?on=2031-05-05`, 'week-sheet', async () => {
  await paste(page, 'Employee, row 1', WEEK);
  await page.waitForTimeout(1500);
});
await page.setViewportSize({ width: 390, height: 844 });
await shoot(page, `${demo.url}/day-sheets/new`, 'day-sheet', async () => {
  await page.getByRole('textbox', { name: 'Crew of' }).fill('Jory Sedge');
  await page.getByRole('button', { name: /^2108 / }).click();
  await page.getByRole('button', { name: /^Podium · Snagging and handover/ }).click();
});
await page.setViewportSize({ width: 1280, height: 800 });
await shoot(page, `${demo.url}/reports/estimate-versus-actual?job=2107`, 'estimate');
await shoot(page, `${demo.url}/reports/work-in-progress`, 'work-in-progress');
await shoot(page, `${demo.url}/ledger/tie-out`, 'tie-out');
await shoot(await open('dark'), `${demo.url}/jobs/2105/plan`, 'plan-dark');
await browser.close();
await demo.stop();
