import { newPiece, newRibbon, newStep, type Piece } from '@maypole/core/piece/piece';
import { expect, test, type Page } from './test';
import { addStep, openPiece, pictureReady, smallPiece, step, typeNumber, watchErrors } from './helpers';

/** A box and a cylinder, each with a twist, quick to draw. */
function twoRibbons(name: string): Piece {
  const ribbon = (form: string, i: number, label: string, angle: number) => ({
    ...newRibbon(form, i, label),
    steps: [newStep(form), newStep('twist', { angle })],
  });
  return {
    ...newPiece(name),
    loop: { frames: 24, fps: 12 },
    format: { width: 160, height: 120 },
    ribbons: [ribbon('box', 0, 'Vane', 10), ribbon('cylinder', 1, 'Mast', 40)],
  };
}

function box(name: string, ...steps: Piece['ribbons'][number]['steps']): Piece {
  return {
    ...newPiece(name),
    loop: { frames: 24, fps: 12 },
    format: { width: 160, height: 120 },
    ribbons: [{ ...newRibbon('box', 0, 'Vane'), steps: [newStep('box', { segments: 1 }), ...steps] }],
  };
}

const chip = (page: Page) => page.getByTestId('seam-chip');

/** The stored document as the server has it. */
async function stored(page: Page, id: string): Promise<Piece> {
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  const { source } = (await (await page.request.get(`/api/pieces/${id}`)).json()) as { source: string };
  return JSON.parse(source) as Piece;
}

test('a body spun unevenly by keys: the seam check names the change of speed, and one click makes it even', async ({
  page,
}) => {
  const errors = watchErrors(page);
  const id = await openPiece(page, box('Anemometer'));
  await addStep(page, 'Spin');
  await typeNumber(step(page, 'spin'), 'Turns', 0);
  await step(page, 'spin')
    .getByRole('button', { name: /^Motion of Angle/ })
    .click();
  const motion = page.getByLabel('Motion of Angle', { exact: true });
  await motion.getByRole('radio', { name: 'Keys' }).click();
  // An angle starts out as one whole turn at even speed.
  await expect(motion.getByRole('spinbutton', { name: 'Adds per loop' })).toHaveAttribute('aria-valuenow', '360');
  await motion.getByRole('button', { name: 'Shape the keys in the lane' }).click();
  await expect(chip(page)).toHaveText('Seam closed');

  const canvas = page.getByTestId('curve-canvas');
  const area = (await canvas.boundingBox())!;
  await expect(page.getByTestId('key')).toHaveCount(2);
  await page.mouse.dblclick(area.x + area.width * 0.5, area.y + area.height * 0.75);
  await expect(page.getByTestId('key-count')).toHaveText('Key 2 of 2');
  await typeNumber(page, 'Key value', 60);
  await typeNumber(page, 'Key frame', 12);
  await expect(chip(page)).toHaveText('Closed, speed changes');
  await chip(page).click();
  const note = page.getByTestId('note');
  await expect(note).toContainText('Spin angle');
  await expect(note).toContainText('Meets itself in place, but arrives at 25 ° a frame and leaves at 5.');
  await note.getByRole('button', { name: 'Even speed' }).focus();
  await expect(page.getByTestId('preview').first()).toBeVisible();
  await note.getByRole('button', { name: 'Even speed' }).click();
  await expect(chip(page)).toHaveText('Seam closed');
  await expect(page.getByTestId('note')).toHaveCount(0);

  const piece = await stored(page, id);
  expect(piece.ribbons[0].steps[1].values.angle).toMatchObject({
    motion: 'keys',
    adds: 360,
    keys: [
      { value: 0, to: 'linear' },
      { value: 60, to: 'linear' },
    ],
  });
  expect(errors).toEqual([]);
});

test('keys are dragged over the seam, chosen in a box, copied, moved by the keyboard and taken back', async ({
  page,
}) => {
  const keys = {
    motion: 'keys',
    adds: 0,
    keys: [
      { at: 0.125, value: 0, to: 'linear' },
      { at: 0.5, value: 90, to: 'free', out: [0.1, 10] },
      { at: 0.875, value: 20, to: 'smooth' },
    ],
  };
  const id = await openPiece(page, box('Keys', newStep('twist', { angle: keys as never }, 'twist1')));
  await page.getByRole('button', { name: /^Lane of Twist angle/ }).click();
  const canvas = page.getByTestId('curve-canvas');
  const marks = page.getByTestId('key');
  // Three keys, and the neighbours of the outer two in the faded loops.
  await expect(marks).toHaveCount(5);
  const at = async (n: number) => {
    const b = (await marks.nth(n).boundingBox())!;
    return [b.x + b.width / 2, b.y + b.height / 2] as const;
  };
  const area = (await canvas.boundingBox())!;
  const perFrame = area.width / 1.3 / 24;
  const inOrder = async () => {
    const list = (await stored(page, id)).ribbons[0].steps[1].values.angle as unknown as {
      keys: { at: number; value: number }[];
    };
    return list.keys.map((k) => [Math.round(k.at * 24), Math.round(k.value)]);
  };
  // The last key (frame 21) goes six frames on, over the seam, and is at frame 3 there.
  const last = [...(await Promise.all([0, 1, 2, 3, 4].map(at)))].sort((a, b) => a[0] - b[0])[3];
  await page.mouse.move(...last);
  await page.mouse.down();
  await page.mouse.move(last[0] + 2 * perFrame, last[1], { steps: 4 });
  await page.mouse.move(last[0] + 5 * perFrame, last[1], { steps: 4 });
  await page.mouse.up();
  await expect.poll(inOrder).toEqual([
    [2, 20],
    [3, 0],
    [12, 90],
  ]);
  await page.keyboard.press('Control+z');
  await expect.poll(inOrder).toEqual([
    [3, 0],
    [12, 90],
    [21, 20],
  ]);

  await canvas.focus();
  await page.keyboard.press('Control+a');
  await expect(page.getByTestId('key-count')).toHaveText('3 of 3 keys');
  await expect(page.getByTestId('stretch')).toBeVisible();
  await page.keyboard.press('ArrowRight');
  await expect.poll(inOrder).toEqual([
    [4, 0],
    [13, 90],
    [22, 20],
  ]);
  await page.keyboard.press('Escape');
  await page.keyboard.press('PageDown');
  await page.keyboard.press('PageDown');
  await expect(page.getByTestId('key-count')).toHaveText('Key 2 of 3');
  await expect(page.getByTestId('tangent-out').first()).toBeVisible();
  await page.keyboard.press('Control+c');
  await page.keyboard.press('Control+v');
  // Pasted at the playhead, which is at the seam.
  await expect.poll(inOrder).toEqual([
    [0, 90],
    [4, 0],
    [13, 90],
    [22, 20],
  ]);
  await page.keyboard.press('Delete');
  await expect.poll(inOrder).toEqual([
    [4, 0],
    [13, 90],
    [22, 20],
  ]);
  await page.getByRole('combobox', { name: 'Way to the next key' }).waitFor({ state: 'detached' });
  await page.getByRole('button', { name: 'Reverse' }).click();
  await expect.poll(inOrder).toEqual([
    [2, 20],
    [11, 90],
    [20, 0],
  ]);
  await page.getByRole('button', { name: 'Seam in the middle' }).click();
  await expect(page.getByRole('button', { name: 'Seam at the sides' })).toBeVisible();
});

test('a box tumbles edge over edge in a row; one alone is a gap that is repaired', async ({ page }) => {
  await openPiece(page, box('Dice'));
  await addStep(page, 'Tumble');
  await expect(page.getByTestId('face-count')).toHaveText('30 faces');
  await expect(chip(page)).toHaveText('Seam closed');
  await typeNumber(step(page, 'tumble'), 'Bodies', 1);
  await expect(chip(page)).toHaveText('1 gap at the seam');
  await chip(page).click();
  await expect(page.getByTestId('gap')).toContainText('One body alone moves on each loop, and none takes its place.');
  await page.getByRole('button', { name: 'On the spot' }).click();
  await expect(chip(page)).toHaveText('Seam closed');
  await typeNumber(step(page, 'tumble'), 'Steps', 1);
  await expect(page.getByTestId('seam-words')).toContainText('have changed places, and together are the same', {
    timeout: 60_000,
  });
  await expect(chip(page)).toHaveText('Seam closed');
});

test('a body wanders nose ahead with a swaying tail, and the picture of frame N is that of frame 0', async ({
  page,
}) => {
  await openPiece(page, box('Squall'));
  await addStep(page, 'Journey');
  const journey = step(page, 'journey');
  await typeNumber(journey, 'Sway', 0.3);
  await journey.getByRole('combobox', { name: 'Held' }).selectOption({ label: 'Upright' });
  await expect(chip(page)).toHaveText('Seam closed');
  await chip(page).click();
  await page.getByRole('button', { name: 'Compare the pictures' }).click();
  await expect(page.getByTestId('picture-comparison')).toContainText('are identical, pixel for pixel', {
    timeout: 180_000,
  });
  await journey.getByRole('combobox', { name: 'Path' }).selectOption({ label: 'Drawn' });
  await expect(journey.getByRole('application', { name: /seen from above/ })).toBeVisible();
  await typeNumber(journey, 'Laps', 1.5);
  await expect(chip(page)).toHaveText('1 gap at the seam');
  await expect(page.getByTestId('gap')).toContainText('1.5 a loop does not close');
});

test('two ribbons are edited at once: mixed values are marked, one edit reaches both, a tie keeps them equal', async ({
  page,
}) => {
  const id = await openPiece(page, twoRibbons('Together'));
  await page.getByRole('button', { name: 'Ribbon Mast' }).click({ modifiers: ['Control'] });
  const together = page.getByRole('region', { name: '2 ribbons together' });
  const angle = together.getByRole('spinbutton', { name: 'Angle' });
  await expect(angle).toHaveAttribute('aria-valuetext', 'mixed');
  await typeNumber(together, 'Angle', 25);
  await expect(angle).toHaveAttribute('aria-valuetext', '25 °');
  let piece = await stored(page, id);
  expect(piece.ribbons.map((r) => r.steps[1].values.angle)).toEqual([25, 25]);
  // Only what was touched is changed: the forms and their finishes stay apart.
  expect(piece.ribbons[0].finishes[0].parts[0].values.colour).not.toBe(
    piece.ribbons[1].finishes[0].parts[0].values.colour,
  );

  await together.getByRole('button', { name: /^Motion of Angle/ }).click();
  await page.getByLabel('Motion of Angle', { exact: true }).getByRole('button', { name: 'Tie together' }).click();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Ribbon Vane' }).click();
  await page.getByRole('button', { name: /^Twist, / }).waitFor();
  await typeNumber(step(page, 'twist'), 'Angle', 70);
  await page.getByRole('button', { name: 'Ribbon Mast' }).click();
  await expect(page.getByRole('button', { name: /^Twist, 70° about Y/ })).toBeVisible();
  piece = await stored(page, id);
  expect(piece.ribbons[1].steps[1].values.angle).toMatchObject({ motion: 'follow', scale: 1 });
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: /^Twist, 25° about Y/ })).toBeVisible();
});

test('a formula points at what is wrong; followers refuse circles; layers and colours move', async ({ page }) => {
  const id = await openPiece(page, smallPiece('Formulas'));
  await page.getByRole('button', { name: /^Twist, / }).click();
  await step(page, 'twist')
    .getByRole('button', { name: /^Motion of Angle/ })
    .click();
  const motion = page.getByLabel('Motion of Angle', { exact: true });
  await motion.getByRole('radio', { name: 'Formula' }).click();
  const field = motion.getByRole('textbox', { name: 'Formula' });
  await field.fill('40*sin(2*pi*t) + wobble(t)');
  await expect(motion.getByRole('alert')).toContainText('There is no function “wobble” at character 18.');
  await field.fill('40*sin(3*pi*t)');
  await expect(motion.getByText('It takes more than one loop to come round.')).toBeVisible();
  await field.fill('40*sin(4*pi*t)');
  await expect(motion.getByRole('alert')).toHaveCount(0);
  await motion.getByRole('button', { name: 'Layers' }).click();
  await motion.getByRole('button', { name: 'Add a layer' }).click();
  await page.getByRole('menuitem', { name: 'Wander' }).click();
  await expect(motion.getByRole('listitem')).toHaveCount(1);
  await motion.getByRole('button', { name: 'Another one' }).click();
  await expect(motion.getByRole('spinbutton', { name: 'Seed' })).not.toHaveAttribute('aria-valuenow', '1');
  await page.keyboard.press('Escape');
  expect((await stored(page, id)).ribbons[0].steps[2].values.angle).toMatchObject({
    motion: 'formula',
    text: '40*sin(4*pi*t)',
    layers: [{ how: 'add', motion: { motion: 'wander' } }],
  });

  // The torus follows the twist; the twist must not then follow the torus.
  await step(page, 'torus')
    .getByRole('button', { name: /^Motion of Ring radius/ })
    .click();
  const ring = page.getByLabel('Motion of Ring radius', { exact: true });
  await ring.getByRole('radio', { name: 'Follow' }).click();
  await ring.getByRole('combobox', { name: 'Follows' }).fill('twist angle');
  await ring.getByRole('option', { name: /Twist angle/ }).click();
  await page.keyboard.press('Escape');
  await step(page, 'twist')
    .getByRole('button', { name: /^Motion of Angle/ })
    .click();
  await motion.getByRole('radio', { name: 'Follow' }).click();
  await motion.getByRole('combobox', { name: 'Follows' }).fill('ring radius');
  await motion.getByRole('option', { name: /ring radius/ }).click();
  await expect(motion.getByRole('alert')).toContainText(
    'It would follow itself: Ring, Twist angle → Ring, Torus ring radius → Ring, Twist angle',
  );
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');

  await page.getByRole('button', { name: /^Finish surface/ }).click();
  await page.getByRole('button', { name: /^Motion of Colour/ }).click();
  await page.getByLabel('Motion of Colour', { exact: true }).getByRole('radio', { name: 'Hue cycle' }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: /^Lane of Finish colour, 1 turn/ })).toBeVisible();
  await pictureReady(page);
});

test('a hundred lanes: only those in sight are made, and they scroll', async ({ page }) => {
  const wave = { motion: 'wave', shape: 'sine', width: 50, low: -10, high: 10, turns: 1, phase: 0, rest: 0 };
  const places = Array.from({ length: 12 }, (_, i) =>
    newStep(
      'place',
      {
        shift: [wave, wave, wave] as never,
        turn: [wave, wave, wave] as never,
        size: { ...wave, low: 0.9, high: 1.1 } as never,
      },
      `p${i}`,
    ),
  );
  await openPiece(
    page,
    box(
      'Many',
      ...places,
      newStep('spin', { angle: wave as never }),
      ...Array.from({ length: 16 }, (_, i) => newStep('twist', { angle: wave as never }, `t${i}`)),
    ),
  );
  // 101 values, and the turns of the spin, which it makes by itself.
  await expect(page.getByRole('region', { name: 'Round' }).getByText('102 things')).toBeVisible();
  const lanes = page.getByRole('button', { name: /^Lane of/ });
  expect(await lanes.count()).toBeLessThan(12);
  await page.getByTestId('lanes').evaluate((e) => (e.scrollTop = 1e6));
  await expect(lanes.last()).toHaveAccessibleName(/Lane of Twist angle/);
  expect(await lanes.count()).toBeLessThan(12);
  await page.getByTestId('lanes').evaluate((e) => (e.scrollTop = 0));
  await expect(lanes.first()).toHaveAccessibleName(/Lane of Place shift x/);
});
