import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Page } from '@playwright/test';
import { startLedrin, type Running } from './server';

let running: Running;
test.beforeAll(async () => {
  running = await startLedrin('demo/book');
});
test.afterAll(() => running.stop());
test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });

/** Opens day sheets on a phone and waits until they would open without a connection. */
async function openPhone(page: Page): Promise<void> {
  await page.goto(`${running.url}/day-sheets`);
  await expect(page.getByRole('status')).toHaveText('Connected; nothing waits to be sent. Ready without a connection.');
}

async function clean(page: Page): Promise<void> {
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map((it) => `${it.id}: ${it.nodes[0]?.html}`)).toEqual([]);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(390);
  // Large targets: whatever is pressed on the sheet is 44 px high at least.
  const small = await page.evaluate(
    () =>
      [...document.querySelectorAll<HTMLElement>('.day-phone .touch')].filter((it) => it.offsetHeight > 0 && it.offsetHeight < 44)
        .length,
  );
  expect(small).toBe(0);
}

test('a day without a connection: it opens, takes the whole day, outlives a restart, and is sent once the line is back', async ({
  page,
  context,
}) => {
  await openPhone(page);
  await context.setOffline(true);
  await page.reload();
  await expect(page.getByRole('status')).toContainText('No connection');
  await page.getByRole('link', { name: 'New day sheet' }).click();
  await page.getByLabel('Crew of').fill('Jory Sedge');
  await page.getByRole('button', { name: /^2108 / }).click();
  // The crew of the last sheet is here; its code takes two touches.
  await expect(page.getByRole('region', { name: 'Hours' })).toContainText('Cyrus Pell, Nia Thackray, Orrin Slade, Wyn Aldous');
  await page.getByRole('button', { name: /^Podium · Snagging and handover/ }).click();
  await page.getByRole('button', { name: '8 h for all 4 people' }).click();
  await page.getByRole('button', { name: 'Hours of Wyn Aldous, more' }).click();
  await page.getByRole('button', { name: 'Wyn Aldous', exact: true }).click();
  await page.getByRole('button', { name: 'To be charged to the client' }).click();
  const part = (name: string) => page.getByRole('region', { name, exact: true });
  await page.getByRole('button', { name: 'Add what was installed' }).click();
  await part('Installed')
    .getByRole('combobox', { name: 'Task' })
    .selectOption({ label: 'Podium · Snagging and handover (0610)' });
  await part('Installed').getByRole('textbox', { name: 'Quantity' }).fill('32,5');
  await part('Installed').getByRole('textbox', { name: 'Unit' }).fill('m2');
  await page.getByRole('button', { name: 'Add a delivery' }).click();
  await part('Deliveries').getByRole('textbox', { name: 'From' }).fill('Slatewright Supplies');
  await part('Deliveries').getByRole('textbox', { name: 'Number of the delivery note' }).fill('SW 88');
  await part('Deliveries')
    .getByLabel('Photo of the delivery note')
    .setInputFiles({ name: 'note.png', mimeType: 'image/png', buffer: await page.screenshot() });
  await expect(part('Deliveries').getByRole('img')).toBeVisible();
  await part('Weather and notes').getByRole('textbox', { name: 'Weather' }).fill('Sleet');
  // The client signs on the glass for what is to be charged.
  await page.getByRole('button', { name: 'Client signs' }).click();
  await part('To be charged').getByLabel('Name', { exact: true }).fill('M. Ferring');
  const pad = page.getByRole('img', { name: 'Sign here with a finger' });
  await pad.scrollIntoViewIfNeeded();
  const box = (await pad.boundingBox())!;
  await page.mouse.move(box.x + 30, box.y + 60);
  await page.mouse.down();
  await page.mouse.move(box.x + 120, box.y + 30, { steps: 5 });
  await page.mouse.move(box.x + 200, box.y + 90, { steps: 5 });
  await page.mouse.up();
  await page.getByRole('button', { name: 'Sign', exact: true }).click();
  await expect(part('To be charged')).toContainText('Signed by M. Ferring');
  await clean(page);
  await page.getByRole('button', { name: 'Send day sheet' }).click();
  await expect(page.getByRole('button', { name: 'Waits for a connection; try now' })).toBeVisible();
  // The phone is turned off and on again, still without a connection.
  await page.close();
  const after = await context.newPage();
  await after.goto(`${running.url}/day-sheets`);
  await expect(after.getByRole('status')).toContainText('1 sheet to be sent');
  await after.getByRole('link', { name: /30 Apr 2031/ }).click();
  await expect(after.getByRole('textbox', { name: 'Weather' })).toHaveValue('Sleet');
  await expect(after.getByRole('textbox', { name: 'Hours of Wyn Aldous' })).toHaveValue('8.5');
  await context.setOffline(false);
  await expect(after.getByText('Sent. What you change is sent again.')).toBeVisible();
  await expect(after.getByRole('link', { name: 'Daywork sheet (PDF)' })).toBeVisible();
  // In the office: the day, its hours in the week sheet, the photo, the documents.
  const office = await context.newPage();
  await office.setViewportSize({ width: 1280, height: 800 });
  await office.goto(`${running.url}/costs/day-sheets?on=2031-04-30`);
  await expect(office.getByRole('row', { name: /2108/ })).toContainText('32.5 h, 4 people');
  await office.getByRole('row', { name: /2108/ }).getByRole('link', { name: 'Jory Sedge' }).last().click();
  await expect(office.getByRole('img', { name: 'Delivery note SW 88, Slatewright Supplies' })).toBeVisible();
  for (const name of ['PDF', 'Daywork sheet 1 (PDF)']) {
    const href = await office.getByRole('link', { name, exact: true }).getAttribute('href');
    expect((await context.request.get(`${running.url}${href}`)).headers()['content-type']).toContain('pdf');
  }
  await office.getByRole('link', { name: /^week sheet/ }).click();
  await expect(office.getByRole('heading', { name: /^Week sheet/ })).toBeVisible();
  await expect(office.getByRole('main')).toContainText('Wyn Aldous');
  await expect(office.getByRole('main')).toContainText('8.5');
});

test('the office changes the same as the phone: both are shown, and what is not taken stays on the sheet', async ({
  page,
  context,
}) => {
  await openPhone(page);
  await page.getByRole('link', { name: /24 Apr 2031/ }).click();
  await context.setOffline(true);
  await page.getByRole('textbox', { name: 'Weather' }).fill('Storm');
  await page.getByRole('textbox', { name: 'Notes' }).fill('Stopped at three');
  const path = `${running.url}/api/day-sheets/2108/2031-04-24/Jory%20Sedge`;
  await context.setOffline(false);
  const { seen, day } = await (await context.request.get(path)).json();
  const changed = await context.request.put(path, { data: { seen, day: { ...day, weather: 'Calm' }, leftOut: '' } });
  expect(changed.status()).toBe(200);
  await page.getByRole('button', { name: 'Send day sheet' }).click();
  const both = page.getByRole('region', { name: 'Changed in two places' });
  await expect(both).toContainText('Storm');
  await expect(both).toContainText('Calm');
  await clean(page);
  await expect(both.getByRole('button', { name: 'Send together' })).toBeDisabled();
  await both.getByRole('button', { name: /Yours/ }).click();
  await both.getByRole('button', { name: 'Send together' }).click();
  await expect(page.getByText('Sent. What you change is sent again.')).toBeVisible();
  const now = await (await context.request.get(path)).json();
  expect([now.day.weather, now.day.notes, now.leftOut]).toEqual(['Storm', 'Stopped at three', 'Weather, in the office: Calm']);
});

test('what the server does not take is said at its row, and stays as it was entered', async ({ page }) => {
  await openPhone(page);
  await page.getByRole('link', { name: 'New day sheet' }).click();
  await page.getByRole('button', { name: /^2105 / }).click();
  await page
    .getByRole('button', { name: /^Roof · Membrane/ })
    .first()
    .click();
  await page.getByRole('button', { name: /^8 h for/ }).click();
  await page.getByRole('textbox', { name: 'Hours of Dov Lanning' }).fill('24.5');
  await page.getByRole('button', { name: 'Send day sheet' }).click();
  await expect(page.getByText('a day has 24 hours').first()).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Hours of Dov Lanning' })).toHaveValue('24.5');
  await page.getByRole('textbox', { name: 'Hours of Dov Lanning' }).fill('9');
  await page.getByRole('button', { name: 'Send day sheet' }).click();
  await expect(page.getByText('Sent. What you change is sent again.')).toBeVisible();
});
