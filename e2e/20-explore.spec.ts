import { execFileSync } from 'node:child_process';
import { expect, test, type Page } from './test';
import { openPiece, putPiece, smallPiece, step, typeNumber, watchErrors } from './helpers';

const sheet = (page: Page) => page.getByTestId('sheet');
const tiles = (page: Page) => sheet(page).getByTestId('tile');
/** All tiles are there, and their loops. */
const drawn = (page: Page) => expect(sheet(page)).toHaveAttribute('data-working', 'false', { timeout: 180_000 });
const ringRadius = (page: Page) => step(page, 'torus').getByRole('spinbutton', { name: 'Ring radius', exact: true });

async function openSheet(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Sheet of variations' }).click();
  await sheet(page).getByRole('radio', { name: '12', exact: true }).click({ force: true });
  await expect(tiles(page)).toHaveCount(13);
}

test('a sheet is drawn, two of it are mixed, one becomes the piece and another a take', async ({ page }) => {
  const errors = watchErrors(page);
  await openPiece(page, smallPiece('Explored'));
  await openSheet(page);
  await drawn(page);
  await expect(sheet(page).getByRole('status')).toContainText('12 variations');
  await expect(tiles(page).first()).toHaveText('Now');

  // What is kept as it is differs in none.
  await tiles(page).nth(6).click();
  const closer = page.getByRole('complementary', { name: 'Closer' });
  await expect(closer.getByText('Torus ring radius')).toBeVisible();
  await closer.getByRole('button', { name: 'Keep Torus ring radius as it is now' }).click();
  await expect(sheet(page).getByRole('button', { name: 'Let Torus ring radius vary again' })).toBeVisible();
  await expect(tiles(page)).toHaveCount(13);
  await tiles(page).nth(6).click();
  await expect(closer.getByRole('heading', { name: /values differ/ })).toBeVisible();
  await expect(closer.getByText('Torus ring radius')).toHaveCount(0);
  await closer.getByRole('button', { name: 'Keep as a take' }).click();
  await expect(page.getByText('“Variation 6 of seed 1” is kept as a take.')).toBeVisible();

  // Two are mixed; the sheet before can be gone back to.
  await tiles(page)
    .nth(9)
    .click({ modifiers: ['Control'] });
  await closer.getByRole('button', { name: 'Mix the two' }).click();
  await expect(sheet(page).getByText('Between two variations.')).toBeVisible();
  await expect(tiles(page)).toHaveCount(13);
  await drawn(page);
  await tiles(page).nth(3).click();
  await closer.getByRole('button', { name: 'Make it the piece' }).click();
  await expect(sheet(page)).toHaveCount(0);
  await expect(page.getByTestId('seam-chip')).toContainText('closed');
  await expect(page.getByRole('button', { name: 'Undo: Variation 3' })).toBeVisible();
  await expect(ringRadius(page)).toHaveText(/1\.00/);

  // The take is in the history, and brings one value with it.
  await page.getByRole('button', { name: 'History', exact: true }).click();
  const history = page.getByRole('complementary', { name: 'History' });
  await history.getByRole('button', { name: /^Look at Variation 6 of seed 1/ }).click();
  await expect(history.getByTestId('looked')).toContainText('differ from now');
  await history.getByRole('button', { name: 'Bring all of it back' }).click();
  await expect(history.getByTestId('looked')).toContainText('As it is now');
  expect(errors).toEqual([]);
});

test(
  'seeds and kinds of noise vary; two are kept and mixed, the sheet is kept and goes out as a movie',
  { tag: '@long' },
  async ({ page }) => {
    const piece = smallPiece('Squall Sheet');
    await openPiece(page, piece);
    await openSheet(page);
    // Chance and noise alone, kinds of noise among them.
    for (const chip of await sheet(page)
      .getByRole('button', { name: /\d+\/\d+ vary$/ })
      .all()) {
      const wanted = /^(Chance|Noise)/.test((await chip.getAttribute('aria-label'))!);
      const pressed = await chip.getAttribute('aria-pressed');
      if (wanted ? pressed === 'false' : pressed !== 'false') await chip.click();
      if (!wanted && (await chip.getAttribute('aria-pressed')) === 'true') await chip.click();
    }
    await drawn(page);
    const closer = page.getByRole('complementary', { name: 'Closer' });
    for (const n of [2, 5]) {
      await tiles(page).nth(n).click();
      await closer.getByRole('button', { name: 'Keep as a take' }).click();
      await expect(page.getByText(`“Variation ${n} of seed 1” is kept as a take.`)).toBeVisible();
    }
    await tiles(page)
      .nth(2)
      .click({ modifiers: ['Control'] });
    await closer.getByRole('button', { name: 'Mix the two' }).click();
    await expect(sheet(page).getByText('Between two variations.')).toBeVisible();
    await expect(tiles(page).nth(3)).toBeVisible({ timeout: 60_000 });
    await drawn(page);
    await expect.poll(() => tiles(page).count()).toBeGreaterThan(3);
    const made = await tiles(page).count();

    const [download] = await Promise.all([
      page.waitForEvent('download'),
      sheet(page).getByRole('button', { name: 'Movie' }).click(),
    ]);
    expect(download.suggestedFilename()).toBe('squall-sheet-sheet.mp4');
    const probed = execFileSync('ffprobe', [
      ...['-v', 'error', '-count_frames', '-of', 'csv=p=0'],
      ...['-show_entries', 'stream=nb_read_frames,r_frame_rate', await download.path()],
    ]);
    // A loop of 12 frames at 12 a second has twelve pictures, each of a frame.
    expect(probed.toString().trim()).toBe('12/1,12');

    await sheet(page).getByRole('button', { name: 'Keep', exact: true }).click();
    const called = `${made - 1} variations, seed 1`;
    await expect(page.getByText(`“${called}” is kept in the history.`)).toBeVisible();
    await tiles(page).nth(2).click();
    const differs = await closer.getByRole('heading', { name: /differ/ }).textContent();
    await page.keyboard.press('Escape');
    await expect(sheet(page)).toHaveCount(0);

    // After a reload it opens from the history, with the same tiles.
    await page.reload();
    await page.getByRole('button', { name: 'History', exact: true }).click();
    await page.getByRole('button', { name: `Open ${called}` }).click();
    await expect(tiles(page)).toHaveCount(made);
    await expect(sheet(page).getByText('Between two variations.')).toBeVisible();
    await tiles(page).nth(2).click();
    await expect(closer.getByRole('heading', { name: /differ/ })).toHaveText(differs!);
  },
);

test('one value goes across and another down', async ({ page }) => {
  await openPiece(page, smallPiece('Across'));
  await openSheet(page);
  await sheet(page).getByRole('radio', { name: 'Along axes' }).click({ force: true });
  await sheet(page).getByLabel('Across', { exact: true }).selectOption({ label: 'Torus pipe radius, Ring' });
  await sheet(page).getByLabel('Down', { exact: true }).selectOption({ label: 'Displace height, Ring' });
  await expect(tiles(page)).toHaveCount(10);
  await tiles(page).first().click();
  const closer = page.getByRole('complementary', { name: 'Closer' });
  await expect(closer.getByRole('heading', { name: '2 values differ' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(sheet(page)).toHaveCount(0);
});

test('a value of an earlier save is brought back alone; a save gets a name', async ({ page }) => {
  const errors = watchErrors(page);
  await openPiece(page, smallPiece('Remembered'));
  const saved = () => expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await typeNumber(step(page, 'torus'), 'Ring radius', 1.5);
  await saved();
  await typeNumber(step(page, 'torus'), 'Pipe radius', 0.2);
  await saved();
  await page.getByRole('button', { name: 'History', exact: true }).click();
  const history = page.getByRole('complementary', { name: 'History' });
  await expect(history.getByTestId('revision')).toHaveCount(3);
  await expect(history.getByTestId('revision').first()).toContainText('Torus pipe radius 0.4 m → 0.2 m');

  await history.getByRole('button', { name: /^Look at .*: The first$/ }).click();
  const looked = history.getByTestId('looked');
  await expect(looked).toContainText('2 things differ from now');
  // Looking changes nothing.
  await expect(ringRadius(page)).toHaveText(/1\.50/);
  await looked.getByRole('button', { name: 'Bring back Torus ring radius' }).click();
  await expect(ringRadius(page)).toHaveText(/1\.00/);
  await expect(step(page, 'torus').getByRole('spinbutton', { name: 'Pipe radius', exact: true })).toHaveText(/0\.20/);
  await expect(history.getByTestId('revision')).toHaveCount(4);

  await history.getByRole('button', { name: 'Name this save, so that it is kept for good' }).last().click();
  await history.getByLabel('Name of this save').fill('Before the storm');
  await page.keyboard.press('Enter');
  await expect(history.getByText('Before the storm').first()).toBeVisible();
  await history.getByRole('searchbox', { name: 'Search the history' }).fill('storm');
  await expect(history.getByTestId('revision')).toHaveCount(1);
  expect(errors).toEqual([]);
});

test('everything is found by what it does, and done by the keyboard alone', async ({ page }) => {
  const errors = watchErrors(page);
  await openPiece(page, smallPiece('Found'));
  const field = page.getByRole('combobox', { name: 'What do you want to do?' });
  const ask = async (query: string, first: string) => {
    await page.keyboard.press('Control+k');
    await expect(field).toBeFocused();
    await page.keyboard.type(query);
    await expect(page.getByRole('option').first()).toContainText(first);
    await page.keyboard.press('Enter');
    await expect(field).toBeHidden();
  };
  await ask('chamfer', 'Bevel');
  await expect(step(page, 'bevel')).toBeVisible();
  await ask('donut', 'New torus');
  await expect(page.getByRole('button', { name: 'Undo: Add ribbon' })).toBeVisible();
  await ask('god rays', 'Lit air');
  const scene = page.getByRole('complementary', { name: 'Scene' });
  await expect(scene.getByTestId('item-haze')).toBeVisible();
  await ask('gltf', 'glTF');
  await expect(page.getByRole('complementary', { name: 'Deliver' }).getByTestId('item-glb')).toBeVisible();
  await ask('twist angle', 'Twist angle, Ring');
  await expect(step(page, 'twist')).toBeVisible();
  await ask('earlier version', 'History');
  await expect(page.getByRole('complementary', { name: 'History' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+k');
  await page.keyboard.type('zzqqx');
  await expect(page.getByText('Nothing is called “zzqqx”')).toBeVisible();
  expect(errors).toEqual([]);
});

test('a line says a thing and its values, shows what it understood, and never leaves the piece', async ({ page }) => {
  const errors = watchErrors(page);
  await putPiece(page, smallPiece('Cuboid'));
  await openPiece(page, smallPiece('Said'));
  const here = page.url();
  const field = page.getByRole('combobox', { name: 'What do you want to do?' });
  const first = page.getByRole('option').first();
  const type = async (line: string) => {
    await page.keyboard.press('Control+k');
    await expect(field).toBeFocused();
    await page.keyboard.type(line);
  };
  await type('bend 80 along y, neon pink 5');
  await expect(first).toContainText('Adds Bend to Ring: angle 80°, along Y. Adds Glow of Ring');
  await page.keyboard.press('Enter');
  await expect(step(page, 'bend').getByRole('spinbutton', { name: 'Angle', exact: true })).toHaveText(/80/);
  await page.getByRole('button', { name: 'Undo: “bend 80 along y, neon pink 5”' }).click();
  await expect(step(page, 'bend')).toHaveCount(0);
  // The arrow up brings it back; a name keeps it.
  await type('');
  await page.keyboard.press('ArrowUp');
  await expect(field).toHaveValue('bend 80 along y, neon pink 5');
  await field.fill('hook = bend 80 along y');
  await expect(first).toContainText('keeps the line as “hook”');
  await page.keyboard.press('Enter');
  await expect(step(page, 'bend')).toHaveCount(1);
  await type('hook');
  await expect(first).toContainText('bend 80 along y');
  await page.keyboard.press('Enter');
  await expect(step(page, 'bend')).toHaveCount(2);
  // What is not understood is said, and not done.
  await type('twist 240 abuot z');
  await expect(page.getByRole('status').filter({ hasText: '“abuot” is not understood. Perhaps about?' })).toBeVisible();
  // Somebody’s piece is no answer to Enter.
  await field.fill('cuboid');
  await expect(first).toContainText('New box');
  await expect(page.getByRole('option', { name: /^Cuboid/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Undo: Add ribbon' })).toBeVisible();
  expect(page.url()).toBe(here);
  await type('open cuboid');
  await expect(first).toContainText('Cuboid');
  await page.keyboard.press('Enter');
  await expect(page).not.toHaveURL(here);
  expect(errors).toEqual([]);
});

test('ribbons are taken into another piece as text; other text is left alone', async ({ page }) => {
  const errors = watchErrors(page);
  await openPiece(page, smallPiece('From'));
  await page.locator('body').press('Control+c');
  await expect(page.getByText('Ring is copied; paste it into any piece, or into a mail.')).toBeVisible();
  await openPiece(page, smallPiece('To'));
  await page.locator('body').press('Control+v');
  await expect(page.getByRole('button', { name: 'Undo: Paste ribbon' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Ribbon Ring 2' })).toBeVisible();
  await page.locator('body').press('Control+x');
  await expect(page.getByRole('button', { name: 'Undo: Cut Ring 2' })).toBeVisible();
  await page.locator('body').press('Control+v');
  await expect(page.getByRole('button', { name: 'Undo: Paste ribbon' })).toBeVisible();
  // In a field it is the text that is pasted.
  await page.getByRole('textbox', { name: 'Name of the piece' }).fill('A name');
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Control+c');
  await page.keyboard.press('End');
  await page.keyboard.press('Control+v');
  await expect(page.getByRole('textbox', { name: 'Name of the piece' })).toHaveValue('A nameA name');
  expect(errors).toEqual([]);
});
