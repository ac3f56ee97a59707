import { PIECE_VERSION } from '@maypole/core/piece/piece';
import { writePiece } from '@maypole/core/piece/read';
import { chromium, expect, test } from '@playwright/test';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { openPiece, pictureReady, smallPiece, step, typeNumber, watchErrors } from './helpers';

const card = (page: import('@playwright/test').Page, name: string) => page.getByRole('article', { name, exact: true });
const saved = (page: import('@playwright/test').Page) => expect(page.getByText('Saved', { exact: true })).toBeVisible();

test('two tabs on one piece: the later save is told, and both versions are kept', async ({ page, context }) => {
  const id = await openPiece(page, smallPiece('Shared'));
  const other = await context.newPage();
  await other.goto(`/piece/${id}`);
  await pictureReady(other);
  await typeNumber(step(page, 'torus'), 'Ring radius', 1.5);
  await saved(page);
  await expect
    .poll(async () => ((await (await page.request.get(`/api/pieces/${id}`)).json()) as { revision: number }).revision)
    .toBe(2);
  await typeNumber(step(other, 'torus'), 'Ring radius', 2.5);
  const dialog = other.getByRole('alertdialog', { name: 'Changed in another tab' });
  await expect(dialog).toContainText('saved elsewhere as version 2');
  await expect(dialog).toContainText('kept as version 3');
  const revisions = (await (await page.request.get(`/api/pieces/${id}/revisions`)).json()) as {
    revisions: { number: number; aside: boolean }[];
  };
  expect(revisions.revisions.map((r) => [r.number, r.aside])).toEqual([
    [3, true],
    [2, false],
    [1, false],
  ]);

  await dialog.getByRole('button', { name: 'Open the other' }).click();
  await expect(step(other, 'torus').getByRole('spinbutton', { name: 'Ring radius' })).toHaveAttribute(
    'aria-valuenow',
    '1.5',
  );
  await typeNumber(step(other, 'torus'), 'Ring radius', 3);
  await saved(other);

  // Now the first tab is late, and goes on with its own.
  await typeNumber(step(page, 'torus'), 'Ring radius', 0.5);
  await page.getByRole('button', { name: 'Go on with mine' }).click();
  await expect(page.getByText('Your version goes on.')).toBeVisible();
  await saved(page);
  const head = (await (await page.request.get(`/api/pieces/${id}`)).json()) as { source: string };
  expect(JSON.parse(head.source).ribbons[0].steps[0].values.ringRadius).toBe(0.5);
});

test('work is not lost when the server is away', async ({ page }) => {
  const id = await openPiece(page, smallPiece('Stormy'));
  await page.route('**/api/pieces/*', (route) =>
    route.request().method() === 'PUT' ? route.abort() : route.continue(),
  );
  await typeNumber(step(page, 'torus'), 'Ring radius', 1.75);
  await expect(page.getByText('Not saved: server away')).toBeVisible();
  await expect(page.getByText(/server does not answer.*what you made is still here/)).toBeVisible();
  // The tab is closed before the server is back; the next visit has the work again.
  await page.unroute('**/api/pieces/*');
  const later = await page.context().newPage();
  await page.close();
  await later.goto(`/piece/${id}`);
  await pictureReady(later);
  await expect(step(later, 'torus').getByRole('spinbutton', { name: 'Ring radius' })).toHaveAttribute(
    'aria-valuenow',
    '1.75',
  );
  await saved(later);
});

test('the shelf: playing thumbnails, rename, duplicate, delete with undo, find', async ({ page }) => {
  const errors = watchErrors(page);
  await openPiece(page, smallPiece('Weathercock'));
  await page.goto('/');
  const mine = card(page, 'Weathercock');
  await expect(mine.getByTestId('thumbnail')).toHaveAttribute('data-ready', 'true', { timeout: 90_000 });
  const strip = mine.locator('img');
  const at = () => strip.evaluate((e) => e.style.transform);
  const first = await at();
  await expect.poll(at).not.toBe(first);
  await expect(mine.getByText('closed')).toBeVisible();

  await mine.getByRole('button', { name: 'More for Weathercock' }).click();
  await page.getByRole('menuitem', { name: 'Rename' }).click();
  await page.getByRole('textbox', { name: 'New name' }).fill('Wind Vane');
  await page.keyboard.press('Enter');
  await expect(card(page, 'Wind Vane')).toBeVisible();
  await card(page, 'Wind Vane').getByRole('button', { name: /^More/ }).click();
  await page.getByRole('menuitem', { name: 'Duplicate' }).click();
  await expect(card(page, 'Wind Vane copy')).toBeVisible();
  await card(page, 'Wind Vane copy').getByRole('button', { name: /^More/ }).click();
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await expect(card(page, 'Wind Vane copy')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(card(page, 'Wind Vane copy')).toBeVisible();
  for (const name of ['Sleet One', 'Sleet Two', 'Sleet Three']) await expect(card(page, name)).toBeVisible();
  rmSync(folder, { recursive: true, force: true });
});
