import { expect, test, type Page } from './test';
import { openPiece, putPiece, pictureReady, smallPiece, step, typeNumber, watchErrors } from './helpers';

const ribbons = (page: Page) => page.getByRole('navigation', { name: 'Ribbons' });
const pressed = (page: Page, name: string) => page.getByRole('button', { name, exact: true });

test('New loop offers loops that play already, and says what to turn first', async ({ page }) => {
  const errors = watchErrors(page);
  await page.goto('/');
  await page.getByRole('button', { name: 'New loop' }).first().click();
  const dialog = page.getByRole('dialog', { name: 'New loop' });
  await expect(dialog.getByRole('button')).toHaveCount(16);
  await dialog.getByRole('button', { name: /^Columns in step/ }).click();
  await page.waitForURL(/\/piece\//);
  await pictureReady(page);
  await expect(page.getByTestId('seam-chip')).toContainText('closed');
  const first = page.getByRole('region', { name: 'Turn these first' });
  await first.getByRole('button', { name: 'Rings count' }).click();
  await expect(step(page, 'repeat-rings').getByRole('spinbutton', { name: 'Count' })).toBeFocused();
  await first.getByRole('button', { name: 'Put this note away' }).click();
  await page.reload();
  await pictureReady(page);
  await expect(first).toHaveCount(0);
  expect(errors).toEqual([]);
});

test('the walk "First loop" is done by keyboard alone', async ({ page }) => {
  const errors = watchErrors(page);
  await page.goto('/guide');
  const begin = page.getByRole('button', { name: 'Begin First loop' });
  // Not one press of a pointer from here on.
  for (let i = 0; i < 60 && !(await begin.evaluate((e) => e === document.activeElement)); i++)
    await page.keyboard.press('Tab');
  await expect(begin).toBeFocused();
  await page.keyboard.press('Enter');
  await page.waitForURL(/\/piece\//);
  const walk = page.getByTestId('walk');
  const at = (n: number) => expect(walk).toContainText(`${n} of 9`);
  const goThere = async () => {
    await walk.getByRole('button', { name: 'Go there' }).focus();
    await page.keyboard.press('Enter');
  };
  await at(1);
  await goThere();
  await expect(pressed(page, 'Choose a form')).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('textbox', { name: 'Find a step' })).toBeFocused();
  await page.keyboard.type('sphere');
  await page.keyboard.press('Tab');
  await page.keyboard.press('Enter');
  await at(2);
  await page.keyboard.press('a');
  await expect(page.getByRole('textbox', { name: 'Find a step' })).toBeFocused();
  await page.keyboard.type('displace');
  await page.keyboard.press('Tab');
  await page.keyboard.press('Enter');
  await expect(step(page, 'displace')).toBeVisible();
  await at(3);
  await goThere();
  await page.keyboard.press('Enter');
  await at(4);
  await page.keyboard.press('Enter');
  const height = step(page, 'displace').getByRole('spinbutton', { name: 'Height', exact: true });
  await goThere();
  for (let i = 0; i < 30 && !(await height.evaluate((e) => e === document.activeElement)); i++)
    await page.keyboard.press('Tab');
  await expect(height).toBeFocused();
  await page.keyboard.press('ArrowUp');
  await at(5);
  await page.keyboard.press('e');
  await at(6);
  await page.keyboard.press('d');
  await at(7);
  await goThere();
  await expect(pressed(page, 'Add output')).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('menuitem').first()).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await at(8);
  await goThere();
  await page.keyboard.press('Enter');
  await at(9);
  await walk.getByRole('button', { name: 'End the walk' }).focus();
  await page.keyboard.press('Enter');
  await expect(walk).toHaveCount(0);
  // What was begun for the walk need not be rendered to its end.
  await page.getByRole('button', { name: /^Cancel First loop/ }).click();
  expect(errors).toEqual([]);
});

test('a walk is left at any time, and goes on after a reload', async ({ page }) => {
  await page.goto('/guide');
  await page.getByRole('button', { name: 'Begin Make it close' }).click();
  await page.waitForURL(/\/piece\//);
  const walk = page.getByTestId('walk');
  await walk.getByRole('button', { name: 'Skip' }).click();
  await expect(walk).toContainText('2 of 4');
  await page.reload();
  await expect(walk).toContainText('2 of 4');
  await expect(page.getByTestId('seam-chip')).toContainText('gap');
  await page.getByTestId('seam-chip').click();
  await expect(walk).toContainText('3 of 4');
  await page.getByTestId('gap').getByRole('button', { name: '1 turn', exact: true }).click();
  await expect(walk).toContainText('4 of 4');
  await expect(page.getByTestId('seam-chip')).toContainText('closed');
  await walk.getByRole('button', { name: 'Leave the walk' }).click();
  await page.reload();
  await pictureReady(page);
  await expect(walk).toHaveCount(0);
});

test('pages of the guide come from the declarations, with examples that play and open', async ({ page }) => {
  const errors = watchErrors(page);
  await page.goto('/guide/place');
  const spin = page.getByRole('region', { name: 'Spin', exact: true });
  await spin.scrollIntoViewIfNeeded();
  await expect(spin.getByRole('img', { name: 'Spin, an example, playing' })).toBeVisible({ timeout: 60_000 });
  await spin.getByRole('button', { name: 'Open the example of Spin as a piece' }).click();
  await page.waitForURL(/\/piece\//);
  await expect(page.getByLabel('Name of the piece')).toHaveValue('About Spin');
  await page.goto('/guide/words');
  await expect(page.getByText('Where the loop meets itself')).toBeVisible();
  // From the command field, too.
  await openPiece(page, smallPiece('Asking'));
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'What do you want to do?' }).fill('about twist');
  await page.keyboard.press('Enter');
  await page.waitForURL(/\/guide\/deform#twist/);
  await expect(page.getByRole('heading', { name: 'Twist' })).toBeVisible();
  await page.goto('/guide/nothing-of-that-name');
  await expect(page.getByText('There is nothing here')).toBeVisible();
  expect(errors.filter((e) => !e.includes('404'))).toEqual([]);
});

test('keys are seen on one page and changed there', async ({ page }) => {
  const errors = watchErrors(page);
  await openPiece(page, smallPiece('Keys'));
  await page.keyboard.press('?');
  const dialog = page.getByRole('dialog', { name: 'Shortcuts' });
  await expect(dialog.getByRole('button', { name: 'Keys of Duplicate ribbon: Ctrl D' })).toBeVisible();
  await dialog.getByRole('button', { name: 'Keys of Scene: S' }).click();
  await page.keyboard.press('d');
  await expect(dialog.getByRole('status')).toHaveText('D: Scene. “Deliver” had it, and has no keys now.');
  await dialog.getByRole('button', { name: 'Keys of Play or pause: Space' }).click();
  await page.keyboard.press('Control+w');
  await expect(dialog.getByRole('status')).toContainText('Ctrl W belongs to the browser');
  await page.keyboard.press('Escape');
  await expect(dialog).toHaveCount(0);
  await page.reload();
  await pictureReady(page);
  await page.keyboard.press('d');
  await expect(page.getByRole('complementary', { name: 'Scene' })).toBeVisible();
  await page.keyboard.press('?');
  await dialog.getByRole('button', { name: 'Reset all keys' }).click();
  await page.keyboard.press('Escape');
  await page.keyboard.press('d');
  await expect(page.getByRole('complementary', { name: 'Deliver' })).toBeVisible();
  // What hands do all day; a screen reader is told.
  await page.keyboard.press('Control+d');
  await expect(ribbons(page).getByRole('button', { name: /copy/ })).toBeVisible();
  await expect(page.getByTestId('spoken')).toContainText('Duplicate ribbon');
  await page.keyboard.press('Delete');
  await expect(ribbons(page).getByRole('button', { name: /copy/ })).toHaveCount(0);
  await expect(page.getByTestId('spoken')).toContainText('Remove ribbon');
  await page.keyboard.press('Control+z');
  await expect(ribbons(page).getByRole('button', { name: /copy/ })).toBeVisible();
  expect(errors).toEqual([]);
});

test('two versions are compared beside each other, wiped, and in what differs', async ({ page }) => {
  const errors = watchErrors(page);
  await openPiece(page, smallPiece('Two'));
  await typeNumber(step(page, 'displace'), 'Height', 0.6);
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await page.keyboard.press('m');
  const compare = page.getByTestId('compare');
  await expect(compare.getByRole('complementary', { name: 'What differs' })).toContainText('1 thing differs');
  await expect(compare.getByText('0.60 m → 0.20 m').or(compare.getByText('0.6 m → 0.2 m'))).toBeVisible();
  await expect(compare.getByRole('status').filter({ hasText: 'Both in step' })).toBeVisible({ timeout: 120_000 });
  /** Mean of red, green and blue of a part of the picture. */
  const mean = (left: number, right: number) =>
    compare.getByRole('img').evaluate(
      (canvas, [from, to]) => {
        const c = canvas as HTMLCanvasElement;
        const [x, w] = [Math.round(c.width * from), Math.round(c.width * (to - from))];
        const { data } = c.getContext('2d')!.getImageData(x, 0, w, c.height);
        let sum = 0;
        for (let i = 0; i < data.length; i += 4) sum += data[i] + data[i + 1] + data[i + 2];
        return sum / (data.length / 4) / 3;
      },
      [left, right] as const,
    );
  await compare.getByRole('button', { name: 'Pause both' }).click();
  expect(Math.abs((await mean(0, 0.45)) - (await mean(0.55, 1)))).toBeGreaterThan(0.2);
  await compare.getByRole('radio', { name: 'Wipe' }).click({ force: true });
  await expect(compare.getByRole('slider', { name: 'Where the second begins' })).toBeVisible();
  await compare.getByRole('radio', { name: 'Difference' }).click({ force: true });
  await expect.poll(() => mean(0, 1)).toBeGreaterThan(0.5);
  // The same on both sides: no difference at all.
  await compare.getByLabel('Second', { exact: true }).selectOption('now');
  await expect(compare.getByText('Nothing differs')).toBeVisible();
  await expect(compare.getByRole('status')).toContainText('black is the same', { timeout: 120_000 });
  await expect.poll(() => mean(0, 1)).toBeLessThan(0.2);
  await page.keyboard.press('Escape');
  await expect(compare).toHaveCount(0);
  expect(errors).toEqual([]);
});

test('a ribbon goes into another piece through the library, steps and a motion as text', async ({ page, context }) => {
  const errors = watchErrors(page);
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await openPiece(page, smallPiece('From'));
  await page.getByRole('button', { name: 'Kept ribbons' }).click();
  const name = `Ring ${Date.now()}`;
  await page.getByRole('textbox', { name: 'Name for this ribbon' }).fill(name);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name, exact: true })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'More for Twist' }).click();
  await page.getByRole('menuitem', { name: 'Copy step' }).click();
  await expect(page.getByText('Twist is copied')).toBeVisible();
  const text = await page.evaluate(() => navigator.clipboard.readText());
  expect(JSON.parse(text)).toMatchObject({ maypole: 'steps' });

  await openPiece(page, {
    ...smallPiece('To'),
    ribbons: smallPiece('To').ribbons.map((r) => ({ ...r, steps: r.steps.slice(0, 1) })),
  });
  await page.locator('body').press('Control+v');
  await expect(step(page, 'twist').getByRole('spinbutton', { name: 'Angle', exact: true })).toHaveText(/40/);
  await page.getByRole('button', { name: 'Kept ribbons' }).click();
  await page.getByRole('button', { name, exact: true }).click();
  await expect(ribbons(page).getByRole('button', { name: /Ring 2/ })).toBeVisible();
  await page.getByRole('button', { name: 'Kept ribbons' }).click();
  await page.getByRole('button', { name: `Remove ${name}` }).click();
  await expect(page.getByRole('button', { name, exact: true })).toHaveCount(0);
  expect(errors).toEqual([]);
});

test('a link opens a piece to be looked at: what is tried there is not kept, and a copy can be made', async ({
  page,
}) => {
  const errors = watchErrors(page);
  const id = await openPiece(page, smallPiece('Looked at'));
  await page.goto(`/piece/${id}?look=1`);
  await pictureReady(page);
  await expect(page.getByText('Only to look at')).toBeVisible();
  await typeNumber(step(page, 'displace'), 'Height', 0.5);
  await page.keyboard.press('Control+s');
  await page.reload();
  await pictureReady(page);
  await expect(step(page, 'displace').getByRole('spinbutton', { name: 'Height', exact: true })).toHaveText(/0\.2/);
  await typeNumber(step(page, 'displace'), 'Height', 0.7);
  await page.getByRole('button', { name: 'Make a copy' }).click();
  await expect(page.getByLabel('Name of the piece')).toHaveValue('Looked at copy');
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await expect(step(page, 'displace').getByRole('spinbutton', { name: 'Height', exact: true })).toHaveText(/0\.7/);
  expect(errors).toEqual([]);
});

test('undo goes on after a reload', async ({ page }) => {
  await openPiece(page, smallPiece('Again'));
  const height = step(page, 'displace').getByRole('spinbutton', { name: 'Height', exact: true });
  await typeNumber(step(page, 'displace'), 'Height', 0.5);
  await typeNumber(step(page, 'displace'), 'Scale', 2);
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await page.reload();
  await pictureReady(page);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(height).toHaveText(/0\.2/);
  await expect(page.getByRole('button', { name: 'Undo', exact: true })).toBeDisabled();
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
});

test('several pieces are labelled, compared and put into the bin together', async ({ page }) => {
  const errors = watchErrors(page);
  const mark = `lot ${Date.now()}`;
  for (const name of ['First', 'Second']) await putPiece(page, smallPiece(`${mark} ${name}`));
  await page.goto('/');
  await page.getByRole('textbox', { name: 'Find a piece' }).fill(mark);
  for (const name of ['First', 'Second']) await page.getByRole('checkbox', { name: `Choose ${mark} ${name}` }).check();
  const bar = page.getByRole('region', { name: 'Chosen pieces' });
  await expect(bar.getByRole('status')).toHaveText('2 chosen');
  await bar.getByLabel('Label for the chosen pieces').fill(mark);
  await page.keyboard.press('Enter');
  await expect(page.getByText(`2 pieces labelled “${mark}”.`)).toBeVisible();
  await page.getByRole('textbox', { name: 'Find a piece' }).fill('');
  await page.getByLabel('With which label').selectOption(mark);
  await expect(page.getByRole('article')).toHaveCount(2);
  await bar.getByRole('button', { name: 'Compare' }).click();
  await page.waitForURL(/compare=/);
  await expect(page.getByTestId('compare').getByText(/\d+ things? differs?$/)).toBeVisible({ timeout: 60_000 });
  await page.goto('/');
  await page.getByLabel('With which label').selectOption(mark);
  for (const name of ['First', 'Second']) await page.getByRole('checkbox', { name: `Choose ${mark} ${name}` }).check();
  await bar.getByRole('button', { name: 'Delete' }).click();
  await expect(page.getByText('2 pieces in the bin.')).toBeVisible();
  await page.getByRole('button', { name: 'Bin', exact: true }).click();
  await expect(page.getByRole('article', { name: `${mark} First` })).toContainText('deleted');
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'All', exact: true }).click();
  await expect(page.getByRole('article', { name: `${mark} First` })).toBeVisible();
  expect(errors).toEqual([]);
});
