import { newItem, newPiece, newRibbon, newStep, type Piece } from '@maypole/core/piece/piece';
import { cameras } from '@maypole/core/scene/index';
import { expect, test, type Page } from './test';
import { PNG } from 'pngjs';
import { openPiece, stillPicture, typeNumber, watchErrors } from './helpers';

const plain = (name: string): Piece => ({
  ...newPiece(name),
  loop: { frames: 12, fps: 12 },
  format: { width: 160, height: 120 },
  ribbons: [
    {
      ...newRibbon('geodesic', 0, 'Ball'),
      steps: [newStep('geodesic', { radius: 1, frequency: 8 }), newStep('displace', { height: 0.1, rate: 1 } as never)],
    },
  ],
});
/** Mean brightness 0…255 of a picture, and of its middle. */
function brightness(png: Buffer): { whole: number; middle: number } {
  const { width, height, data } = PNG.sync.read(png);
  const mean = (x0: number, x1: number, y0: number, y1: number) => {
    let sum = 0;
    let n = 0;
    for (let y = Math.floor(y0 * height); y < y1 * height; y++)
      for (let x = Math.floor(x0 * width); x < x1 * width; x++) {
        const i = 4 * (y * width + x);
        sum += (data[i] + data[i + 1] + data[i + 2]) / 3;
        n++;
      }
    return sum / n;
  };
  return { whole: mean(0, 1, 0, 1), middle: mean(0.4, 0.6, 0.4, 0.6) };
}
const goTo = (page: Page, frame: number) => typeNumber(page.getByRole('region', { name: 'Round' }), 'Frame', frame);
const addTo = async (page: Page, list: string, what: string) => {
  await page.getByRole('button', { name: `Add to ${list}` }).click();
  await page.getByRole('menuitem', { name: what, exact: true }).click();
};

test('a finish begins with a preset, gets a glow, and blooms before black; frame N is frame 0 to the pixel', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openPiece(page, plain('Ember'));
  const before = brightness(await stillPicture(page));
  const finish = page.getByTestId('finish');
  await finish.getByRole('button', { name: /^Finish/ }).click();
  await finish.getByRole('button', { name: 'Choose a finish' }).click();
  await page.getByRole('dialog', { name: 'Finishes' }).getByRole('button', { name: 'Lacquer' }).click();
  await expect(finish.getByTestId('part-coat')).toBeVisible();
  await finish.getByRole('button', { name: 'Add to finish' }).click();
  await page.getByRole('menuitem', { name: /^Glow/ }).click();
  await typeNumber(finish.getByTestId('part-glow'), 'Glow strength', 1.4);

  await page.getByRole('button', { name: 'Scene' }).click();
  const scene = page.getByRole('complementary', { name: 'Scene' });
  await addTo(page, 'picture', 'Bloom');
  await addTo(page, 'picture', 'Grain');
  await typeNumber(scene.getByTestId('item-bloom'), 'Amount', 150);
  const first = await stillPicture(page);
  // It shines by itself, and its light spills beyond it.
  expect(brightness(first).middle).toBeGreaterThan(before.middle + 10);
  await goTo(page, 5);
  expect((await stillPicture(page)).equals(first)).toBe(false);
  await goTo(page, 12);
  expect((await stillPicture(page)).equals(first)).toBe(true);
  await expect(page.getByTestId('seam-chip')).toHaveText('Seam closed');

  // Switched off, a part and an effect are as if they were not there.
  await finish.getByTestId('part-glow').getByRole('checkbox', { name: 'Glow on' }).click({ force: true });
  await scene.getByTestId('item-bloom').getByRole('checkbox', { name: 'Bloom on' }).click({ force: true });
  expect(brightness(await stillPicture(page)).middle).toBeLessThan(brightness(first).middle - 20);
  expect(errors).toEqual([]);
});

test('a sun throws a shadow, a stop less is darker, fog puts its colour in place of what is far, and all of it closes', async ({
  page,
}) => {
  const errors = watchErrors(page);
  const piece = plain('Noon');
  await openPiece(page, {
    ...piece,
    scene: {
      ...piece.scene,
      cameras: [newItem(cameras.get('orbit'), { elevation: 40, distance: 9 })],
      lights: [],
    },
    ribbons: [
      ...piece.ribbons,
      {
        ...newRibbon('plane', 1, 'Ground'),
        steps: [
          newStep('plane', { width: 30, depth: 30, columns: 1, rows: 1 }),
          newStep('place', { shift: [0, -1.2, 0] }),
        ],
      },
    ],
  });
  const dark = brightness(await stillPicture(page)).whole;
  await page.getByRole('button', { name: 'Scene' }).click();
  const scene = page.getByRole('complementary', { name: 'Scene' });
  await addTo(page, 'lights', 'Sun');
  const sun = scene.getByTestId('item-sun');
  await typeNumber(sun, 'Size', 0);
  const lit = await stillPicture(page);
  expect(brightness(lit).whole).toBeGreaterThan(dark + 30);
  await sun.getByRole('checkbox', { name: 'Shadow' }).click({ force: true });
  const bare = await stillPicture(page);
  expect(brightness(bare).whole).toBeGreaterThan(brightness(lit).whole + 0.5);
  await typeNumber(scene.getByTestId('item-orbit'), 'Exposure', -1);
  const stopped = brightness(await stillPicture(page));
  expect(stopped.whole).toBeLessThan(brightness(bare).whole - 10);
  await addTo(page, 'air', 'Fog');
  await typeNumber(scene.getByTestId('item-fog'), 'Density', 60);
  const foggy = await stillPicture(page);
  expect(Math.abs(brightness(foggy).middle - stopped.middle)).toBeGreaterThan(5);
  await goTo(page, 12);
  expect((await stillPicture(page)).equals(foggy)).toBe(true);
  // What moves in the scene has its lane like anything else, and is judged like it.
  await sun.getByRole('button', { name: /^Motion of Round/ }).click();
  await page.getByLabel('Motion of Round', { exact: true }).getByRole('radio', { name: 'Keys' }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('region', { name: 'Round' }).getByText('Sun · Round')).toBeVisible();
  await expect(page.getByTestId('seam-chip')).toHaveText('Seam closed');
  expect(errors).toEqual([]);
});

test('a picture that stands still is the average of as many sub-frames as are chosen', async ({ page }) => {
  await openPiece(page, plain('Fine'));
  await stillPicture(page);
  const bar = page.getByRole('button', { name: /sub-frames$/ });
  await expect(bar).toHaveText('4 sub-frames');
  await bar.click();
  await page.getByRole('menuitem', { name: '256', exact: true }).click();
  await expect(bar).toHaveText('256 of 256 sub-frames');
  const fine = await stillPicture(page);
  await goTo(page, 12);
  await expect(bar).not.toHaveText('256 of 256 sub-frames');
  expect((await stillPicture(page)).equals(fine)).toBe(true);
  // All that can be done has its words in the command field, too.
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox').fill('finest picture');
  await page.keyboard.press('Enter');
  await expect(bar).toHaveText(/ of 1024 sub-frames$/);
});
