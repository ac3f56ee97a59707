import { expect, test } from '@playwright/test';
import { PNG } from 'pngjs';
import { openPiece, smallPiece, watchErrors } from './helpers';

test('the picture in true light: refined while it stands still, in quick light while it moves, gone when it is switched off', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openPiece(page, smallPiece('Traced'));
  const note = page.getByTestId('traced');
  const traced = page.getByTestId('true-picture');
  await expect(note).toHaveCount(0);
  await page.getByRole('radiogroup', { name: 'Light' }).getByRole('radio', { name: 'True' }).click();
  // Every pixel has been sampled, and then again.
  await expect(note).toHaveText(/^([2-9]|\d\d+) of 256 samples$/, { timeout: 60_000 });
  await expect(traced).toBeVisible();
  const picture = PNG.sync.read(
    Buffer.from((await traced.evaluate((c: HTMLCanvasElement) => c.toDataURL())).split(',')[1], 'base64'),
  );
  const colours = new Set<number>();
  for (let i = 0; i < picture.data.length; i += 4) colours.add(picture.data.readUInt32LE(i));
  // A lit form over its backdrop has many tones.
  expect(colours.size).toBeGreaterThan(200);
  // A change takes it away at once, and it comes back.
  const viewport = page.getByTestId('viewport');
  await viewport.focus();
  await viewport.press('ArrowLeft');
  await expect(note).toHaveText('following rays…');
  await expect(note).toHaveText(/^\d+ of 256 samples$/, { timeout: 60_000 });
  // Other looks are the card's.
  await page.getByRole('radiogroup', { name: 'Look' }).getByRole('radio', { name: 'Clay' }).click();
  await expect(note).toHaveCount(0);
  await expect(traced).toHaveCount(0);
  await page.getByRole('radiogroup', { name: 'Look' }).getByRole('radio', { name: 'Shaded' }).click();
  await expect(note).toBeVisible();
  await page.getByRole('radiogroup', { name: 'Light' }).getByRole('radio', { name: 'Quick' }).click();
  await expect(note).toHaveCount(0);
  await expect(traced).toHaveCount(0);
  expect(errors).toEqual([]);
});
