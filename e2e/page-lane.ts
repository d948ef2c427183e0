import { expect, type Locator, type Page } from '@playwright/test';

const PEER = 'Hilltop exchange';

/** On the page of lanes: lets the page of a device that stands by ask a peer. Returns the row of that lane. */
export async function addPageLane(page: Page, device: string): Promise<Locator> {
  await page.getByText('Lanes to be asked').click();
  const form = page.getByRole('form', { name: 'New lane' });
  await form.getByRole('combobox').first().selectOption({ label: device });
  await form.getByRole('combobox').last().selectOption({ label: PEER });
  await form.getByRole('button', { name: 'Add the lane' }).click();
  const row = page.getByRole('listitem').filter({ hasText: `of ${device}` });
  await expect(row).toBeVisible();
  return row;
}

/** What the page hears is seen while it hears it: the demo's line answers after 15 ms. */
export async function expectHeard(page: Page, device: string): Promise<void> {
  const lane = page.getByRole('slider', { name: `Lanes of ${device}` });
  await expect(lane).toHaveAttribute('aria-valuetext', new RegExp(`${PEER}: 1\\d ms`), { timeout: 15_000 });
}

export async function endLane(row: Locator): Promise<void> {
  await row.getByRole('button', { name: 'end it' }).click();
  await expect(row).toHaveCount(0);
}
