import { readFileSync } from 'node:fs';
import { newItem } from '@maypole/core/piece/piece';
import { outputs } from '@maypole/core/output/index';
import { readPiece } from '@maypole/core/piece/read';
import { expect, test } from './test';
import { openPiece, pictureReady, putPiece, smallPiece, step, typeNumber, watchErrors } from './helpers';

test(
  'takes go into the queue together, each as it is, and their end is told on any page',
  { tag: '@long' },
  async ({ page }) => {
    const errors = watchErrors(page);
    const piece = {
      ...smallPiece('Takes', 2),
      format: { width: 32, height: 24 },
      outputs: [newItem(outputs.get('png'))],
    };
    const id = await openPiece(page, {
      ...piece,
      render: { ...piece.render, values: { ...piece.render.values, light: 'true', samples: 1, denoise: false } },
    });
    await page.getByRole('button', { name: 'History', exact: true }).click();
    const history = page.getByRole('complementary', { name: 'History' });
    for (const [radius, name] of [
      [1.2, 'Narrow'],
      [1.8, 'Wide'],
    ] as const) {
      await typeNumber(step(page, 'torus'), 'Ring radius', radius);
      await history.getByLabel('Name of the take').fill(name);
      await history.getByRole('button', { name: 'Keep a take' }).click();
      await expect(page.getByText(`“${name}” is kept as a take.`)).toBeVisible();
    }
    await history.getByRole('button', { name: 'Render all 2' }).click();
    await expect(page.getByText('2 takes are in the queue.')).toBeVisible();
    // Wherever one is by then, it is told that they are done.
    await page.goto('/');
    await expect(page.getByText('Takes: its file is ready.').first()).toBeVisible({ timeout: 120_000 });
    const queue = async () => {
      const answer = await page.request.get(`/api/renders?piece=${id}`);
      const { renders } = (await answer.json()) as { renders: { state: string; revision: number; frames: number }[] };
      return renders;
    };
    await expect.poll(async () => (await queue()).map((r) => r.state), { timeout: 180_000 }).toEqual(['done', 'done']);
    const made = await queue();
    expect(new Set(made.map((r) => r.revision)).size).toBe(2);
    expect(made.map((r) => r.frames)).toEqual([2, 2]);
    expect(errors).toEqual([]);
  },
);

test('several pieces leave the shelf as files of their own', async ({ page }) => {
  const mark = `out ${Date.now()}`;
  for (const name of ['One', 'Two', 'Three']) await putPiece(page, smallPiece(`${mark} ${name}`));
  await page.goto('/');
  await page.getByRole('textbox', { name: 'Find a piece' }).fill(mark);
  for (const name of ['One', 'Two', 'Three'])
    await page.getByRole('checkbox', { name: `Choose ${mark} ${name}` }).check();
  const files: string[] = [];
  page.on('download', (d) => void d.path().then((path) => files.push(path)));
  await page.getByRole('region', { name: 'Chosen pieces' }).getByRole('button', { name: 'Export' }).click();
  await expect.poll(() => files.length).toBe(3);
  const names = files.map((f) => {
    const read = readPiece(readFileSync(f, 'utf8'));
    return read.ok ? read.piece.name : read.message;
  });
  expect(names.sort()).toEqual([`${mark} One`, `${mark} Three`, `${mark} Two`]);
});

test('a motion is copied to another value, and kept for other pieces, by its buttons', async ({ page, context }) => {
  const errors = watchErrors(page);
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await openPiece(page, smallPiece('Motions'));
  const motion = (of: string) => page.getByRole('button', { name: new RegExp(`^Motion of .*${of}`, 'i') });
  await motion('Height').click();
  await page.getByRole('radio', { name: 'Wave', exact: true }).click({ force: true });
  await page.getByRole('button', { name: 'Copy', exact: true }).click();
  await expect(page.getByText('The motion is copied')).toBeVisible();
  const text = await page.evaluate(() => navigator.clipboard.readText());
  expect(JSON.parse(text)).toMatchObject({ maypole: 'motion' });
  const name = `Swell ${Date.now()}`;
  await page.getByRole('button', { name: 'Kept motions' }).click();
  await page.getByRole('textbox', { name: 'Name for this motion' }).fill(name);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name, exact: true })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');

  await motion('Scale').click();
  await page.getByRole('button', { name: 'Paste', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Undo: Paste motion of Scale' })).toBeEnabled();
  await page.keyboard.press('Escape');

  await openPiece(page, smallPiece('Others'));
  await motion('Scale').click();
  await page.getByRole('button', { name: 'Kept motions' }).click();
  await page.getByRole('button', { name, exact: true }).click();
  await expect(page.getByRole('button', { name: `Undo: Motion: ${name}` })).toBeEnabled();
  // Another text is told, and changes nothing.
  await page.evaluate(() => navigator.clipboard.writeText('Rain until Tuesday'));
  await page.getByRole('button', { name: 'Paste', exact: true }).click();
  await expect(page.getByText('No motion was copied. Copy one first.')).toBeVisible();
  expect(errors).toEqual([]);
});

test('two people with one piece open see each other, and what both changed is brought together', async ({
  browser,
  page,
}) => {
  const errors = watchErrors(page);
  const id = await openPiece(page, smallPiece('Two at it'));
  const other = await browser.newContext();
  const theirs = await other.newPage();
  await theirs.goto(`/piece/${id}`);
  await pictureReady(theirs);
  await expect(page.getByRole('status').filter({ hasText: 'another browser' })).toBeVisible({ timeout: 30_000 });
  // They name the piece; it is told here, and what is set here meets it.
  await theirs.getByLabel('Name of the piece').fill('Named by them');
  await theirs.keyboard.press('Enter');
  await expect(theirs.getByText('Saved', { exact: true })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Newer version/ })).toBeVisible({ timeout: 30_000 });
  await typeNumber(step(page, 'torus'), 'Ring radius', 1.4);
  const dialog = page.getByRole('alertdialog', { name: 'Changed elsewhere' });
  await expect(dialog).toContainText('You changed different things');
  await dialog.getByRole('button', { name: 'Bring both together' }).click();
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await expect(page.getByLabel('Name of the piece')).toHaveValue('Named by them');
  const { source } = (await (await page.request.get(`/api/pieces/${id}`)).json()) as { source: string };
  const saved = JSON.parse(source) as { name: string; ribbons: { steps: { values: { ringRadius: number } }[] }[] };
  expect([saved.name, saved.ribbons[0].steps[0].values.ringRadius]).toEqual(['Named by them', 1.4]);
  // Who leaves is no longer told of.
  await other.close();
  await expect(page.getByRole('status').filter({ hasText: 'another browser' })).toHaveCount(0);
  // That two versions met is told the page by a status.
  expect(errors.filter((e) => !e.includes('409'))).toEqual([]);
});
