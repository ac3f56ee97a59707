import { PIECE_VERSION } from '@maypole/core/piece/piece';
import { writePiece } from '@maypole/core/piece/read';
import { chromium, expect, test } from './test';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { openPiece, pictureReady, smallPiece, step, typeNumber, watchErrors } from './helpers';

const card = (page: import('@playwright/test').Page, name: string) => page.getByRole('article', { name, exact: true });
const saved = (page: import('@playwright/test').Page) => expect(page.getByText('Saved', { exact: true })).toBeVisible();

test('two tabs on one piece: the later save is told, and both versions are kept', async ({ page, context }) => {
  const id = await openPiece(page, smallPiece('Shared'));
  const other = await context.newPage();
  await other.goto(`/piece/${id}`);
  await pictureReady(other);
  await typeNumber(step(page, 'torus'), 'Ring radius', 1.5);
  await saved(page);
  await expect
    .poll(async () => ((await (await page.request.get(`/api/pieces/${id}`)).json()) as { revision: number }).revision)
    .toBe(2);
  await typeNumber(step(other, 'torus'), 'Ring radius', 2.5);
  const dialog = other.getByRole('alertdialog', { name: 'Changed elsewhere' });
  await expect(dialog).toContainText('as version 2');
  await expect(dialog).toContainText('kept as version 3');
  const revisions = (await (await page.request.get(`/api/pieces/${id}/revisions`)).json()) as {
    revisions: { number: number; aside: boolean }[];
  };
  expect(revisions.revisions.map((r) => [r.number, r.aside])).toEqual([
    [3, true],
    [2, false],
    [1, false],
  ]);

  await dialog.getByRole('button', { name: 'Open the other' }).click();
  await expect(step(other, 'torus').getByRole('spinbutton', { name: 'Ring radius' })).toHaveAttribute(
    'aria-valuenow',
    '1.5',
  );
  await typeNumber(step(other, 'torus'), 'Ring radius', 3);
  await saved(other);

  // Now the first tab is late, and goes on with its own.
  await typeNumber(step(page, 'torus'), 'Ring radius', 0.5);
  await page.getByRole('button', { name: 'Go on with mine' }).click();
  await expect(page.getByText('Your version goes on.')).toBeVisible();
  await saved(page);
  const head = (await (await page.request.get(`/api/pieces/${id}`)).json()) as { source: string };
  expect(JSON.parse(head.source).ribbons[0].steps[0].values.ringRadius).toBe(0.5);
});

test('work is not lost when the server is away', async ({ page }) => {
  const id = await openPiece(page, smallPiece('Stormy'));
  await page.route('**/api/pieces/*', (route) =>
    route.request().method() === 'PUT' ? route.abort() : route.continue(),
  );
  await typeNumber(step(page, 'torus'), 'Ring radius', 1.75);
  await expect(page.getByText('Not saved: server away')).toBeVisible();
  await expect(page.getByText(/server does not answer.*what you made is still here/)).toBeVisible();
  // The tab is closed before the server is back; the next visit has the work again.
  await page.unroute('**/api/pieces/*');
  const later = await page.context().newPage();
  await page.close();
  await later.goto(`/piece/${id}`);
  await pictureReady(later);
  await expect(step(later, 'torus').getByRole('spinbutton', { name: 'Ring radius' })).toHaveAttribute(
    'aria-valuenow',
    '1.75',
  );
  await saved(later);
});

test('the shelf: playing thumbnails, rename, duplicate, delete with undo, find', async ({ page }) => {
  const errors = watchErrors(page);
  await openPiece(page, smallPiece('Weathercock'));
  await page.goto('/');
  const mine = card(page, 'Weathercock');
  await expect(mine.getByTestId('thumbnail')).toHaveAttribute('data-ready', 'true', { timeout: 180_000 });
  const strip = mine.locator('img');
  const at = () => strip.evaluate((e) => e.style.transform);
  const first = await at();
  await expect.poll(at).not.toBe(first);
  await expect(mine.getByText('closed')).toBeVisible();

  await mine.getByRole('button', { name: 'More for Weathercock' }).click();
  await page.getByRole('menuitem', { name: 'Rename' }).click();
  await page.getByRole('textbox', { name: 'New name' }).fill('Wind Vane');
  await page.keyboard.press('Enter');
  await expect(card(page, 'Wind Vane')).toBeVisible();
  await card(page, 'Wind Vane').getByRole('button', { name: /^More/ }).click();
  await page.getByRole('menuitem', { name: 'Duplicate' }).click();
  await expect(card(page, 'Wind Vane copy')).toBeVisible();
  await card(page, 'Wind Vane copy').getByRole('button', { name: /^More/ }).click();
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await expect(card(page, 'Wind Vane copy')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(card(page, 'Wind Vane copy')).toBeVisible();
  await page.getByRole('textbox', { name: 'Find a piece' }).fill('vane copy');
  await expect(page.getByRole('article')).toHaveCount(1);
  await page.getByRole('textbox', { name: 'Find a piece' }).fill('no such thing');
  await expect(page.getByText('No piece of that name')).toBeVisible();
  expect(errors).toEqual([]);
});

test('pieces go out and come in as files; broken and newer ones are told apart', async ({ page }) => {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'maypole-files-'));
  const file = (name: string, text: string) => {
    writeFileSync(path.join(folder, name), text);
    return path.join(folder, name);
  };
  const piece = smallPiece('Carried Over');
  await page.goto('/');
  await page.getByTestId('import').setInputFiles(file('good.json', writePiece(piece)));
  await expect(page.getByText('good.json is on the shelf.')).toBeVisible();
  await card(page, 'Carried Over').getByRole('button', { name: /^More/ }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: 'Export' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('carried-over.maypole.json');
  await download.saveAs(path.join(folder, 'out.json'));
  expect(readFileSync(path.join(folder, 'out.json'), 'utf8')).toBe(writePiece(piece));

  await page
    .getByTestId('import')
    .setInputFiles(file('bad.json', writePiece(piece).replace('"ringSegments": 24', '"ringSegments": 1')));
  await expect(
    page.getByText(
      /bad\.json: At ribbons\[0\]\.steps\[0\]\.values\.ringSegments: 1 is below the smallest Ring faces, 3/,
    ),
  ).toBeVisible();

  const newer = `{"maypole":"piece","version":${PIECE_VERSION + 1},"name":"From Tomorrow", "shape":"unknown"}`;
  await page.getByTestId('import').setInputFiles(file('newer.json', newer));
  const strange = card(page, 'From Tomorrow');
  await expect(strange).toContainText(`made by a newer Maypole (version ${PIECE_VERSION + 1}`);
  await strange.getByRole('link', { name: 'Open From Tomorrow' }).click();
  await expect(page.getByRole('heading', { name: 'Made by a newer Maypole' })).toBeVisible();
  const [kept] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Export it as it is' }).click(),
  ]);
  await kept.saveAs(path.join(folder, 'kept.json'));
  expect(readFileSync(path.join(folder, 'kept.json'), 'utf8')).toBe(newer);
});

test('the service keeps strangers out and its workings to itself', async ({ page, request, baseURL }) => {
  const home = await request.get('/');
  const headers = home.headers();
  expect(headers['content-security-policy']).toContain("default-src 'self'");
  expect(headers['cross-origin-opener-policy']).toBe('same-origin');
  expect(headers['cross-origin-embedder-policy']).toBe('require-corp');
  expect(headers['x-powered-by']).toBeUndefined();
  expect((await request.get('/', { headers: { Host: 'evil.example' } })).status()).toBe(403);
  const post = await request.post('/api/pieces', {
    headers: { Origin: 'http://evil.example' },
    data: { source: '{}' },
  });
  expect(post.status()).toBe(403);
  const broken = await request.post('/api/pieces', {
    headers: { 'Content-Type': 'application/json' },
    data: '{"source":',
  });
  expect(broken.status()).toBe(400);
  expect(await broken.text()).not.toMatch(/at .*\.(ts|js):/);
  expect((await request.get('/api/pieces/not-an-id')).status()).toBe(400);
  expect((await request.get('/api/pieces/00000000-0000-4000-8000-000000000000')).status()).toBe(404);
  const count = async () => ((await (await request.get('/api/pieces')).json()) as { pieces: unknown[] }).pieces.length;
  const before = await count();
  const large = await request.post('/api/pieces', { data: { source: 'x'.repeat(17 * 1024 * 1024) } }).catch(() => null);
  // The connection may be cut while the body is still being sent; either way nothing is taken in.
  expect(large?.status() ?? 413).toBe(413);
  expect(await count()).toBe(before);
  expect(baseURL).toContain('127.0.0.1');
  await page.goto('/');
  expect(await page.evaluate(() => globalThis.crossOriginIsolated)).toBe(true);
  const missing = await page.goto('/piece/00000000-0000-4000-8000-000000000000');
  expect(missing!.status()).toBe(404);
  await expect(page.getByText('There is nothing here')).toBeVisible();
});

test('without 3D drawing true light draws, and the page says what to do', async ({ baseURL }) => {
  // A browser in which neither pages nor workers have it.
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-software-rasterizer'],
  });
  const page = await browser.newPage({ baseURL });
  const made = await page.request.post('/api/pieces', { data: { source: writePiece(smallPiece('Dark')) } });
  await page.goto(`/piece/${((await made.json()) as { id: string }).id}`);
  await expect(page.getByRole('status').filter({ hasText: 'No quick light here' })).toBeVisible();
  await page.getByRole('button', { name: 'Why?' }).click();
  await expect(page.getByText('Turn on hardware acceleration')).toBeVisible();
  await expect(page.getByTestId('true-picture')).toBeVisible();
  await browser.close();
});

test('a folder of pieces comes in at once; a broken one is told, and what is no piece passed over', async ({
  page,
}) => {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'maypole-folder-'));
  const inner = path.join(folder, 'autumn');
  mkdirSync(inner);
  for (const name of ['Sleet One', 'Sleet Two', 'Sleet Three'])
    writeFileSync(path.join(name.endsWith('One') ? folder : inner, `${name}.json`), writePiece(smallPiece(name)));
  writeFileSync(path.join(inner, 'torn.json'), '{ "maypole": "piece", ');
  writeFileSync(path.join(folder, 'notes.txt'), 'no piece');
  await page.goto('/');
  await page.getByTestId('import-folder').setInputFiles(folder);
  await expect(page.getByText('3 pieces are on the shelf.')).toBeVisible();
  await expect(page.getByText(/^torn\.json: /)).toBeVisible();
  for (const name of ['Sleet One', 'Sleet Two', 'Sleet Three']) await expect(card(page, name)).toBeVisible();
  rmSync(folder, { recursive: true, force: true });
});
