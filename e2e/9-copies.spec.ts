import { newPiece, newRibbon, newStep, type Piece } from '@maypole/core/piece/piece';
import { expect, test } from './test';
import { addRibbon, addStep, openPiece, step, typeNumber, watchErrors } from './helpers';

const small = (name: string, form: string, values: object = {}, frames = 24): Piece => ({
  ...newPiece(name),
  loop: { frames, fps: 12 },
  format: { width: 160, height: 120 },
  ribbons: [{ ...newRibbon(form, 0, 'Form'), steps: [newStep(form, values as never)] }],
});
const readOut = (page: Parameters<typeof step>[0], kind: string) => step(page, kind).getByTestId('copies-read-out');

test('twenty-four leaning capsules on a spiral, each a little later, close in the loop chosen', async ({ page }) => {
  const errors = watchErrors(page);
  await openPiece(page, small('Leaning', 'capsule', { radius: 0.08, height: 0.7, sides: 10, endRows: 3, rows: 1 }));
  await addStep(page, 'Vary');
  await expect(step(page, 'vary').getByRole('alert')).toContainText('put a step of Repeat before it');
  await step(page, 'vary').getByRole('button', { name: 'More for Vary' }).click();
  await page.getByRole('menuitem', { name: 'Remove step' }).click();

  await addStep(page, 'Rings');
  await step(page, 'repeat-rings').getByRole('combobox', { name: 'Laid out as' }).selectOption({ label: 'Spiral' });
  await typeNumber(step(page, 'repeat-rings'), 'Count', 24);
  await expect(readOut(page, 'repeat-rings')).toContainText('24 copies');
  await addStep(page, 'Vary');
  await step(page, 'vary').getByRole('combobox', { name: 'Vary' }).selectOption({ label: 'Turn' });
  await step(page, 'vary').getByRole('combobox', { name: 'By', exact: true }).selectOption({ label: 'All alike' });
  await step(page, 'vary')
    .getByRole('button', { name: /^Motion of To z/ })
    .click();
  await page.getByLabel('Motion of To z', { exact: true }).getByRole('radio', { name: 'Wave' }).click();
  await page.keyboard.press('Escape');
  await typeNumber(step(page, 'vary'), 'Each later', 4);
  await expect(page.getByTestId('seam-chip')).toHaveText('Seam closed');

  // A copy is chosen by its read-out, and then the next; each says what is its own.
  await readOut(page, 'repeat-rings').click();
  const copy = page.getByTestId('copy');
  await expect(copy).toContainText('Copy 1 of 24');
  const first = await copy.innerText();
  await copy.getByRole('button', { name: 'Next copy' }).click();
  await expect(copy).toContainText('Copy 2 of 24');
  expect(await copy.innerText()).not.toBe(first);
  await copy.getByRole('button', { name: 'Choose no copy' }).click();
  await expect(copy).toHaveCount(0);

  // The whole form of a copy may be late, too: each time is a shape of its own, shared where times coincide.
  await typeNumber(step(page, 'repeat-rings'), 'Each later', 1);
  await addStep(page, 'Spin');
  await expect(page.getByTestId('seam-chip')).toHaveText('Seam closed');
  // A step after the repeat takes copies whole unless it is told otherwise.
  const copies = step(page, 'spin').getByRole('radiogroup', { name: 'What it does with copies' });
  await expect(copies.getByRole('radio', { name: 'Move whole' })).toBeChecked();
  await copies.getByRole('radio', { name: 'All as one' }).click();
  await expect(copies.getByRole('radio', { name: 'All as one' })).toBeChecked();
  expect(errors).toEqual([]);
});

test('a field of swaying stems is scattered on a form from a file', async ({ page }) => {
  const errors = watchErrors(page);
  await openPiece(page, small('Hill', 'imported'));
  const rows = Array.from({ length: 7 }, (_, r) =>
    Array.from({ length: 7 }, (_, c) => `v ${c / 3 - 1} ${0.3 * Math.cos(r / 2) * Math.cos(c / 2)} ${r / 3 - 1}`),
  ).flat();
  const faces = Array.from({ length: 6 }, (_, r) =>
    Array.from(
      { length: 6 },
      (_, c) => `f ${[7 * r + c, 7 * r + 7 + c, 7 * r + 8 + c, 7 * r + c + 1].map((i) => i + 1).join(' ')}`,
    ),
  ).flat();
  await page
    .getByTestId('file-shape')
    .setInputFiles({ name: 'hill.obj', mimeType: 'text/plain', buffer: Buffer.from([...rows, ...faces].join('\n')) });
  await expect(page.getByTestId('face-count')).toHaveText('36 faces');
  await addRibbon(page, 'Cone');
  await typeNumber(step(page, 'cone'), 'Height', 0.4);
  await typeNumber(step(page, 'cone'), 'Bottom radius', 0.03);
  await addStep(page, 'Bend');
  await step(page, 'bend')
    .getByRole('button', { name: /^Motion of Angle/ })
    .click();
  await page.getByLabel('Motion of Angle', { exact: true }).getByRole('radio', { name: 'Wave' }).click();
  await page.keyboard.press('Escape');
  await addStep(page, 'Scatter');
  await expect(step(page, 'scatter').getByRole('alert')).toContainText('needs a ribbon with faces');
  await step(page, 'scatter').getByRole('combobox', { name: 'Over' }).selectOption({ label: 'Form' });
  await expect(readOut(page, 'scatter')).toContainText('120 copies');
  await typeNumber(step(page, 'scatter'), 'Least distance', 0.3);
  await expect(readOut(page, 'scatter')).not.toContainText('120 copies');
  await addStep(page, 'Vary');
  await step(page, 'vary').getByRole('combobox', { name: 'Vary' }).selectOption({ label: 'Time' });
  await step(page, 'vary').getByRole('combobox', { name: 'By', exact: true }).selectOption({ label: 'Chance' });
  // As many shapes as there are frames at the most, however many copies.
  await expect(readOut(page, 'vary')).toContainText(/\d+ shapes/);
  await expect(page.getByTestId('seam-chip')).toHaveText('Seam closed');
  expect(errors).toEqual([]);
});

test('a stream drifts in a current; released every few frames that do not fit, it is a gap that is repaired', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openPiece(page, small('Drift', 'geodesic', { radius: 0.05, frequency: 1 }, 30));
  await addStep(page, 'Stream');
  await expect(readOut(page, 'stream')).toContainText('120 copies');
  await step(page, 'stream').getByRole('combobox', { name: 'Current' }).selectOption({ label: 'Swirling' });
  await typeNumber(step(page, 'stream'), 'Life', 1.5);
  await expect(readOut(page, 'stream')).toContainText('180 copies');
  await expect(page.getByTestId('seam-chip')).toHaveText('Seam closed');
  await step(page, 'stream').getByRole('combobox', { name: 'Released' }).selectOption({ label: 'By frames' });
  await typeNumber(step(page, 'stream'), 'Every', 4);
  await expect(page.getByTestId('seam-chip')).toHaveText('1 gap at the seam');
  await page.getByTestId('seam-chip').click();
  await page.getByRole('button', { name: /^Every 5 frames/ }).click();
  await expect(page.getByTestId('seam-chip')).toHaveText('Seam closed');
  await expect(step(page, 'stream').getByRole('spinbutton', { name: 'Every' })).toHaveAttribute('aria-valuenow', '5');
  expect(errors).toEqual([]);
});

test('a ring that moves on by one place is closed to the eye; a click in the picture chooses a copy', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openPiece(page, small('Ring', 'box', { segments: 1, size: [0.5, 0.5, 0.5] }));
  await addStep(page, 'Rings');
  await typeNumber(step(page, 'repeat-rings'), 'Count', 8);
  await typeNumber(step(page, 'repeat-rings'), 'Move on', 0.5);
  await expect(page.getByTestId('seam-chip')).toHaveText('1 gap at the seam');
  await typeNumber(step(page, 'repeat-rings'), 'Move on', 1);
  await expect(page.getByTestId('seam-chip')).toHaveText('Seam closed');
  await page.getByTestId('seam-chip').click();
  await expect(page.getByText(/have changed places/).first()).toBeVisible({ timeout: 60_000 });
  await page.getByTestId('seam-chip').click();

  const view = (await page.getByTestId('viewport').boundingBox())!;
  const copy = page.getByTestId('copy');
  // Somewhere on the ring there is a box; the middle of the ring is empty.
  await expect(async () => {
    for (const [x, y] of [
      [0.5, 0.62],
      [0.42, 0.6],
      [0.6, 0.6],
      [0.36, 0.5],
      [0.64, 0.5],
      [0.5, 0.7],
    ]) {
      await page.mouse.click(view.x + x * view.width, view.y + y * view.height);
      if ((await copy.count()) > 0) return;
    }
    expect(await copy.count()).toBe(1);
  }).toPass({ timeout: 30_000 });
  await expect(copy).toContainText(/Copy \d of 8/);
  await expect(copy).toContainText('in step');
  await page.mouse.click(view.x + 8, view.y + view.height - 90);
  await expect(copy).toHaveCount(0);

  // By its values alone each copy takes a time of its own along; the boxes stand still, so nothing shows of it.
  await typeNumber(step(page, 'repeat-rings'), 'Each later', 3);
  await page.getByTestId('seam-chip').click();
  await expect(page.getByText(/each takes its own time along/).first()).toBeVisible({ timeout: 60_000 });
  await expect(page.getByTestId('seam-chip')).toHaveText('Seam closed');
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await page.goto('/');
  const card = page.getByRole('article', { name: 'Ring', exact: true });
  await expect(async () => {
    await page.reload();
    await expect(card).toContainText('closed', { timeout: 2000 });
  }).toPass({ timeout: 20_000 });
  expect(errors).toEqual([]);
});
