import { newItem, newStep } from '@maypole/core/piece/piece';
import { backdrops } from '@maypole/core/scene/index';
import { expect, test, type Locator, type Page } from './test';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { PNG } from 'pngjs';
import { addOutput, openDeliver, renderAll, save } from './delivering';
import { openPiece, smallPiece, stillPicture, typeNumber, watchErrors, wordsOf } from './helpers';

const lights = (page: Page) => page.getByRole('radiogroup', { name: 'Light' });
/** Some samples are there, or every pixel is done with fewer. */
const SAMPLED = /^(\d+ of \d+ samples|every pixel is done)/;
/** A first picture takes a minute on a slow machine. */
const SOON = { timeout: 300_000 };

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
  await expect(note).toHaveText(SAMPLED, SOON);
  await expect(traced).toBeVisible();
  // A lit form over its backdrop has many tones.
  await expect.poll(async () => coloursIn(await pixelsOf(traced)).size).toBeGreaterThan(200);
  // A change takes it away at once, and it comes back.
  const viewport = page.getByTestId('viewport');
  await viewport.focus();
  const said = await wordsOf(page, 'traced');
  await viewport.press('ArrowLeft');
  await expect.poll(said).toContain('following rays…');
  await expect(note).toHaveText(SAMPLED, SOON);
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

test('what is behind stands upright, and alike, in both lights', { tag: '@long' }, async ({ page }) => {
  const errors = watchErrors(page);
  // Red above and blue below, darker to the left.
  const behind = new PNG({ width: 64, height: 64 });
  for (let i = 0; i < 64 * 64; i++) {
    const strong = i % 64 < 32 ? 120 : 240;
    behind.data.set(i < 64 * 32 ? [strong, 0, 0, 255] : [0, 0, strong, 255], 4 * i);
  }
  const kept = await page.request.post('/api/assets?name=behind.png', { data: PNG.sync.write(behind) });
  const { fingerprint: file } = (await kept.json()) as { fingerprint: string };
  const piece = smallPiece('Upright');
  const small = newStep('place', { size: 0.1 });
  const ribbons = piece.ribbons.map((r) => ({ ...r, steps: [...r.steps, small] }));
  const backdrop = [newItem(backdrops.get('image'), { file, fit: 'stretch' })];
  await openPiece(page, { ...piece, ribbons, scene: { ...piece.scene, backdrop } });
  /** Red, green and blue to the left and right, above and below the middle, where a small ring stands. */
  const corners = ({ width, height, data }: PNG) =>
    [0.35, 0.65].flatMap((v) =>
      [0.35, 0.65].map((u) => {
        const at = 4 * (Math.floor(v * height) * width + Math.floor(u * width));
        return [0, 1, 2].map((k) => Math.round(data[at + k] / 10));
      }),
    );
  const expected = [
    [12, 0, 0],
    [24, 0, 0],
    [0, 0, 12],
    [0, 0, 24],
  ];
  await expect.poll(async () => corners(PNG.sync.read(await stillPicture(page)))).toEqual(expected);
  await lights(page).getByRole('radio', { name: 'True' }).click();
  await expect(page.getByTestId('traced')).toHaveText(SAMPLED, SOON);
  expect(corners(await pixelsOf(page.getByTestId('true-picture')))).toEqual(expected);
  // So it does in a file of one frame, which is the first that its drawer draws.
  const dialog = await openDeliver(page);
  await addOutput(page, 'PNG pictures');
  await dialog.getByLabel('Frames', { exact: true }).selectOption('A part');
  await typeNumber(dialog, 'To', 0);
  const saved = await save(page, await renderAll(dialog), 'PNG pictures', mkdtempSync(path.join(tmpdir(), 'maypole-')));
  expect(corners(PNG.sync.read(readFileSync(saved)))).toEqual(expected);
  expect(errors).toEqual([]);
});

test(
  'samples are set, seen as a map and kept; the line compares both lights; a loop that plays is traced ahead',
  { tag: '@long' },
  async ({ page }) => {
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
    await typeNumber(settings, 'Air bounces', 0);
    await expect(settings.getByText('Set by hand')).toBeVisible();
    await expect(note).toHaveText(/^(8 of 8 samples|every pixel is done)/);
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
    await expect(note).toHaveText('the loop is traced', { timeout: 180_000 });
    await expect(traced).toBeVisible();
    await page.getByRole('button', { name: 'Pause', exact: true }).click();
    await expect(note).toHaveText(SAMPLED, SOON);
    // What was set is there again.
    await page.reload();
    await lights(page).getByRole('radio', { name: 'True' }).click();
    await page.getByRole('button', { name: 'True light settings' }).click();
    await expect(settings.getByRole('spinbutton', { name: 'Samples at most' })).toHaveAttribute('aria-valuenow', '8');
    await expect(settings.getByRole('spinbutton', { name: 'Air bounces' })).toHaveAttribute('aria-valuenow', '0');
    // In a low window the last of them is scrolled to.
    await page.setViewportSize({ width: 1280, height: 560 });
    const compare = settings.getByLabel('Compare with quick light');
    await compare.focus();
    await expect
      .poll(async () => {
        const [all, one] = [(await settings.boundingBox())!, (await compare.boundingBox())!];
        return all.y >= 0 && one.y >= all.y && one.y + one.height <= all.y + all.height;
      })
      .toBe(true);
    expect(errors).toEqual([]);
  },
);
