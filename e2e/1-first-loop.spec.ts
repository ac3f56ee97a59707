import { mkdtempSync, readFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { expect, test } from './test';
import { unzipSync } from 'fflate';
import { PNG } from 'pngjs';
import { addStep, movieFrame, pictureReady, probe, step, stillPicture, typeNumber, watchErrors } from './helpers';
import { addOutput, openDeliver, renderAll, save } from './delivering';

// One story in order, from the empty shelf to delivered files.
test.describe.configure({ mode: 'serial' });
const folder = mkdtempSync(path.join(os.tmpdir(), 'maypole-e2e-'));
let address = '';

test('the first loop, from the empty shelf to a closed twist', async ({ page }) => {
  const errors = watchErrors(page);
  await page.goto('/');
  await expect(page.getByText('The shelf is empty')).toBeVisible();
  await page.getByRole('button', { name: 'New loop' }).first().click();
  await page.getByRole('button', { name: /^Empty/ }).click();
  await page.waitForURL(/\/piece\//);
  address = page.url();

  await page.getByRole('button', { name: 'Choose a form' }).click();
  await page.getByRole('button', { name: /^Cylinder/ }).click();
  await pictureReady(page);
  await typeNumber(step(page, 'cylinder'), 'Sides', 16);
  await typeNumber(step(page, 'cylinder'), 'Rows', 8);
  await typeNumber(step(page, 'cylinder'), 'Cap rings', 2);
  for (const title of ['Subdivide', 'Displace', 'Smooth', 'Twist']) await addStep(page, title);
  await step(page, 'displace').getByRole('button', { name: 'Noise: Gradient' }).click();
  await page.getByRole('radio', { name: 'Cellular', exact: true }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('face-count')).toHaveText('736 faces');

  await page.getByTestId('loop-field').click();
  await page.getByRole('button', { name: '24', exact: true }).click();
  await typeNumber(page.getByLabel('Loop', { exact: true }), 'Seconds', 5);
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('loop-field')).toContainText('120 frames · 24 fps');

  await step(page, 'twist')
    .getByRole('button', { name: /^Motion of Angle/ })
    .click();
  const motion = page.getByLabel('Motion of Angle', { exact: true });
  await motion.getByRole('radio', { name: 'Wave' }).click();
  await typeNumber(motion, 'Low', -60);
  await typeNumber(motion, 'High', 60);
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('seam-chip')).toHaveText('Seam closed');
  await page.getByRole('textbox', { name: 'Name of the piece' }).fill('Squall');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  expect(errors).toEqual([]);
});

test('everything is there again after reloading', async ({ page }) => {
  await page.goto(address);
  await pictureReady(page);
  await expect(page.getByRole('textbox', { name: 'Name of the piece' })).toHaveValue('Squall');
  await expect(page.getByTestId('loop-field')).toContainText('5.00 s');
  const titles = await page
    .getByTestId(/^step-/)
    .evaluateAll((cards) => cards.map((c) => c.getAttribute('data-testid')));
  expect(titles).toEqual(['step-cylinder', 'step-subdivide', 'step-displace', 'step-smooth', 'step-twist']);
  await expect(page.getByRole('region', { name: 'Round' }).getByText('Twist · Angle')).toBeVisible();
});

test('a broken turn is read and repaired, and frame N is frame 0 pixel for pixel', async ({ page }) => {
  await page.goto(address);
  await pictureReady(page);
  await page.getByRole('button', { name: /^Twist, / }).click();
  await step(page, 'twist')
    .getByRole('button', { name: /^Motion of Angle/ })
    .click();
  const motion = page.getByLabel('Motion of Angle', { exact: true });
  await typeNumber(motion, 'Turns', 1.5);
  await expect(motion.getByText('1.5 turns do not close')).toBeVisible();
  await typeNumber(motion, 'Phase', 0.1);
  await page.keyboard.press('Escape');
  const chip = page.getByTestId('seam-chip');
  await expect(chip).toHaveText('1 gap at the seam');
  await chip.click();
  const gap = page.getByTestId('gap');
  await expect(gap).toContainText('Twist angle');
  await expect(gap).toContainText('70.5 ° off');
  await expect(gap).toContainText(
    'Turns 1.5 times; a loop needs whole turns. It starts at 35.3 ° and arrives at -35.3 °.',
  );
  await expect(page.getByText('the piece repeats after 240 frames')).toBeVisible();
  await expect(page.getByTestId('seam-words')).toContainText(/Largest distance now 0\.\d+ m, at Cylinder/, {
    timeout: 60_000,
  });
  await page.getByRole('button', { name: 'Compare the pictures' }).click();
  await expect(page.getByTestId('picture-comparison')).toContainText(/\d+ of 230400 pixels differ/, {
    timeout: 60_000,
  });

  // One repair makes the loop as long as the piece's true period; it is taken back again.
  await gap.getByRole('button', { name: 'Loop of 240 frames' }).click();
  await expect(chip).toHaveText(/Checking the seam|Seam closed/);
  await expect(page.getByTestId('loop-field')).toContainText('240 frames · 24 fps');
  await page.getByRole('button', { name: 'Undo: Lengthen the loop' }).click();
  await expect(page.getByTestId('loop-field')).toContainText('120 frames');
  await gap.getByRole('button', { name: '2 turns' }).click();
  await expect(gap).toHaveCount(0);
  await expect(page.getByTestId('seam-words')).toContainText('to the last bit');
  await expect(chip).toHaveText('Seam closed');
  await page.getByRole('button', { name: 'Compare the pictures' }).click();
  await expect(page.getByTestId('picture-comparison')).toContainText('identical, pixel for pixel');
  await expect(page.getByTestId('steps-chart').locator('svg')).toBeVisible({ timeout: 180_000 });

  // The same in the view itself: frame 120 asked for explicitly, against frame 0.
  const shown = async (frame: number) => {
    await page.getByRole('button', { name: `Show frame ${frame}` }).click();
    await expect(page.locator(`canvas[data-testid=picture][data-frame="${frame}"][data-complete=true]`)).toBeVisible();
    return PNG.sync.read(await stillPicture(page));
  };
  const first = await shown(0);
  const last = await shown(120);
  expect(first.data.equals(last.data)).toBe(true);
  await typeNumber(page, 'Frame', 30);
  await expect(page.locator('canvas[data-testid=picture][data-frame="30"][data-complete=true]')).toBeVisible();
  const quarter = PNG.sync.read(await stillPicture(page));
  expect(quarter.data.equals(first.data)).toBe(false);
});

test('pictures and a movie are delivered with exact counts, rates and sizes', async ({ page }) => {
  await page.goto(address);
  await pictureReady(page);
  await page.getByTestId('loop-field').click();
  await typeNumber(page.getByLabel('Loop', { exact: true }), 'Frames', 12);
  await page.keyboard.press('Escape');
  const dialog = await openDeliver(page);
  await typeNumber(dialog, 'Width', 160);
  await typeNumber(dialog, 'Height', 120);
  for (const title of ['PNG pictures', 'MP4 movie', 'WebM movie']) await addOutput(page, title);
  await expect(dialog.getByTestId('contents')).toContainText(
    'squall-160x120/squall-160x120-0000.png … squall-160x120-0011.png',
  );
  // Three forms of one rendering of the frames.
  const card = await renderAll(dialog);
  await expect(card.getByTestId('output-row').filter({ hasText: 'Seam closed' })).toHaveCount(3);

  const zip = await save(page, card, 'PNG pictures', folder);
  expect(path.basename(zip)).toBe('squall-160x120.zip');
  const entries = unzipSync(readFileSync(zip));
  const pictures = Object.keys(entries).filter((n) => n.endsWith('.png'));
  expect(pictures).toEqual(
    Array.from({ length: 12 }, (_, f) => `squall-160x120/squall-160x120-${String(f).padStart(4, '0')}.png`),
  );
  // Read by an independent library.
  const decoded = pictures.map((n) => PNG.sync.read(Buffer.from(entries[n])));
  for (const p of decoded) expect([p.width, p.height]).toEqual([160, 120]);
  const difference = (a: PNG, b: PNG) => a.data.reduce((s, x, i) => s + Math.abs(x - b.data[i]), 0) / a.data.length;
  const steps = decoded.map((p, f) => difference(p, decoded[(f + 1) % 12]));
  // No two neighbours are equal, the last and the first neither: frame 12 is not among them.
  for (const s of steps) expect(s).toBeGreaterThan(0.02);
  expect(steps[11]).toBeLessThan(2 * Math.max(...steps.slice(0, 11)));

  const movie = await save(page, card, 'MP4 movie', folder);
  expect(probe(movie)).toMatchObject({
    codec_name: 'h264',
    width: 160,
    height: 120,
    r_frame_rate: '24/1',
    nb_read_frames: '12',
  });
  const grey = (frame: number) => movieFrame(movie, frame);
  const apart = (a: Buffer, b: Buffer) => a.reduce((s, x, i) => s + Math.abs(x - b[i]), 0) / a.length;
  expect(grey(0).length).toBe(160 * 120);
  // Frame 11 leads into frame 0 as each frame leads into the next.
  expect(apart(grey(11), grey(0))).toBeLessThan(2.5 * Math.max(apart(grey(0), grey(1)), apart(grey(10), grey(11))));

  const webm = await save(page, card, 'WebM movie', folder);
  expect(probe(webm)).toMatchObject({ codec_name: 'vp9', width: 160, height: 120, nb_read_frames: '12' });

  // A part of the loop, in clay: three frames.
  for (const title of ['MP4 movie', 'WebM movie'])
    await dialog.getByRole('button', { name: `Remove ${title.toLowerCase()}` }).click();
  await dialog.getByLabel('Frames', { exact: true }).selectOption('A part');
  await typeNumber(dialog, 'From', 3);
  await typeNumber(dialog, 'To', 5);
  await dialog.getByLabel('Look', { exact: true }).selectOption('Clay');
  await expect(dialog.getByTestId('contents')).toHaveText(
    'squall-160x120/squall-160x120-0003.png … squall-160x120-0005.png',
  );
  const pictured = async () =>
    unzipSync(readFileSync(await save(page, await renderAll(dialog), 'PNG pictures', folder)));
  const part = await pictured();
  expect(Object.keys(part).filter((n) => n.endsWith('.png'))).toEqual(
    [3, 4, 5].map((f) => `squall-160x120/squall-160x120-000${f}.png`),
  );
  expect(
    difference(PNG.sync.read(Buffer.from(part['squall-160x120/squall-160x120-0004.png'])), decoded[4]),
  ).toBeGreaterThan(1);

  // With more sub-frames edges are smoother: pixels beside each other differ less.
  await typeNumber(dialog, 'Sub-frames', 1);
  const rough = await pictured();
  const steepness = (files: typeof part) => {
    const { data } = PNG.sync.read(Buffer.from(files['squall-160x120/squall-160x120-0004.png']));
    let sum = 0;
    for (let i = 4; i < data.length; i++) sum += (data[i] - data[i - 4]) ** 2;
    return sum;
  };
  expect(steepness(part)).toBeLessThan(0.93 * steepness(rough));
});

test('a delivery can be cancelled, and an odd size is refused with the remedy', async ({ page }) => {
  await page.goto(address);
  await pictureReady(page);
  const dialog = await openDeliver(page);
  await dialog.getByLabel('Frames', { exact: true }).selectOption('Whole loop');
  await addOutput(page, 'MP4 movie');
  await typeNumber(dialog, 'Width', 161);
  await expect(dialog.getByRole('alert')).toContainText('this is 161 × 120; use 162 × 120');
  await expect(dialog.getByRole('button', { name: /^Render/ })).toBeDisabled();
  await typeNumber(dialog, 'Width', 1000);
  await typeNumber(dialog, 'Height', 1000);
  const before = await dialog.getByTestId('render').count();
  await dialog.getByRole('button', { name: 'Render 12 frames' }).click();
  await expect(dialog.getByTestId('render')).toHaveCount(before + 1);
  const render = dialog.getByTestId('render').first();
  await expect(render.getByText(/^[1-9]\d* of 12 frames/)).toBeVisible({ timeout: 60_000 });
  // Editing goes on meanwhile.
  await page.getByLabel('Name of the piece').fill('Squall II');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('status').getByText('Saved')).toBeVisible();
  await expect(render.getByText(/^Squall revision/)).toBeVisible();
  await render.getByRole('button', { name: 'Cancel Squall' }).click();
  await expect(render).toContainText('Cancelled at');
  await expect(dialog.getByRole('progressbar')).toHaveCount(0);
});
