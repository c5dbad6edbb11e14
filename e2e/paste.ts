import type { Page } from '@playwright/test';

/** Pastes a block, as a spreadsheet copies it, into the cell that has the focus. */
export async function paste(page: Page, block: string): Promise<void> {
  await page.evaluate((text) => {
    const clipboardData = new DataTransfer();
    clipboardData.setData('text/plain', text);
    document.activeElement!.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
  }, block);
}
