import { newItem, newPiece, newRibbon, newStep, type Piece } from '@maypole/core/piece/piece';
import { cameras } from '@maypole/core/scene/index';
import { expect, test, type Locator, type Page } from './test';
import { PNG } from 'pngjs';
import { addStep, openPiece, stillPicture, turns, typeNumber, watchErrors } from './helpers';

test.use({ viewport: { width: 1000, height: 560 } });

/** A form before a camera, with everything that makes a look still to be done. */
const form = (name: string, kind: string, values: object, camera: object = {}): Piece => ({
  ...newPiece(name),
  loop: { frames: 12, fps: 12 },
  format: { width: 160, height: 160 },
  scene: { ...newPiece(name).scene, cameras: [newItem(cameras.get('orbit'), camera as never)] },
  ribbons: [{ ...newRibbon(kind, 0, 'Form'), steps: [newStep(kind, values as never)] }],
});

/** What hands do: presses of a button, keys that do something, choices in a list. A value that is typed is two: into the field, and done. */
test.beforeEach(({ page }) =>
  page.addInitScript(() => {
    const counted = window as unknown as { actions: number };
    counted.actions = 0;
    const count = () => void counted.actions++;
    addEventListener('pointerdown', count, true);
    addEventListener('keydown', (e) => e.key.length > 1 && count(), true);
    addEventListener('change', (e) => e.target instanceof HTMLSelectElement && count(), true);
  }),
);

/** A look from a plain form. Pieces like these took 100 to 166 actions once; half of the fewest is what they may take at most. */
const MOST_ACTIONS = 50;

const goTo = (page: Page, frame: number) => typeNumber(page.getByRole('region', { name: 'Round' }), 'Frame', frame);
const colour = async (within: Page | Locator, label: string, hex: string) => {
  const field = within.getByRole('textbox', { name: `${label}, as text`, exact: true }).first();
  await field.fill(hex);
  await field.press('Enter');
};

/** A menu gives the keyboard back as it closes; nothing is typed before that. */
async function menuClosed(page: Page): Promise<void> {
  await expect(page.getByRole('menuitem')).toHaveCount(0);
  await turns(page, 4);
}

async function openFinish(page: Page): Promise<Locator> {
  const finish = page.getByTestId('finish');
  await finish.getByRole('button', { name: /^Finish/ }).click();
  return finish;
}
async function preset(page: Page, finish: Locator, title: string): Promise<void> {
  await finish.getByRole('button', { name: 'Choose a finish' }).click();
  await page.getByRole('dialog', { name: 'Finishes' }).getByRole('button', { name: title, exact: true }).click();
}
async function part(page: Page, finish: Locator, title: string): Promise<Locator> {
  const button = finish.getByRole('button', { name: 'Add to finish' });
  await button.click();
  await page.getByRole('menuitem', { name: new RegExp(`^${title}`) }).click();
  await menuClosed(page);
  return finish;
}
async function openScene(page: Page): Promise<Locator> {
  await page.getByRole('button', { name: 'Scene', exact: true }).click();
  return page.getByRole('complementary', { name: 'Scene' });
}
async function add(page: Page, list: string, title: string): Promise<void> {
  const button = page.getByRole('button', { name: new RegExp(`^(Add to|Another) ${list}$`) });
  await button.click();
  await page.getByRole('menuitem', { name: title, exact: true }).click();
  await menuClosed(page);
}

/** Share of a picture's pixels of which something holds; r, g, b 0…255. */
function share(png: Buffer, holds: (r: number, g: number, b: number) => boolean): number {
  const { data } = PNG.sync.read(png);
  let n = 0;
  for (let i = 0; i < data.length; i += 4) if (holds(data[i], data[i + 1], data[i + 2])) n++;
  return n / (data.length / 4);
}

/** Moves on in the loop and round to its end: another picture, then the first one to the pixel. */
async function closes(page: Page): Promise<Buffer> {
  const actions = await page.evaluate(() => (window as unknown as { actions: number }).actions);
  expect(actions).toBeGreaterThan(5);
  expect(actions).toBeLessThanOrEqual(MOST_ACTIONS);
  console.log(`${test.info().title}: ${actions} actions`);
  await expect(page.getByTestId('seam-chip')).toHaveText('Seam closed');
  const first = await stillPicture(page);
  await goTo(page, 5);
  expect((await stillPicture(page)).equals(first)).toBe(false);
  await goTo(page, 12);
  expect((await stillPicture(page)).equals(first)).toBe(true);
  return first;
}

test('inside a torus: dark faces, glowing wires, bloom and a black backdrop', async ({ page }) => {
  const errors = watchErrors(page);
  await openPiece(
    page,
    form(
      'Tunnel',
      'torus',
      { ringRadius: 3, pipeRadius: 1, ringSegments: 50, pipeSegments: 12 },
      { distance: 0.6, focalLength: 25, target: [3, 0, 0], elevation: 4 },
    ),
  );
  await addStep(page, 'Spin');
  const finish = await openFinish(page);
  await preset(page, finish, 'Rubber');
  await part(page, finish, 'Wires');
  await colour(finish.getByTestId('part-wires'), 'Wires colour', '#40E0FF');
  await typeNumber(finish.getByTestId('part-wires'), 'Wires strength', 4);
  const scene = await openScene(page);
  await colour(scene.getByTestId('item-colour'), 'Colour', '#000000');
  await add(page, 'lights', 'Gradient surroundings');
  await typeNumber(scene.getByTestId('item-gradient'), 'Strength', 8);
  await add(page, 'picture', 'Bloom');
  const drawn = await closes(page);
  // Mostly dark, with lines that shine blue.
  expect(share(drawn, (r, g, b) => r + g + b < 150)).toBeGreaterThan(0.35);
  expect(share(drawn, (r, _, b) => b > 180 && b > r)).toBeGreaterThan(0.03);
  // Of what is round about one is on: the studio that was there went off.
  await expect(scene.getByTestId('item-studio').getByRole('checkbox', { name: 'Studio light on' })).not.toBeChecked();
  expect(errors).toEqual([]);
});

test(
  'a thinned shell with a glow inside whose hue goes once round, out of focus, over nothing',
  { tag: '@long' },
  async ({ page }) => {
    const errors = watchErrors(page);
    await openPiece(page, form('Lantern', 'geodesic', { radius: 1.2, frequency: 6 }));
    await addStep(page, 'Thin out');
    await addStep(page, 'Shell');
    const finish = await openFinish(page);
    await preset(page, finish, 'Rubber');
    await finish.getByRole('button', { name: /^More/ }).last().click();
    await finish.getByRole('checkbox', { name: 'Inside' }).click({ force: true });
    await finish.getByRole('button', { name: 'Add to inside' }).click();
    await page.getByRole('menuitem', { name: /^Glow/ }).click();
    const glow = finish.getByTestId('part-glow');
    await typeNumber(glow, 'Inside glow strength', 3);
    await glow.getByRole('button', { name: /^Motion of Inside glow colour/ }).click();
    await page
      .getByLabel(/^Motion of Inside glow colour/)
      .getByRole('radio', { name: 'Hue cycle' })
      .click();
    await page.keyboard.press('Escape');
    const scene = await openScene(page);
    await typeNumber(scene.getByTestId('item-orbit'), 'f-number', 0.3);
    await add(page, 'backdrop', 'Transparent');
    await add(page, 'picture', 'Bloom');
    const drawn = await closes(page);
    expect(share(drawn, (r, g, b) => Math.max(r, g, b) - Math.min(r, g, b) > 60)).toBeGreaterThan(0.02);
    expect(errors).toEqual([]);
  },
);

test('boxes of glass in each other, with grain', { tag: '@long' }, async ({ page }) => {
  const errors = watchErrors(page);
  await openPiece(page, form('Boxes', 'box', { rounding: 0.08, segments: 4 }));
  await addStep(page, 'Nest');
  await typeNumber(page.getByTestId('step-nest'), 'Copies', 3);
  await addStep(page, 'Spin');
  const before = await stillPicture(page);
  const finish = await openFinish(page);
  await preset(page, finish, 'Window glass');
  await openScene(page);
  await add(page, 'picture', 'Grain');
  const drawn = await closes(page);
  expect(drawn.equals(before)).toBe(false);
  expect(errors).toEqual([]);
});

test(
  'a crystal in a thin film over marble, under two area lights and a picture of light',
  { tag: '@long' },
  async ({ page }) => {
    const errors = watchErrors(page);
    await openPiece(page, form('Crystal', 'platonic', {}));
    await addStep(page, 'Spin');
    const finish = await openFinish(page);
    await preset(page, finish, 'Diamond');
    await part(page, finish, 'Film');
    const scene = await openScene(page);
    await add(page, 'lights', 'Picture of light');
    // A room that is red to one side: eight pixels of Radiance, none of them run together.
    const pixels = Buffer.alloc(4 * 32);
    for (let i = 0; i < 32; i++) pixels.set(i % 8 < 4 ? [250, 60, 40, 129] : [90, 90, 100, 128], 4 * i);
    const room = Buffer.concat([Buffer.from('#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n\n-Y 4 +X 8\n'), pixels]);
    const light = scene.getByTestId('item-panorama');
    const dark = await stillPicture(page);
    await light
      .getByTestId('file-light')
      .setInputFiles({ name: 'red-room.hdr', mimeType: 'image/vnd.radiance', buffer: room });
    await expect(light.getByRole('button', { name: 'File: red-room.hdr' })).toBeVisible();
    await expect.poll(async () => (await stillPicture(page)).equals(dark)).toBe(false);
    await add(page, 'lights', 'Area light');
    await add(page, 'lights', 'Area light');
    const drawn = await closes(page);
    expect(share(drawn, (r, g, b) => r > g + 25 && r > b + 25)).toBeGreaterThan(0.005);
    // What is no picture of light is refused in words, and the one that was there stays.
    await light
      .getByTestId('file-light')
      .setInputFiles({ name: 'notes.hdr', mimeType: 'text/plain', buffer: Buffer.from('rain at noon') });
    await expect(
      page.getByText('notes.hdr: this is no picture of light; use Radiance (.hdr) or OpenEXR (.exr).'),
    ).toBeVisible();
    await expect(light.getByRole('button', { name: 'File: red-room.hdr' })).toBeVisible();
    expect(errors).toEqual([]);
  },
);

test(
  'a net that adds light, lit at its rim, with a lamp that is seen in the air',
  { tag: '@long' },
  async ({ page }) => {
    const errors = watchErrors(page);
    await openPiece(page, form('Net', 'geodesic', { radius: 1.2, frequency: 8 }));
    await addStep(page, 'Spin');
    const finish = await openFinish(page);
    await part(page, finish, 'Glow');
    await finish.getByRole('button', { name: /^Pattern of Glow strength/ }).click();
    await finish.getByTestId('patterns-strength').getByRole('button', { name: 'Rim' }).click();
    await part(page, finish, 'Wires');
    const scene = await openScene(page);
    await colour(scene.getByTestId('item-colour'), 'Colour', '#04060A');
    await scene.getByRole('button', { name: 'Remove studio light' }).click();
    await add(page, 'lights', 'Ball light');
    await add(page, 'air', 'Lit air');
    const dark = await stillPicture(page);
    await typeNumber(scene.getByTestId('item-ball'), 'Strength', 900);
    const lit = await closes(page);
    const bright = (png: Buffer) => share(png, (r, g, b) => r + g + b > 400);
    expect(bright(lit)).toBeGreaterThan(bright(dark));
    expect(errors).toEqual([]);
  },
);

test('an endless form under daylight with fog, an f-number and an exposure', { tag: '@long' }, async ({ page }) => {
  const errors = watchErrors(page);
  await openPiece(page, form('Chamber', 'endless', { cells: 24 }));
  await addStep(page, 'Spin');
  const scene = await openScene(page);
  await add(page, 'lights', 'Daylight');
  await add(page, 'backdrop', 'Surroundings');
  await typeNumber(scene.getByTestId('item-daylight'), 'Sun height', 12);
  await add(page, 'air', 'Fog');
  const camera = scene.getByTestId('item-orbit');
  await typeNumber(camera, 'Above', -3);
  await typeNumber(camera, 'f-number', 0.8);
  await typeNumber(camera, 'Exposure', -1);
  const drawn = await closes(page);
  // A sky is bluer above than it is at the horizon.
  const { width, height, data } = PNG.sync.read(drawn);
  const blueness = (y: number) => {
    let sum = 0;
    for (let x = 0; x < 40; x++) sum += data[4 * (y * width + x) + 2] - data[4 * (y * width + x)];
    return sum;
  };
  expect(blueness(4)).toBeGreaterThan(blueness(Math.floor(height / 2)));
  // What is sharp is shown while it is set, and not any more a little later.
  await typeNumber(camera, 'f-number', 1.2);
  await expect(page.getByTestId('sharp-legend')).toBeVisible();
  await expect(page.getByTestId('sharp-legend')).toHaveCount(0);
  expect(errors).toEqual([]);
});

test('a finish and a scene are kept in one piece and used in another; scenes come with Maypole, too, and leave the camera', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openPiece(page, form('First', 'torus', { ringSegments: 24, pipeSegments: 12 }, { distance: 5 }));
  const finish = await openFinish(page);
  await preset(page, finish, 'Gold');
  const keep = async (many: string, one: string, name: string) => {
    await page
      .getByRole('button', { name: `Kept ${many}` })
      .first()
      .click();
    await page.getByRole('textbox', { name: `Name for this ${one}` }).fill(name);
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(page.getByText(`Kept “${name}”. It can be used in every piece.`)).toBeVisible();
    await page.keyboard.press('Escape');
  };
  await keep('finishes', 'finish', 'Office gold');
  const scene = await openScene(page);
  await add(page, 'air', 'Fog');
  await keep('scenes', 'scene', 'Office fog');

  await openPiece(page, form('Second', 'box', {}, { distance: 9 }));
  const plain = await stillPicture(page);
  const other = await openFinish(page);
  await other.getByRole('button', { name: 'Kept finishes' }).click();
  // Dropped beside the form it does nothing; dropped on it, it is worn.
  const kept = page.getByRole('button', { name: 'Office gold', exact: true }).first();
  const picture = page.getByTestId('viewport');
  const { width } = (await picture.boundingBox())!;
  await kept.dragTo(picture, { targetPosition: { x: width - 30, y: 110 } });
  await expect(page.getByText('Nothing there. Drop a finish on a form.')).toBeVisible();
  await kept.dragTo(picture);
  await page.keyboard.press('Escape');
  const gilded = await stillPicture(page);
  expect(gilded.equals(plain)).toBe(false);
  await openScene(page);
  await page.getByRole('button', { name: 'Kept scenes' }).first().click();
  await page.getByRole('button', { name: 'Office fog', exact: true }).first().click();
  await expect(scene.getByTestId('item-fog')).toBeVisible();
  // A kept scene is kept whole, with its camera.
  await expect(
    scene.getByTestId('item-orbit').getByRole('spinbutton', { name: 'Distance', exact: true }),
  ).toHaveAttribute('aria-valuenow', '5');
  await page.getByRole('button', { name: 'Kept scenes' }).first().click();
  await page
    .getByRole('group', { name: 'Included with Maypole' })
    .getByRole('button', { name: 'Lamp in the fog' })
    .click();
  await expect(scene.getByTestId('item-haze')).toBeVisible();
  await expect(scene.getByTestId('item-fog')).toHaveCount(0);
  await expect(
    scene.getByTestId('item-orbit').getByRole('spinbutton', { name: 'Distance', exact: true }),
  ).toHaveAttribute('aria-valuenow', '5');
  // One step back each, like any edit.
  await page.keyboard.press('Control+z');
  await expect(scene.getByTestId('item-fog')).toBeVisible();
  expect(errors).toEqual([]);
});
