import { expect, test } from '@playwright/test';
import { SESSION, startLedrin, type Running } from './server';

let running: Running;
test.beforeAll(async () => {
  running = await startLedrin('demo/book');
});
test.afterAll(() => running.stop());

/** What the first screen may be made of, in bytes over the wire. */
const MOST_SCRIPT = 170_000;

test('the first screen, with nothing fetched before, is made of little script', async ({ page, context }) => {
  await context.addCookies([{ name: 'ledrin', value: SESSION, url: running.url }]);
  await page.goto(`${running.url}/jobs?as-of=2031-04`);
  await expect(page.getByRole('row', { name: /2107/ })).toBeVisible();
  await page.waitForLoadState('networkidle');
  const scripts = await page.evaluate(() =>
    (performance.getEntriesByType('resource') as PerformanceResourceTiming[])
      .filter((it) => new URL(it.name).pathname.endsWith('.js'))
      .map((it) => ({ name: it.name, size: it.encodedBodySize })),
  );
  // All of them came over the wire now, compressed.
  expect(scripts.every((it) => it.size > 0)).toBe(true);
  expect(scripts.reduce((sum, it) => sum + it.size, 0)).toBeLessThanOrEqual(MOST_SCRIPT);
});
