import path from 'node:path';
import { expect, type Locator, type Page } from './test';

/** Opens what a piece is delivered as. */
export async function openDeliver(page: Page): Promise<Locator> {
  await page.getByRole('button', { name: 'Deliver', exact: true }).click();
  const drawer = page.getByRole('complementary', { name: 'Deliver' });
  await expect(drawer).toBeVisible();
  return drawer;
}

export async function addOutput(page: Page, title: string): Promise<void> {
  await page.getByRole('button', { name: 'Add output' }).click();
  await page.getByRole('menuitem', { name: title }).first().click();
}

/** Renders, and waits until all is made; gives the card of the render. */
export async function renderAll(drawer: Locator, timeout = 120_000): Promise<Locator> {
  const before = await drawer.getByTestId('render').count();
  await drawer.getByRole('button', { name: /^Render \d/ }).click();
  await expect(drawer.getByTestId('render')).toHaveCount(before + 1);
  // The newest stands first.
  const card = drawer.getByTestId('render').first();
  await expect(card.getByText(/^Done/)).toBeVisible({ timeout });
  return card;
}

/** Saves an output of a render as a user does; gives the file. */
export async function save(page: Page, card: Locator, title: string, folder: string): Promise<string> {
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    card.getByRole('link', { name: `Save ${title}`, exact: true }).click(),
  ]);
  const file = path.join(folder, download.suggestedFilename());
  await download.saveAs(file);
  return file;
}
