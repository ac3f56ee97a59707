import { expect, test, type Locator, type Page } from '@playwright/test';
import { PNG } from 'pngjs';
import { openPiece, smallPiece, typeNumber, watchErrors } from './helpers';

const lights = (page: Page) => page.getByRole('radiogroup', { name: 'Light' });
/** Some samples are there, or every pixel is done with fewer. */
const SAMPLED = /^(\d+ of \d+ samples|every pixel is done)/;

async function pixelsOf(canvas: Locator): Promise<PNG> {
  const url = await canvas.evaluate((c: HTMLCanvasElement) => c.toDataURL());
  return PNG.sync.read(Buffer.from(url.split(',')[1], 'base64'));
}
const coloursIn = ({ data }: PNG) =>
  new Set(Array.from({ length: data.length / 4 }, (_, i) => data.readUInt32LE(4 * i)));

test('the picture in true light: refined while it stands still, in quick light while it moves, gone when it is switched off', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openPiece(page, smallPiece('Traced'));
  const note = page.getByTestId('traced');
  const traced = page.getByTestId('true-picture');
  await expect(note).toHaveCount(0);
  await lights(page).getByRole('radio', { name: 'True' }).click();
  await expect(note).toHaveText(SAMPLED, { timeout: 60_000 });
  await expect(traced).toBeVisible();
  // A lit form over its backdrop has many tones.
  await expect.poll(async () => coloursIn(await pixelsOf(traced)).size, { timeout: 30_000 }).toBeGreaterThan(200);
  // A change takes it away at once, and it comes back.
  const viewport = page.getByTestId('viewport');
  await viewport.focus();
  await viewport.press('ArrowLeft');
  await expect(note).toHaveText('following rays…');
  await expect(note).toHaveText(SAMPLED, { timeout: 60_000 });
  // Other looks are the card's.
  await page.getByRole('radiogroup', { name: 'Look' }).getByRole('radio', { name: 'Clay' }).click();
  await expect(note).toHaveCount(0);
  await expect(traced).toHaveCount(0);
  await page.getByRole('radiogroup', { name: 'Look' }).getByRole('radio', { name: 'Shaded' }).click();
  await expect(note).toBeVisible();
  await lights(page).getByRole('radio', { name: 'Quick' }).click();
  await expect(note).toHaveCount(0);
  await expect(traced).toHaveCount(0);
  expect(errors).toEqual([]);
});

test('samples are set, seen as a map and kept; the line compares both lights; a loop that plays is traced ahead', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openPiece(page, smallPiece('Efforts', 4));
  const note = page.getByTestId('traced');
  const traced = page.getByTestId('true-picture');
  await lights(page).getByRole('radio', { name: 'True' }).click();
  await page.getByRole('button', { name: 'True light settings' }).click();
  const settings = page.getByRole('dialog', { name: 'True light' });
  await expect(settings.getByRole('radio', { name: 'Look' })).toBeChecked();
  await typeNumber(settings, 'Samples at least', 4);
  await typeNumber(settings, 'Samples at most', 8);
  await expect(settings.getByText('Set by hand')).toBeVisible();
  await expect(note).toHaveText(/^(8 of 8 samples|every pixel is done)/, { timeout: 60_000 });
  // The map has a few colours, one for each number of samples.
  await settings.getByLabel('Show samples').focus();
  await page.keyboard.press('Space');
  await expect.poll(async () => coloursIn(await pixelsOf(traced)).size).toBeLessThan(12);
  await page.keyboard.press('Space');
  await expect.poll(async () => coloursIn(await pixelsOf(traced)).size).toBeGreaterThan(200);
  // The same picture: where both lights are right, pixels differ by grain and by what bounces.
  await settings.getByLabel('Compare with quick light').focus();
  await page.keyboard.press('Space');
  await page.keyboard.press('Escape');
  const line = page.getByRole('slider', { name: 'Line between quick light and true light' });
  await line.focus();
  await line.press('ArrowLeft');
  await expect(line).toHaveAttribute('aria-valuenow', '48');
  await expect(traced).toHaveCSS('clip-path', 'inset(0px 0px 0px 48%)');
  // Played, it is traced frame by frame.
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(note).toHaveText('the loop is traced', { timeout: 90_000 });
  await expect(traced).toBeVisible();
  await page.getByRole('button', { name: 'Pause', exact: true }).click();
  await expect(note).toHaveText(SAMPLED, { timeout: 60_000 });
  // What was set is there again.
  await page.reload();
  await lights(page).getByRole('radio', { name: 'True' }).click();
  await page.getByRole('button', { name: 'True light settings' }).click();
  await expect(settings.getByRole('spinbutton', { name: 'Samples at most' })).toHaveAttribute('aria-valuenow', '8');
  expect(errors).toEqual([]);
});
