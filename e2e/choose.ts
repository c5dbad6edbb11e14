import type { Locator } from '@playwright/test';

/** Chooses an option by what it says, as a hand does: opens the list and presses it. */
export async function choose(choice: Locator, option: string): Promise<void> {
  await choice.click();
  await choice.page().getByRole('option', { name: option, exact: true }).click();
}
