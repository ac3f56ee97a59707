import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, readFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { outputs } from '@maypole/core/output/index';
import { newItem } from '@maypole/core/piece/piece';
import { expect, test, type Page } from './test';
import { unzipSync } from 'fflate';
import { PNG } from 'pngjs';
import { addOutput, openDeliver, renderAll, save } from './delivering';
import { openPiece, probe, smallPiece, step, typeNumber, watchErrors } from './helpers';

const folder = mkdtempSync(path.join(os.tmpdir(), 'maypole-deliver-'));
const maypole = path.join(import.meta.dirname, '../maypole');
const joined: ChildProcess[] = [];
test.afterAll(() => joined.forEach((child) => child.kill('SIGKILL')));

/** Makes a key as an owner does; gives the command that joins another machine. */
async function keyFor(page: Page, name: string): Promise<string[]> {
  await page.goto('/renders');
  await page.getByLabel('Another machine').fill(name);
  await page.getByRole('button', { name: 'Make a key' }).click();
  const command = await page.getByRole('textbox', { name: `Key of ${name}` }).inputValue();
  await page.getByRole('button', { name: 'Done' }).click();
  expect(command).toMatch(/^\.\/maypole work --server http\S+ --key maypole_\S+$/);
  return command.split(' ').slice(1);
}

function join(args: readonly string[], name: string): ChildProcess {
  // Another folder, and data of its own that it has no need of.
  const env = { ...process.env, MAYPOLE_DATA: mkdtempSync(path.join(os.tmpdir(), 'maypole-other-')) };
  const child = spawn(maypole, [...args, '--threads', '1', '--name', name], { env, cwd: os.tmpdir(), detached: true });
  joined.push(child);
  return child;
}

test(
  'five forms at once by several machines, of which one dies; a key that is withdrawn ends the other',
  { tag: '@long' },
  async ({ page }) => {
    const errors = watchErrors(page);
    const attic = await keyFor(page, 'Attic');
    const cellar = await keyFor(page, 'Cellar');
    await openPiece(page, { ...smallPiece('Delivered', 24), format: { width: 64, height: 64 } });
    const drawer = await openDeliver(page);
    await expect(drawer.getByText('Set for a purpose')).toBeVisible();
    await expect(drawer.getByRole('button', { name: /^Render/ })).toBeDisabled();
    for (const title of ['MP4 movie', 'PNG pictures', 'OpenEXR pictures', 'GIF', 'glTF (GLB)'])
      await addOutput(page, title);
    await expect(drawer.getByRole('alert')).toContainText('comes from true light alone; set Light to True');
    await drawer.getByLabel('Light', { exact: true }).selectOption('True');
    await expect(drawer.getByRole('alert')).toHaveCount(0);
    await typeNumber(drawer, 'Samples', 24);
    await drawer.getByTestId('item-mp4').getByLabel('Quality', { exact: true }).selectOption('Visually lossless');
    await expect(drawer.getByTestId('contents')).toContainText('delivered-64x64.mp4');

    const first = join(attic, 'Attic');
    const second = join(cellar, 'Cellar');
    await drawer.getByRole('button', { name: 'Render 24 frames' }).click();
    const card = drawer.getByTestId('render').first();
    await expect(card.getByText(/^([4-9]|1\d) of 24 frames/)).toBeVisible({ timeout: 180_000 });
    process.kill(-second.pid!, 'SIGKILL');
    await expect(card.getByText(/^Done/)).toBeVisible({ timeout: 180_000 });

    // Who made what adds up to all.
    const log = card.getByTestId('render-log');
    const shares = (await log.getByText(/^\d+ frames, /).allTextContents()).map((t) => Number(t.split(' ')[0]));
    expect(shares.reduce((a, b) => a + b, 0)).toBe(24);
    expect(shares.length).toBeGreaterThan(1);
    // Whoever did not make the first frame makes it again.
    await expect(log).toContainText('One frame was made again by another machine: it is the same in every byte.', {
      timeout: 60_000,
    });
    await expect(card.getByRole('button', { name: /^Look at frame/ })).toHaveCount(24);

    // Each file is what it should be, to other programs.
    expect(probe(await save(page, card, 'MP4 movie', folder))).toMatchObject({ nb_read_frames: '24', width: 64 });
    expect(probe(await save(page, card, 'GIF', folder))).toMatchObject({ codec_name: 'gif', nb_read_frames: '24' });
    for (const [title, ending] of [
      ['PNG pictures', '.png'],
      ['OpenEXR pictures', '.exr'],
    ]) {
      const entries = unzipSync(readFileSync(await save(page, card, title, folder)));
      expect(Object.keys(entries).filter((n) => n.endsWith(ending))).toHaveLength(24);
    }
    expect(
      readFileSync(await save(page, card, 'glTF (GLB)', folder))
        .subarray(0, 4)
        .toString(),
    ).toBe('glTF');

    // The report says how the file goes round its seam.
    await card.getByRole('button', { name: 'Report on MP4 movie' }).click();
    const report = card.getByTestId('file-report');
    await expect(report).toContainText('goes round its seam without a jolt');
    await expect(report.getByTestId('round-chart')).toBeVisible();
    await expect(report).toContainText('bt709');

    // A finished frame, large, and the one beside it.
    await card.getByRole('button', { name: 'Look at frame 3', exact: true }).click();
    const viewer = page.getByRole('dialog');
    await expect(viewer).toContainText('Delivered, frame 3');
    await page.keyboard.press('ArrowRight');
    await expect(viewer).toContainText('Delivered, frame 4');
    await viewer.getByRole('button', { name: 'Close' }).click();

    await page.goto('/renders');
    await expect(page.getByText('Attic').first()).toBeVisible();
    const ended = once(first, 'exit') as Promise<[number]>;
    await page.getByRole('button', { name: 'Withdraw the key Attic' }).first().click();
    expect((await ended)[0]).toBe(2);
    await page.getByRole('button', { name: 'Withdraw the key Cellar' }).first().click();
    expect(errors).toEqual([]);
  },
);

test('without a key, or with another version, nothing is given', async ({ request }) => {
  const body = { id: 'somebody-1234', name: 'Somebody', light: 'true', threads: 1, maker: 'x' };
  const none = await request.post('/api/work/claim', { data: body });
  expect([none.status(), ((await none.json()) as { error: string }).error]).toEqual([
    401,
    expect.stringContaining('shows a key'),
  ]);
  const wrong = await request.post('/api/work/claim', {
    data: body,
    headers: { Authorization: 'Bearer maypole_nothing' },
  });
  expect(wrong.status()).toBe(401);
  const made = await request.post('/api/people/keys', { data: { name: 'Old machine', role: 'run' } });
  const { id, key } = (await made.json()) as { id: string; key: string };
  const old = await request.post('/api/work/claim', { data: body, headers: { Authorization: `Bearer ${key}` } });
  expect(old.status()).toBe(409);
  expect(((await old.json()) as { error: string }).error).toContain('same version of Maypole');
  await request.delete(`/api/people/keys/${id}`);
});

test('it is told beforehand what all would take, and the sample is not made again', async ({ page }) => {
  await openPiece(page, { ...smallPiece('Estimated', 12), format: { width: 96, height: 96 } });
  const drawer = await openDeliver(page);
  await addOutput(page, 'MP4 movie');
  await drawer.getByRole('button', { name: 'Estimate' }).click();
  const told = drawer.getByTestId('estimate');
  await expect(told).toContainText(
    /About \d+ (s|min) with one machine like this, .* for frames, at most about .* of files/,
    { timeout: 180_000 },
  );
  await expect(drawer.getByTestId('render')).toHaveCount(0);
  const card = await renderAll(drawer);
  await expect(card.getByRole('button', { name: /^Look at frame/ })).toHaveCount(12);
  const answer = (await (await page.request.get('/api/renders')).json()) as {
    renders: { name: string; estimate: boolean; takenOver: number }[];
  };
  expect(answer.renders.find((r) => r.name === 'Estimated' && !r.estimate)!.takenOver).toBe(3);
});

test(
  'samples are chosen by eye on a frame that is shown as it is delivered, with the map of where they go',
  { tag: '@long' },
  async ({ page }) => {
    const errors = watchErrors(page);
    await openPiece(page, { ...smallPiece('Tried', 12), format: { width: 96, height: 96 } });
    const drawer = await openDeliver(page);
    await drawer.getByLabel('Light', { exact: true }).selectOption('True');
    await typeNumber(drawer, 'Samples', 20);
    await drawer.getByRole('button', { name: 'Try on this frame' }).click();
    const tried = drawer.getByTestId('trying');
    await expect(tried).toContainText('Frame 0 as it is delivered');
    await expect(tried).toContainText(/Done\. At 96 × 96 about \d+ s a frame on this machine/);
    await expect(page.getByTestId('traced')).toHaveText('every pixel is done');
    const picture = page.getByTestId('true-picture');
    const plain = await picture.screenshot();
    await tried.getByRole('checkbox', { name: 'Show where samples go' }).check({ force: true });
    await expect.poll(async () => (await picture.screenshot()).equals(plain)).toBe(false);
    // What is set goes into the picture at once, and one's own settings come back with the view.
    await typeNumber(drawer, 'Samples', 40);
    await expect(page.getByTestId('traced')).toHaveText(/ of 40 samples/);
    await tried.getByRole('button', { name: 'Leave' }).click();
    await expect(tried).toHaveCount(0);
    await expect(page.getByTestId('traced')).toHaveCount(0);
    expect(errors).toEqual([]);
  },
);

test('a tab that is lent draws for others while its page is open', async ({ page }) => {
  const fresh = smallPiece('Lent', 6);
  // One output has the backdrop and the other has not: each frame is drawn both ways.
  const wanted = [newItem(outputs.get('apng'), { clear: true }), newItem(outputs.get('mp4'))];
  const id = await openPiece(page, { ...fresh, format: { width: 64, height: 64 }, outputs: wanted });
  await page.goto('/renders');
  // Browsers that drew a moment ago are still told of for a while.
  const made = await page.request.post('/api/renders', { data: { piece: id, revision: 1 } });
  expect(made.status()).toBe(201);
  const card = page.getByTestId('render').filter({ hasText: 'Lent' }).first();
  await expect(card).toContainText(/Waits for a browser that draws|0 of 6 frames/);
  await page.getByLabel('Lend this browser').check({ force: true });
  await expect(card.getByText(/^Done/)).toBeVisible({ timeout: 180_000 });
  await expect(page.getByTestId('lending')).toContainText('6 frames so far');
  const render = ((await made.json()) as { id: string }).id;
  const { files } = (await (await page.request.get(`/api/renders/${render}`)).json()) as {
    files: { kind: string; state: string; report: { sound: boolean } }[];
  };
  expect(files.map((f) => [f.kind, f.state, f.report.sound])).toEqual([
    ['apng', 'done', true],
    ['mp4', 'done', true],
  ]);
  await page.getByLabel('Lend this browser').uncheck({ force: true });
  const there = await page.getByTestId('render').count();
  await card.getByRole('button', { name: 'Clear Lent' }).click();
  await expect(page.getByTestId('render')).toHaveCount(there - 1);
});

test(
  'a graphics device that goes away in the middle of a render leaves no frame empty',
  { tag: '@long' },
  async ({ playwright }) => {
    // A browser of its own: one that has crashed several times gives no 3D drawing to the tests that follow.
    const { launchOptions, baseURL, viewport, deviceScaleFactor } = test.info().project.use;
    const browser = await playwright.chromium.launch(launchOptions);
    const page = await browser.newPage({ baseURL, viewport, deviceScaleFactor });
    const piece = {
      ...smallPiece('Crashed', 24),
      format: { width: 64, height: 64 },
      outputs: [newItem(outputs.get('apng'))],
    };
    const id = await openPiece(page, piece);
    await page.goto('/renders');
    const made = await page.request.post('/api/renders', { data: { piece: id, revision: 1 } });
    const render = ((await made.json()) as { id: string }).id;
    const now = async () =>
      (await (await page.request.get(`/api/renders/${render}`)).json()) as { state: string; done: number };
    // A page that is still being woken does not hear the click.
    await expect(() => page.getByLabel('Lend this browser').check({ force: true, timeout: 2000 })).toPass();
    // Twice, wherever in a frame it happens to be.
    const session = await browser.newBrowserCDPSession();
    for (const after of [2, 9]) {
      await expect
        .poll(async () => (await now()).done, { timeout: 180_000, intervals: [50] })
        .toBeGreaterThanOrEqual(after);
      await session.send('Browser.crashGpuProcess');
    }
    await expect.poll(async () => (await now()).state, { timeout: 150_000 }).toBe('done');
    for (let frame = 0; frame < 24; frame++) {
      const { data } = PNG.sync.read(await (await page.request.get(`/api/renders/${render}/frames/${frame}`)).body());
      // The ring is red over a pale backdrop: an empty picture has neither.
      let [red, pale] = [0, 0];
      for (let i = 0; i < data.length; i += 4) {
        if (data[i] > 1.5 * data[i + 2] && data[i] > 60) red++;
        if (data[i + 3] === 255 && data[i + 2] > 150) pale++;
      }
      expect([frame, red > 100, pale > 400]).toEqual([frame, true, true]);
    }
    await browser.close();
  },
);

test(
  'a frame that waits is made next by a click; a finished one is compared with that of a render before',
  { tag: '@long' },
  async ({ page }) => {
    const errors = watchErrors(page);
    const piece = smallPiece('Compared', 24);
    const values = { ...piece.render.values, light: 'true', samples: 100, denoise: false };
    await openPiece(page, {
      ...piece,
      format: { width: 128, height: 96 },
      render: { ...piece.render, values },
      outputs: [newItem(outputs.get('png'))],
    });
    const drawer = await openDeliver(page);
    await drawer.getByRole('button', { name: 'Render 24 frames' }).click();
    const card = drawer.getByTestId('render').first();
    await expect(card.getByText(/^[1-3] of 24 frames/)).toBeVisible({ timeout: 60_000 });
    // By itself frame 23 is the last.
    await card.getByRole('button', { name: 'Frame 23 waits; make it next' }).click();
    await expect(card.getByRole('button', { name: 'Look at frame 23' })).toBeVisible({ timeout: 30_000 });
    expect(await card.getByRole('button', { name: /waits; make it next$/ }).count()).toBeGreaterThan(8);
    await expect(card.getByText(/^Done/)).toBeVisible({ timeout: 120_000 });

    await typeNumber(step(page, 'displace'), 'Height', 0.4);
    await typeNumber(drawer, 'Samples', 8);
    const again = await renderAll(drawer);
    await again.getByRole('button', { name: 'Look at frame 6' }).click();
    const viewer = page.getByRole('dialog', { name: 'Compared, frame 6' });
    await viewer.getByLabel('Compare with').selectOption({ index: 1 });
    await viewer.getByRole('radio', { name: 'Difference' }).click({ force: true });
    const light = await viewer
      .getByRole('img', { name: 'What differs, on black' })
      .evaluate((img) => getComputedStyle(img).mixBlendMode);
    expect(light).toBe('difference');
    const seen = await viewer.getByRole('img', { name: 'What differs, on black' }).boundingBox();
    expect(seen!.height).toBeGreaterThan(200);
    expect(seen!.width / seen!.height).toBeCloseTo(128 / 96, 2);
    await viewer.getByRole('button', { name: 'Frame after' }).click();
    await expect(page.getByRole('dialog', { name: 'Compared, frame 7' })).toBeVisible();
    expect(errors).toEqual([]);
  },
);
