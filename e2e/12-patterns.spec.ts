import { newItem, newPiece, newRibbon, newStep, type Piece } from '@maypole/core/piece/piece';
import { backdrops, cameras, lights, pictureEffects } from '@maypole/core/scene/index';
import { expect, test, type Page } from './test';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { PNG } from 'pngjs';
import { openPiece, stillPicture, typeNumber, watchErrors } from './helpers';
import { addOutput, openDeliver, renderAll, save } from './delivering';

/** Balls on a ring before a plain camera. */
const balls = (name: string): Piece => ({
  ...newPiece(name),
  loop: { frames: 12, fps: 12 },
  format: { width: 160, height: 120 },
  ribbons: [
    {
      ...newRibbon('sphere', 0, 'Balls'),
      steps: [
        newStep('sphere', { radius: 0.35, meridians: 16, parallels: 8 }),
        newStep('repeat-rings', { count: 8, radius: 1.3 } as never),
      ],
    },
  ],
});

const ring = (name: string): Piece => ({
  ...balls(name),
  ribbons: [{ ...newRibbon('torus', 0, 'Ring'), steps: [newStep('torus', { ringSegments: 32, pipeSegments: 16 })] }],
});

const goTo = (page: Page, frame: number) => typeNumber(page.getByRole('region', { name: 'Round' }), 'Frame', frame);

/** How many of twelve parts of the circle of hues strong colours of a picture lie in. */
function hues(png: Buffer): number {
  const { data } = PNG.sync.read(png);
  const found = new Map<number, number>();
  for (let i = 0; i < data.length; i += 4) {
    const [r, g, b] = [data[i], data[i + 1], data[i + 2]];
    const [max, min] = [Math.max(r, g, b), Math.min(r, g, b)];
    if (max - min < 70) continue;
    const d = max - min;
    const h = max === r ? ((g - b) / d + 6) % 6 : max === g ? (b - r) / d + 2 : (r - g) / d + 4;
    found.set(Math.floor(2 * h), (found.get(Math.floor(2 * h)) ?? 0) + 1);
  }
  return [...found.values()].filter((n) => n > 60).length;
}

/** Share of the pixels of two pictures that differ visibly. */
function differing(a: Buffer, b: Buffer): number {
  const [p, q] = [PNG.sync.read(a).data, PNG.sync.read(b).data];
  let n = 0;
  for (let i = 0; i < p.length; i += 4)
    if (Math.abs(p[i] - q[i]) + Math.abs(p[i + 1] - q[i + 1]) + Math.abs(p[i + 2] - q[i + 2]) > 24) n++;
  return n / (p.length / 4);
}

test('copies are coloured by where they are through a closed ramp of hues in four actions, and it goes round with the loop', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openPiece(page, balls('Gauge'));
  expect(hues(await stillPicture(page))).toBeLessThan(3);
  const finish = page.getByTestId('finish');
  await finish.getByRole('button', { name: /^Finish/ }).click();
  await finish.getByRole('button', { name: 'Pattern of Colour, even' }).click();
  const layers = finish.getByTestId('patterns-colour');
  await layers.getByRole('button', { name: 'Around an axis' }).click();
  await layers.getByLabel('Goes by', { exact: true }).selectOption('Copy');
  const coloured = await stillPicture(page);
  expect(hues(coloured)).toBeGreaterThan(5);

  await layers.getByRole('button', { name: /^Motion of Moved on/ }).click();
  await page.getByLabel('Motion of Moved on', { exact: true }).getByRole('radio', { name: 'Keys' }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('seam-chip')).toHaveText('Seam closed');
  const first = await stillPicture(page);
  await goTo(page, 4);
  expect((await stillPicture(page)).equals(first)).toBe(false);
  await goTo(page, 12);
  expect((await stillPicture(page)).equals(first)).toBe(true);
  expect(errors).toEqual([]);
});

test('a pattern cuts holes, another raises a bump, and edges become glowing wires; each is undone', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openPiece(page, ring('Relief'));
  const plain = await stillPicture(page);
  const finish = page.getByTestId('finish');
  await finish.getByRole('button', { name: /^Finish/ }).click();
  const add = async (part: RegExp) => {
    await finish.getByRole('button', { name: 'Add to finish' }).click();
    await page.getByRole('menuitem', { name: part }).click();
  };
  await add(/^Bump/);
  const bump = finish.getByTestId('part-bump');
  await bump.getByRole('button', { name: /^Pattern of Bump height/ }).click();
  await bump.getByTestId('patterns-height').getByRole('button', { name: 'Noise' }).click();
  const raised = await stillPicture(page);
  expect(raised.equals(plain)).toBe(false);

  await add(/^Cut-out/);
  const cut = finish.getByTestId('part-cut');
  await cut.getByRole('button', { name: /^Pattern of Cut-out height/ }).click();
  await cut.getByTestId('patterns-height').getByRole('button', { name: 'Bands' }).click();
  const holed = await stillPicture(page);
  expect(holed.equals(raised)).toBe(false);
  await typeNumber(cut, 'Cut-out level', 0);
  const whole = await stillPicture(page);
  // Its outline is drawn a little otherwise where its inside may be seen.
  expect(differing(whole, raised)).toBeLessThan(0.01);
  expect(differing(holed, raised)).toBeGreaterThan(0.02);

  await add(/^Wires/);
  const wired = await stillPicture(page);
  expect(wired.equals(whole)).toBe(false);
  await finish.getByTestId('part-wires').getByLabel('Wires faces', { exact: true }).selectOption('None');
  expect((await stillPicture(page)).equals(wired)).toBe(false);
  await page.keyboard.press('Control+z');
  // What is undone is drawn a turn of the screen later.
  await expect.poll(async () => (await stillPicture(page)).equals(wired)).toBe(true);
  expect(errors).toEqual([]);
});

test('the camera looks isometric, focuses where one clicks, blurs what moves, and closes to the pixel', async ({
  page,
}) => {
  const errors = watchErrors(page);
  const piece = ring('Views');
  await openPiece(page, {
    ...piece,
    ribbons: [{ ...piece.ribbons[0], steps: [...piece.ribbons[0].steps, newStep('spin', { axis: 'x' } as never)] }],
  });
  const plain = await stillPicture(page);
  await page.getByRole('button', { name: 'Camera moves' }).click();
  await page.getByRole('menuitem', { name: 'Isometric' }).click();
  await expect(page.getByRole('button', { name: 'Parallel' })).toBeVisible();
  expect((await stillPicture(page)).equals(plain)).toBe(false);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: '50 mm' })).toBeVisible();

  await page.getByRole('button', { name: 'Guides' }).click();
  await page.getByRole('menuitemcheckbox', { name: 'Square 1:1' }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('frame-lines').getByText('1:1')).toBeVisible();

  await page.getByRole('button', { name: 'Camera moves' }).click();
  await page.getByRole('menuitem', { name: /^Focus on a point/ }).click();
  await expect(page.getByText('Click on what is to be sharp')).toBeVisible();
  const box = (await page.getByTestId('viewport').boundingBox())!;
  await page.mouse.click(box.x + box.width / 2, box.y + box.height * 0.56);
  await expect(page.getByText('Click on what is to be sharp')).toHaveCount(0);
  await page.getByRole('button', { name: 'Scene' }).click();
  const camera = page.getByRole('complementary', { name: 'Scene' }).getByTestId('item-orbit');
  await expect(camera.getByLabel('Focus by', { exact: true })).toHaveValue('point');
  const sharp = await stillPicture(page);
  expect(sharp.equals(plain)).toBe(false);

  await typeNumber(camera, 'Shutter', 360);
  const blurred = await stillPicture(page);
  expect(blurred.equals(sharp)).toBe(false);
  await goTo(page, 12);
  expect((await stillPicture(page)).equals(blurred)).toBe(true);

  await page.getByRole('button', { name: 'Camera moves' }).click();
  await page.getByRole('menuitem', { name: 'Once round' }).click();
  await expect(page.getByTestId('seam-chip')).toHaveText('Seam closed');
  expect(errors).toEqual([]);
});

test('lights come as a set-up and are placed by where they glance; a floor shows shadow alone; files are see-through', async ({
  page,
}) => {
  const errors = watchErrors(page);
  const piece = ring('Set');
  await openPiece(page, {
    ...piece,
    format: { width: 96, height: 96 },
    scene: {
      ...piece.scene,
      cameras: [newItem(cameras.get('orbit'), { elevation: 35 })],
      lights: [newItem(lights.get('studio'))],
      backdrop: [newItem(backdrops.get('clear'))],
      // What is done to the finished picture covers nothing more.
      picture: [newItem(pictureEffects.get('grain'), { amount: 60 })],
    },
  });
  await page.getByRole('button', { name: 'Scene' }).click();
  const scene = page.getByRole('complementary', { name: 'Scene' });
  await page.getByRole('button', { name: 'Add to lights' }).click();
  await page.getByRole('menuitem', { name: 'Key, fill and rim' }).click();
  await expect(scene.getByTestId('item-area')).toHaveCount(3);
  const lit = await stillPicture(page);

  await scene
    .getByTestId('item-area')
    .first()
    .getByRole('button', { name: /^Aim by reflection/ })
    .click();
  const box = (await page.getByTestId('viewport').boundingBox())!;
  await page.mouse.click(box.x + box.width / 2, box.y + box.height * 0.62);
  const glancing = await stillPicture(page);
  expect(glancing.equals(lit)).toBe(false);

  await page.getByRole('button', { name: 'Add to ground' }).click();
  await page.getByRole('menuitem', { name: 'Shadow floor' }).click();
  await typeNumber(scene.getByTestId('item-catcher'), 'Height', -0.4);
  expect((await stillPicture(page)).equals(glancing)).toBe(false);

  const dialog = await openDeliver(page);
  await addOutput(page, 'PNG pictures');
  // Over nothing, pictures are see-through by themselves.
  await expect(dialog.getByLabel('Without backdrop')).toBeChecked();
  await dialog.getByLabel('Frames', { exact: true }).selectOption('A part');
  await typeNumber(dialog, 'To', 0);
  const file = await save(page, await renderAll(dialog), 'PNG pictures', mkdtempSync(path.join(tmpdir(), 'maypole-')));
  const { width, data } = PNG.sync.read(readFileSync(file));
  const alpha = (x: number, y: number) => data[4 * (y * width + x) + 3];
  expect(alpha(1, 1)).toBe(0);
  const all = Array.from({ length: data.length / 4 }, (_, i) => data[4 * i + 3]);
  expect(all.filter((a) => a === 255).length).toBeGreaterThan(300);
  // Shadow is there in part, away from the form: its own outline is partly covered, too.
  const nearForm = (i: number) =>
    [-3, -2, -1, 0, 1, 2, 3].some((dy) => [-3, -2, -1, 0, 1, 2, 3].some((dx) => all[i + dy * width + dx] === 255));
  expect(all.filter((a, i) => a > 15 && a < 240 && !nearForm(i)).length).toBeGreaterThan(60);
  expect(errors).toEqual([]);
});
