import { expect, test } from './test';
import {
  addRibbon,
  addStep,
  openPiece,
  pictureReady,
  smallPiece,
  step,
  stillPicture,
  typeNumber,
  watchErrors,
} from './helpers';

const order = (page: import('@playwright/test').Page) =>
  page.getByTestId(/^step-/).evaluateAll((cards) => cards.map((c) => c.getAttribute('data-testid')!.slice(5)));
const frame = (page: import('@playwright/test').Page) => page.getByTestId('frame');

test('steps are added, doubled, switched, moved by mouse and keys, removed, and every edit is undone', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openPiece(page, smallPiece('Steps'));
  await addStep(page, 'Smooth');
  expect(await order(page)).toEqual(['torus', 'displace', 'twist', 'smooth']);

  // By keyboard, from its knot.
  await page.getByRole('button', { name: /^Move Smooth/ }).focus();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('ArrowUp');
  // The form stays on top.
  await page.keyboard.press('ArrowUp');
  await expect.poll(() => order(page)).toEqual(['torus', 'smooth', 'displace', 'twist']);

  // By mouse: the knot of the twist onto the smooth.
  for (const kind of ['smooth', 'torus', 'displace']) {
    const head = step(page, kind).locator('button[aria-expanded=true]');
    if (await head.count()) await head.click();
  }
  const from = (await page.getByRole('button', { name: /^Move Twist/ }).boundingBox())!;
  const to = (await page.getByRole('button', { name: /^Move Smooth/ }).boundingBox())!;
  await page.mouse.move(from.x + 14, from.y + 14);
  await page.mouse.down();
  await page.mouse.move(from.x + 14, from.y - 10, { steps: 4 });
  await page.mouse.move(to.x + 14, to.y + 4, { steps: 8 });
  // The list takes in where the card is held, turn by turn of the screen.
  await page.evaluate(() => new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve))));
  await page.mouse.up();
  await expect.poll(() => order(page)).toEqual(['torus', 'twist', 'smooth', 'displace']);

  await step(page, 'smooth').getByRole('button', { name: 'More for Smooth' }).click();
  await page.getByRole('menu', { name: 'More for Smooth' }).getByRole('menuitem', { name: 'Duplicate step' }).click();
  await expect.poll(() => order(page)).toEqual(['torus', 'twist', 'smooth', 'smooth', 'displace']);
  await step(page, 'twist').getByRole('button', { name: 'Switch Twist off' }).click();
  await expect(step(page, 'twist').getByRole('button', { name: 'Switch Twist on' })).toBeVisible();
  await step(page, 'displace').getByRole('button', { name: 'More for Displace' }).click();
  await page.getByRole('menu', { name: 'More for Displace' }).getByRole('menuitem', { name: 'Remove step' }).click();
  await expect.poll(() => order(page)).toEqual(['torus', 'twist', 'smooth', 'smooth']);

  const undo = page.getByRole('button', { name: /^Undo/ });
  for (let i = 0; i < 7; i++) await undo.click();
  await expect.poll(() => order(page)).toEqual(['torus', 'displace', 'twist']);
  await expect(undo).toBeDisabled();
  const redo = page.getByRole('button', { name: /^Redo/ });
  for (let i = 0; i < 7; i++) await redo.click();
  await expect.poll(() => order(page)).toEqual(['torus', 'twist', 'smooth', 'smooth']);
  await expect(redo).toBeDisabled();
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await page.reload();
  await expect.poll(() => order(page)).toEqual(['torus', 'twist', 'smooth', 'smooth']);
  expect(errors).toEqual([]);
});

test('values scrub, step by keys and take typed numbers; bad ones are named with the remedy', async ({ page }) => {
  await openPiece(page, smallPiece('Values'));
  const card = step(page, 'torus');
  const field = card.getByRole('spinbutton', { name: 'Ring radius' });
  const value = async () => Number(await field.getAttribute('aria-valuenow'));
  const box = (await field.boundingBox())!;
  await page.mouse.move(box.x + 40, box.y + 10);
  await page.mouse.down();
  await page.mouse.move(box.x + 70, box.y + 10, { steps: 12 });
  await page.mouse.up();
  const scrubbed = await value();
  expect(scrubbed).toBeGreaterThan(1.3);
  await page.getByRole('button', { name: 'Undo: Ring radius' }).click();
  expect(await value()).toBe(1);
  await field.focus();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Shift+ArrowUp');
  expect(await value()).toBeCloseTo(1.11, 6);

  await field.press('Enter');
  const input = card.getByRole('textbox', { name: 'Ring radius' });
  await input.fill('-4');
  await input.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: '-4 m is below the smallest, 0 m.' })).toBeVisible();
  await input.fill('wide');
  await input.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: '“wide” is not a number.' })).toBeVisible();
  await input.press('Escape');
  expect(await value()).toBeCloseTo(1.11, 6);
  await typeNumber(card, 'Ring faces', 2000);
  await typeNumber(card, 'Pipe faces', 2000);
  await expect(card.getByRole('alert')).toContainText('This would make 4M faces; the most is 2M. Use fewer segments.');
});

test('several ribbons, each with its finish; a wander on any value; forms are exchanged', async ({ page }) => {
  await openPiece(page, smallPiece('Ribbons'));
  await addRibbon(page, 'Torus');
  const bands = page.getByRole('navigation', { name: 'Ribbons' });
  await expect(bands.getByRole('button', { name: /^Ribbon / })).toHaveCount(2);
  await expect(page.getByRole('textbox', { name: 'Name of the ribbon' })).toHaveValue('Torus');
  await step(page, 'torus').getByRole('button', { name: 'More for Torus' }).click();
  await page.getByRole('menuitem', { name: 'Change to box' }).click();
  await expect.poll(() => order(page)).toEqual(['box']);
  await page.getByRole('button', { name: /^Finish/ }).click();
  await page.getByRole('button', { name: /^Motion of Roughness/ }).click();
  await page.getByRole('radio', { name: 'Wander' }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('region', { name: 'Round' }).getByText('Finish · Roughness')).toBeVisible();
  await expect(page.getByTestId('seam-chip')).toHaveText('Seam closed');
  await page.getByRole('button', { name: 'More for this ribbon' }).click();
  await page.getByRole('menuitem', { name: 'Remove ribbon' }).click();
  await expect(bands.getByRole('button', { name: /^Ribbon / })).toHaveCount(1);
  await page.getByRole('button', { name: 'Undo: Remove ribbon' }).click();
  await expect(bands.getByRole('button', { name: /^Ribbon / })).toHaveCount(2);
});

test('the loop plays, steps, scrubs and wraps; space and arrows work', async ({ page }) => {
  // Software drawing is slow; a small picture keeps it lively.
  await page.setViewportSize({ width: 960, height: 560 });
  await openPiece(page, smallPiece('Playing', 24));
  await expect(page.getByTestId('readiness')).toHaveText('all frames ready');
  await page.locator('body').press('ArrowRight');
  await expect(frame(page)).toHaveText('1');
  await page.locator('body').press('ArrowLeft');
  await page.locator('body').press('ArrowLeft');
  await expect(frame(page)).toHaveText('23');
  await page.locator('body').press('Home');
  await expect(frame(page)).toHaveText('0');

  await page.locator('body').press('Space');
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();
  const seen = new Set<string>();
  // The first frames may take seconds while software drawing prepares its light.
  await expect
    .poll(async () => seen.add((await frame(page).textContent())!).size, { timeout: 30_000, intervals: [50] })
    .toBeGreaterThan(6);
  expect(seen.has('24')).toBe(false);
  // All that tells where the loop is tells the same, and playing makes no new rules of style.
  const told = () =>
    page.evaluate(() => {
      const number = (name: string) => Number(document.querySelector(`[aria-label="${name}"]`)!.ariaValueNow);
      const turned = /rotate\(([\d.]+)/.exec(document.querySelector('[data-testid=hand]')!.getAttribute('transform')!)!;
      return {
        frames: [
          Number(document.querySelector('[data-testid=frame]')!.textContent),
          number('Dial'),
          number('Frame'),
          Math.round(24 * Number(document.querySelector('[data-testid=phase]')!.textContent)),
          Math.round((24 * Number(turned[1])) / 360),
        ],
        rules: [...document.styleSheets].reduce((sum, sheet) => sum + sheet.cssRules.length, 0),
      };
    });
  const first = await told();
  await expect.poll(async () => (await told()).frames[0]).not.toBe(first.frames[0]);
  const later = await told();
  for (const { frames } of [first, later]) expect(new Set(frames).size).toBe(1);
  expect(later.rules).toBe(first.rules);
  // It plays on, round the seam, or says what it reaches.
  await expect(page.getByTestId('readiness')).toHaveText(/all frames ready|Drawing reaches \d+ of 12 fps here/);
  await page.locator('body').press('Space');
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible();

  const dial = page.getByRole('slider', { name: 'Dial' });
  const box = (await dial.boundingBox())!;
  await page.mouse.click(box.x + box.width - 6, box.y + box.height / 2);
  await expect(frame(page)).toHaveText('6');
  await page.mouse.click(box.x + 6, box.y + box.height / 2);
  await expect(frame(page)).toHaveText('18');
});

test('the picture is turned, shifted and neared by mouse and keys; looks and detail change it', async ({ page }) => {
  await openPiece(page, smallPiece('Looking'));
  const viewport = page.getByTestId('viewport');
  const canvas = page.locator('canvas[data-testid=picture]');
  let last = await stillPicture(page);
  const changes = async (what: () => Promise<unknown>) => {
    const drawn = Number(await canvas.getAttribute('data-drawn'));
    await what();
    await expect.poll(async () => Number(await canvas.getAttribute('data-drawn'))).toBeGreaterThan(drawn);
    const now = await stillPicture(page);
    expect(now.equals(last)).toBe(false);
    last = now;
  };
  const box = (await viewport.boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  const drag = async (button: 'left' | 'right', dx: number, dy: number) => {
    await page.mouse.move(x, y);
    await page.mouse.down({ button });
    await page.mouse.move(x + dx, y + dy, { steps: 5 });
    await page.mouse.up({ button });
  };
  await changes(() => drag('left', 80, 30));
  await changes(() => drag('right', 40, -20));
  await changes(() => page.mouse.wheel(0, 240));
  await viewport.focus();
  await changes(() => page.keyboard.press('ArrowLeft'));
  await changes(() => page.keyboard.press('Shift+ArrowUp'));
  await changes(() => page.keyboard.press('+'));
  await changes(() => page.getByRole('radio', { name: 'Edges' }).click());
  await changes(() => page.getByRole('radio', { name: 'Clay' }).click());
  await changes(() => page.getByRole('radio', { name: 'Shaded' }).click());
  await changes(() => page.getByRole('button', { name: 'Frame all' }).click());
  await addStep(page, 'Subdivide');
  await expect(page.getByTestId('face-count')).toHaveText('1.2k faces');
  await page.getByRole('button', { name: /^Detail: draft/ }).click();
  await expect(page.getByTestId('face-count')).toHaveText('4.6k faces');
  await page.getByRole('button', { name: 'Scene', exact: true }).click();
  await page.getByRole('textbox', { name: 'Colour, as text' }).fill('#203040');
  await changes(() => page.keyboard.press('Enter'));
  await pictureReady(page);
});

test('a colour is typed as CSS writes it, or taken from those that the piece has', async ({ page }) => {
  await openPiece(page, smallPiece('Coloured'));
  await page.getByRole('button', { name: 'Scene', exact: true }).click();
  const field = page.getByRole('textbox', { name: 'Colour, as text' });
  await field.fill('light blue');
  await field.press('Enter');
  await expect(field).toHaveValue('#ADD8E6');
  await field.fill('hsl(0 100% 50%)');
  await field.press('Enter');
  await expect(field).toHaveValue('#FF0000');
  await field.fill('nonsense');
  await expect(field).toHaveAttribute('title', /“nonsense” is no colour/);
  await field.press('Escape');
  await field.focus();
  const ring = page.getByRole('button', { name: /^Colour: #d9483b, as elsewhere/i });
  await field.press('ArrowDown');
  await expect(page.getByRole('group', { name: 'Colours of the piece, for Colour' }).locator(':focus')).toHaveCount(1);
  await ring.click();
  await expect(field).toHaveValue('#D9483B');
});

test('a graphics device that goes away is told of, and the picture is drawn anew', async ({ page }) => {
  await openPiece(page, smallPiece('Lost'));
  const before = await stillPicture(page);
  // The process that draws, for all pages, is made to crash, as by a driver.
  const browser = await page.context().browser()!.newBrowserCDPSession();
  await browser.send('Browser.crashGpuProcess');
  await expect(page.getByText('The graphics device went away for a moment; the picture is drawn anew.')).toBeVisible();
  expect((await stillPicture(page)).equals(before)).toBe(true);
});
