import { newPiece, newRibbon, newStep, type Piece } from '@maypole/core/piece/piece';
import { expect, test, type Page } from './test';
import { addRibbon, addStep, openPiece, step, typeNumber, watchErrors } from './helpers';

const small = (name: string, form: string, values: object = {}): Piece => ({
  ...newPiece(name),
  loop: { frames: 12, fps: 12 },
  format: { width: 160, height: 120 },
  ribbons: [{ ...newRibbon(form, 0, 'Form'), steps: [newStep(form, values as never)] }],
});

async function change(page: Page, from: string, title: string, to: string): Promise<void> {
  await step(page, from)
    .getByRole('button', { name: `More for ${title}` })
    .click();
  await page.getByRole('menuitem', { name: `Change to ${to}` }).click();
}

test('a twisted square bar is joined along a closed Lissajous curve; a solid is cut by another ribbon', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openPiece(page, small('Bar', 'box', { segments: 1 }));
  await change(page, 'box', 'Box', 'curve');
  await expect(step(page, 'curve').getByRole('combobox', { name: 'Curve' })).toHaveValue('lissajous');
  await addStep(page, 'Bevel');
  await expect(step(page, 'bevel').getByRole('alert')).toContainText('here are only curves');
  await step(page, 'bevel').getByRole('button', { name: 'More for Bevel' }).click();
  await page.getByRole('menuitem', { name: 'Remove step' }).click();
  await addStep(page, 'Sweep');
  await typeNumber(step(page, 'sweep'), 'Twist', 1.25);
  await typeNumber(step(page, 'sweep'), 'Rings', 60);
  await expect(page.getByTestId('face-count')).toHaveText('720 faces');
  await addRibbon(page, 'Box');
  await addStep(page, 'Combine');
  await expect(step(page, 'combine').getByRole('alert')).toContainText('name another ribbon');
  await step(page, 'combine').getByRole('combobox', { name: 'With' }).selectOption({ label: 'Form' });
  await expect(step(page, 'combine').getByRole('alert')).toHaveCount(0);
  // What only cuts is taken out of the picture, and says so.
  await expect(page.getByText('Form serves this step now and is hidden from the picture')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Ribbon Form, switched off' })).toBeVisible();
  await expect(page.getByTestId('face-count')).not.toHaveText('384 faces');
  await expect(page.getByTestId('seam-chip')).toHaveText('Seam closed');
  expect(errors).toEqual([]);
});

test('a pair goes along both ways, but for what is parted on purpose; handles are dragged in the picture', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openPiece(page, small('Pair', 'geodesic', { frequency: 6 }));
  await addStep(page, 'Displace');
  await page.getByRole('button', { name: 'More for this ribbon' }).click();
  await page.getByRole('menuitem', { name: 'Make a pair' }).click();
  await expect(page.getByRole('textbox', { name: 'Name of the ribbon' })).toHaveValue('Form pair');
  // A pair goes along both ways, but for a value that was parted from it.
  await step(page, 'displace').getByRole('button', { name: 'Scale goes along with its pair; part it' }).click();
  await typeNumber(step(page, 'displace'), 'Scale', 0.5);
  await page.getByRole('button', { name: 'Ribbon Form', exact: true }).click();
  await typeNumber(step(page, 'displace'), 'Height', 0.11);
  await typeNumber(step(page, 'displace'), 'Scale', 0.9);
  await page.getByRole('button', { name: 'Ribbon Form pair', exact: true }).click();
  await expect(step(page, 'displace').getByRole('spinbutton', { name: 'Height' })).toHaveAttribute(
    'aria-valuenow',
    '0.11',
  );
  await expect(step(page, 'displace').getByRole('spinbutton', { name: 'Scale' })).toHaveAttribute(
    'aria-valuenow',
    '0.5',
  );

  await addStep(page, 'Push');
  const from = step(page, 'push').getByRole('spinbutton', { name: 'From x' });
  await expect(from).toHaveAttribute('aria-valuenow', '0.8');
  const grip = page.getByRole('button', { name: 'From in the picture' });
  const box = (await grip.boundingBox())!;
  await page.mouse.move(box.x + 9, box.y + 9);
  await page.mouse.down();
  await page.mouse.move(box.x + 49, box.y + 9, { steps: 4 });
  await expect(page.getByTestId('read-out')).toContainText('From');
  await page.mouse.up();
  await expect(page.getByTestId('read-out')).toHaveCount(0);
  expect(Number(await from.getAttribute('aria-valuenow'))).toBeGreaterThan(0.85);
  // A drag is one edit, and takes one undo.
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(from).toHaveAttribute('aria-valuenow', '0.8');
  await grip.focus();
  await page.keyboard.press('ArrowRight');
  await expect(from).not.toHaveAttribute('aria-valuenow', '0.8');
  expect(errors).toEqual([]);
});

test('a form comes in from a file and goes out with its piece; a broken file changes nothing', async ({ page }) => {
  await openPiece(page, small('Import', 'imported'));
  await expect(step(page, 'imported').getByRole('alert')).toContainText('choose one that ends in .glb');
  const choose = (name: string, text: string) =>
    page.getByTestId('file-shape').setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });
  await choose('broken.obj', 'v 0 0 0\nv 1 0 0\nf 1 2 7\n');
  await expect(page.getByText(/broken\.obj: Face 0 names point 6/)).toBeVisible();
  await expect(step(page, 'imported').getByRole('alert')).toContainText('choose one');
  await choose('vane.obj', 'v 0 0 0\nv 1 0 0\nv 1 1 0\nv 0 1 0\nv 0 0 1\nf 1 2 3 4\nf 1 2 5\n');
  await expect(page.getByTestId('face-count')).toHaveText('2 faces');
  await expect(step(page, 'imported').getByRole('button', { name: 'File: vane.obj' })).toBeVisible();
  await addStep(page, 'Displace');
  await step(page, 'displace').getByRole('button', { name: 'More', exact: true }).click();
  await step(page, 'displace').getByRole('combobox', { name: 'By', exact: true }).selectOption({ label: 'Picture' });
  await expect(step(page, 'displace').getByRole('alert')).toContainText('has no picture yet');
  await page.getByTestId('file-picture').setInputFiles('docs/screenshots/editor.png');
  await step(page, 'displace').getByRole('combobox', { name: 'Laid' }).selectOption({ label: 'Along Y' });
  await expect(step(page, 'displace').getByRole('alert')).toHaveCount(0);
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  // The file carries the shape, and comes in again anywhere.
  const id = page.url().split('/').at(-1)!;
  const file = await (await page.request.get(`/api/pieces/${id}/file`)).text();
  expect(JSON.parse(file)).toMatchObject({ maypole: 'parcel' });
  await page.goto('/');
  await page.getByTestId('import').setInputFiles({
    name: 'parcel.json',
    mimeType: 'application/json',
    buffer: Buffer.from(file.replaceAll('Import', 'Carried')),
  });
  await expect(page.getByText('parcel.json is on the shelf.')).toBeVisible();
  const damaged = file.replace(/"data":"[^"]{8}/, '"data":"AAAAAAAA');
  await page
    .getByTestId('import')
    .setInputFiles({ name: 'damaged.json', mimeType: 'application/json', buffer: Buffer.from(damaged) });
  await expect(page.getByText(/damaged\.json: The file .* inside this piece/)).toBeVisible();
});
