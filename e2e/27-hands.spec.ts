import { expect, test } from './test';
import { addStep, openPiece, smallPiece, step, typeNumber, watchErrors } from './helpers';

test('a field takes a motion and three numbers; Enter goes on, and a drag down sets a column', async ({ page }) => {
  const errors = watchErrors(page);
  await openPiece(page, smallPiece('Typed'));
  await addStep(page, 'Place');
  const place = step(page, 'place');
  const field = (name: string) => place.getByRole('spinbutton', { name, exact: true });
  const type = async (name: string, text: string) => {
    await field(name).focus();
    await page.keyboard.press('0');
    await place.getByRole('textbox', { name, exact: true }).fill(text);
    await page.keyboard.press('Enter');
  };
  await type('Shift x', '1 -2 0.5');
  for (const [axis, value] of [
    ['x', '1'],
    ['y', '-2'],
    ['z', '0.5'],
  ])
    await expect(field(`Shift ${axis}`)).toHaveAttribute('aria-valuenow', value);
  // Enter went on to the next value of the card.
  await expect(field('Shift y')).toBeFocused();
  // The keyboard rests on it: what it does is told, until the next key.
  const hint = page.getByRole('tooltip').filter({ hasText: 'Along x, y and z.' });
  await page.keyboard.press('Tab');
  await page.keyboard.press('Shift+Tab');
  await expect(hint).toBeVisible();
  await page.keyboard.press('ArrowUp');
  await expect(hint).toHaveCount(0);
  await page.keyboard.press('ArrowDown');
  await type('Turn y', 'round twice');
  const lanes = page.getByRole('region', { name: 'Round' });
  await expect(lanes.getByText('Place · Turn y')).toBeVisible();
  await expect(lanes.getByText('+2 turns')).toBeVisible();
  // What is not understood is told, and nothing is changed.
  await type('Turn x', '0 to sideways');
  await expect(place.getByRole('alert')).toContainText('not understood');
  await page.keyboard.press('Escape');
  await expect(field('Turn x')).toHaveAttribute('aria-valuenow', '0');
  // The motion of one axis is laid on all three.
  await place.getByRole('button', { name: 'Motion of Turn y' }).click();
  await page.getByRole('button', { name: 'The same for all three axes' }).click();
  await page.keyboard.press('Escape');
  await expect(lanes.getByText('Place · Turn x')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(lanes.getByText('Place · Turn x')).toHaveCount(0);
  // A moving value is still again with a number.
  await type('Turn y', '15');
  await expect(lanes.getByText('Place · Turn y')).toHaveCount(0);

  await typeNumber(place, 'Shift y', 0);
  await typeNumber(place, 'Shift z', 0);
  const [from, to] = [(await field('Shift x').boundingBox())!, (await field('Shift z').boundingBox())!];
  await page.mouse.move(from.x + 30, from.y + 12);
  await page.mouse.down();
  for (let i = 1; i <= 8; i++) await page.mouse.move(from.x + 30, from.y + 12 + ((to.y - from.y) * i) / 8);
  for (let i = 1; i <= 6; i++) await page.mouse.move(from.x + 30 + 4 * i, to.y + 12);
  await page.mouse.up();
  const shift = await field('Shift x').getAttribute('aria-valuenow');
  expect(Number(shift)).toBeGreaterThan(1);
  await expect(field('Shift y')).toHaveAttribute('aria-valuenow', shift!);
  await expect(field('Shift z')).toHaveAttribute('aria-valuenow', shift!);
  await page.keyboard.press('Control+z');
  await expect(field('Shift y')).toHaveAttribute('aria-valuenow', '0');
  expect(errors).toEqual([]);
});

test('a lamp is duplicated with its values; a step that was removed comes back from the history', async ({ page }) => {
  await openPiece(page, smallPiece('Brought back'));
  await page.getByRole('button', { name: 'Scene', exact: true }).click();
  const scene = page.getByRole('complementary', { name: 'Scene' });
  await scene.getByRole('button', { name: 'Add to lights' }).click();
  await page.getByRole('menuitem', { name: 'Spot' }).click();
  const spots = scene.getByTestId('item-spot');
  await typeNumber(spots, 'Strength', 321);
  await spots.getByRole('button', { name: 'Duplicate spot' }).click();
  await expect(spots).toHaveCount(2);
  await expect(spots.nth(1).getByRole('spinbutton', { name: 'Strength' })).toHaveAttribute('aria-valuenow', '321');

  await page.getByRole('button', { name: 'History' }).click();
  const history = page.getByRole('complementary', { name: 'History' });
  await history.getByRole('textbox', { name: 'Name of the take' }).fill('With twist');
  await history.getByRole('button', { name: 'Keep a take' }).click();
  await expect(history.getByRole('button', { name: /^Look at With twist/ })).toBeVisible();
  await step(page, 'twist').getByRole('button', { name: 'More for Twist' }).click();
  await page.getByRole('menuitem', { name: /^Remove/ }).click();
  await expect(step(page, 'twist')).toHaveCount(0);
  await history.getByRole('button', { name: /^Look at With twist/ }).click();
  await history.getByRole('button', { name: 'Bring back Twist', exact: true }).click();
  await expect(step(page, 'twist')).toHaveCount(1);
  await expect(history.getByTestId('looked')).toContainText('As it is now');
});
