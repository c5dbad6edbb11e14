import { existsSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { SESSION, startLedrin } from '../e2e/server';
import { timeBook } from './benchTime';

const PEOPLE = 400;
/** Cost lines of the job that is forecast. */
const LINES = 400;
const JOB = 'J40';
const KEYS = 40;
/** Every so many keys one that leaves the cell. */
const EVERY = 4;
/** Milliseconds between keys: nobody types faster. */
const BETWEEN = 100;
const FASTEST = 16;
const CHROMIUM = process.env.CHROMIUM ?? '/usr/bin/chromium';
const WEEK = '2031-03-10';

type Print = (what: string, ours: number, bare: number, note?: string) => void;

/** What nine of ten keys of a kind take at most, as the browser itself measures it; it leaves out those under 16 ms. */
async function framesOf(page: Page): Promise<{ typed: number; left: number }> {
  await page.evaluate(() => {
    const taken: Record<number, { duration: number; typed: boolean }> = {};
    Object.assign(window, { taken });
    new PerformanceObserver((list) => {
      for (const { interactionId, duration, name } of list.getEntries() as (PerformanceEntry & { interactionId: number })[]) {
        if (!interactionId) continue;
        const before = taken[interactionId];
        taken[interactionId] = {
          duration: Math.max(before?.duration ?? 0, duration),
          typed: name === 'keypress' || before?.typed === true,
        };
      }
    }).observe({ type: 'event', durationThreshold: 16 } as PerformanceObserverInit);
  });
  for (let i = 0; i < KEYS; i++) {
    await page.keyboard.press(i % EVERY === EVERY - 1 ? 'Tab' : '7');
    await page.waitForTimeout(BETWEEN);
  }
  await page.waitForTimeout(500);
  const taken = Object.values(
    await page.evaluate(() => (window as unknown as { taken: Record<number, { duration: number; typed: boolean }> }).taken),
  );
  const most = (typed: boolean, count: number) => {
    const slow = taken.filter((it) => it.typed === typed).map((it) => it.duration);
    const all = [...slow, ...Array.from({ length: Math.max(0, count - slow.length) }, () => FASTEST)];
    return all.sort((x, y) => x - y)[Math.floor(all.length * 0.9)] ?? 0;
  };
  return { typed: most(true, KEYS - KEYS / EVERY), left: most(false, KEYS / EVERY) };
}

async function assertRows(page: Page, expected: number): Promise<void> {
  const shown = Number(await page.getByRole('grid').getAttribute('aria-rowcount'));
  if (shown < expected) throw new Error(`the sheet shows ${shown} rows, not ${expected}`);
}

/** From a key pressed to the next frame, in milliseconds: in a week sheet of 400 people, in the forecast of 400 cost lines, and on an empty page. */
export async function benchGrid(print: Print): Promise<void> {
  if (!existsSync('dist/server/main.mjs') || !existsSync(CHROMIUM))
    return console.log('typing in a week sheet: needs the built product and Chromium; run `npm run demo` once');
  const folder = timeBook();
  const budget = Array.from(
    { length: LINES },
    (_, i) => `${JOB},Lot ${Math.floor(i / 25)},${100 + (i % 25)},material,${1000 + i}`,
  );
  writeFileSync(join(folder, 'budget.csv'), `job,section,cost_code,cost_type,amount\n${budget.join('\n')}\n`);
  const running = await startLedrin(folder);
  rmSync(folder, { recursive: true });
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: ['--no-sandbox'] });
  try {
    const context = await browser.newContext({ baseURL: running.url, viewport: { width: 1280, height: 800 } });
    await context.addCookies([{ name: 'ledrin', value: SESSION, url: running.url }]);
    const page = await context.newPage();
    await page.setContent('<input autofocus>');
    await page.locator('input').focus();
    const bare = await framesOf(page);
    const days = Object.fromEntries([0, 1, 2, 3, 4, 5, 6].map((i) => [`day${i}`, '8']));
    const rows = Array.from({ length: PEOPLE }, (_, i) => ({ employee: `E${i}`, job: 'J1', costCode: '100', ...days }));
    await page.goto(`/costs/time/new?on=${WEEK}`);
    const cell = page.getByRole('grid').getByRole('row').nth(1).getByRole('gridcell').nth(7);
    await cell.click();
    await page.keyboard.press('7');
    await page.keyboard.press('Tab');
    // What is typed is kept under a name of the page's own; it is found by typing, and many rows take its place.
    await page.waitForTimeout(1000);
    const name = await page.evaluate(
      (week) => Object.keys(localStorage).find((key) => key.endsWith(`week-sheet new ${week}`)),
      WEEK,
    );
    await page.goto('/api/health');
    await page.evaluate(
      ([key, kept]) => localStorage.setItem(key ?? '', kept ?? ''),
      [name ?? '', JSON.stringify({ seen: '', base: [], rows })],
    );
    await page.goto(`/costs/time/new?on=${WEEK}`);
    await cell.click();
    await assertRows(page, PEOPLE);
    const ours = await framesOf(page);
    const what = `of a week sheet of ${PEOPLE} × 7, nine of ten within`;
    print(`a key typed in a cell ${what}`, ours.typed, bare.typed, 'goal 50 ms to the next frame');
    print(`a cell left ${what}`, ours.left, bare.left);
    await page.goto(`/jobs/${JOB}/forecast?as-of=${WEEK.slice(0, 7)}`);
    await page.getByLabel('Cost to complete, row 1', { exact: true }).click();
    await assertRows(page, LINES);
    const lines = await framesOf(page);
    print(`a key typed in the forecast of ${LINES} cost lines, nine of ten within`, lines.typed, bare.typed, 'goal 50 ms');
    print('a cell left in it', lines.left, bare.left);
  } finally {
    await browser.close();
    await running.stop();
  }
}
