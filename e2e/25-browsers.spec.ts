import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { readPiece } from '@maypole/core/piece/read';
import type { Piece } from '@maypole/core/piece/piece';
import puppeteer, { type Browser as Firefox, type Page as FirefoxPage } from 'puppeteer-core';
import { PNG } from 'pngjs';
import { addOutput, openDeliver, renderAll, save } from './delivering';
import { chromium, expect, test, type Browser, type Page } from './test';
import { openPiece, pictureReady, probe, putPiece, step, stillPicture, typeNumber, watchErrors } from './helpers';

const DEMO = path.join(import.meta.dirname, '../demo');
/** Clear glass over noise, copies, and a finish with a pattern. */
const DEMOS = ['dew-point', 'rain-gauge', 'gimbal'];

/** Demo pieces, by the ends of their files' names. */
function demoPieces(): Piece[] {
  const files = readdirSync(DEMO);
  return DEMOS.map((name) => {
    const file = files.find((f) => f.endsWith(`-${name}.maypole.json`))!;
    const read = readPiece(readFileSync(path.join(DEMO, file), 'utf8'));
    if (!read.ok) throw new Error(read.message);
    return read.piece;
  });
}

/** Mean difference of two pictures, 0…255. */
function difference(a: Buffer, b: Buffer): number {
  const [one, other] = [PNG.sync.read(a), PNG.sync.read(b)];
  expect([one.width, one.height]).toEqual([other.width, other.height]);
  let sum = 0;
  for (let i = 0; i < one.data.length; i++) sum += Math.abs(one.data[i] - other.data[i]);
  return sum / one.data.length;
}

test.describe('WebGPU, which software drawing never asks for', { tag: '@long' }, () => {
  const COMMON = [
    '--no-sandbox',
    '--disable-quic',
    '--use-angle=swiftshader',
    '--enable-unsafe-swiftshader',
    '--enable-unsafe-webgpu',
    '--enable-features=Vulkan,WebGPU',
    '--use-vulkan=swiftshader',
    '--use-webgpu-adapter=swiftshader',
  ];
  const open: Browser[] = [];
  test.afterAll(() => Promise.all(open.map((b) => b.close())));

  async function webGpuPage(baseURL: string, args: readonly string[] = []): Promise<Page> {
    const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: [...COMMON, ...args] });
    open.push(browser);
    return browser.newPage({ baseURL, viewport: { width: 1280, height: 800 }, deviceScaleFactor: 0.25 });
  }

  test('every formula, light and noise agrees', async ({ baseURL }) => {
    const page = await webGpuPage(baseURL!);
    // WebGL draws the other renderer of the comparison, so the page must not learn that it is software.
    await page.addInitScript(() => {
      const plain = WebGL2RenderingContext.prototype.getParameter;
      const UNMASKED_RENDERER_WEBGL = 0x9246;
      WebGL2RenderingContext.prototype.getParameter = function (name: number) {
        return name === UNMASKED_RENDERER_WEBGL ? 'A graphics card' : plain.call(this, name);
      };
      const gpu = (navigator as unknown as { gpu: { requestAdapter(): Promise<object> } }).gpu;
      const ask = gpu.requestAdapter.bind(gpu);
      Object.assign(window, { adapters: 0 });
      gpu.requestAdapter = (...args) => {
        (window as unknown as { adapters: number }).adapters++;
        return ask(...args);
      };
    });
    await page.goto('/check');
    await expect(page.getByTestId('verdict')).toHaveAttribute('data-state', /agree|differ/, { timeout: 300_000 });
    await expect(page.getByTestId('verdict')).toContainText('agree');
    expect(await page.evaluate(() => (window as unknown as { adapters: number }).adapters)).toBeGreaterThan(0);
  });

  test('three pieces look as in WebGL, are edited, played, traced and delivered', async ({ page: webGl, baseURL }) => {
    // Without WebGL nothing but WebGPU can have drawn.
    const page = await webGpuPage(baseURL!, ['--disable-webgl2']);
    const errors = watchErrors(page);
    // As many sub-frames as a graphics card gets take long in software.
    for (const p of [page, webGl]) await p.setViewportSize({ width: 1024, height: 640 });
    for (const piece of demoPieces()) {
      const id = await putPiece(page, piece);
      await page.goto(`/piece/${id}`);
      await pictureReady(page);
      await webGl.goto(`/piece/${id}`);
      await pictureReady(webGl);
      expect(difference(await stillPicture(page), await stillPicture(webGl)), piece.name).toBeLessThan(3);
    }
    await openPiece(page, {
      ...demoPieces()[0],
      name: 'By WebGPU',
      loop: { frames: 6, fps: 12 },
      format: { width: 64, height: 64 },
    });
    const before = await stillPicture(page);
    await typeNumber(step(page, 'torus'), 'Pipe radius', 0.3);
    await expect(page.getByText('Saved', { exact: true })).toBeVisible();
    await pictureReady(page);
    expect(difference(before, await stillPicture(page))).toBeGreaterThan(3);
    const canvas = page.getByTestId('picture');
    const drawn = Number(await canvas.getAttribute('data-drawn'));
    await page.keyboard.press('Space');
    await expect.poll(async () => Number(await canvas.getAttribute('data-drawn'))).toBeGreaterThan(drawn + 5);
    await page.keyboard.press('Space');
    await page.getByRole('radiogroup', { name: 'Light' }).getByRole('radio', { name: 'True' }).click();
    await expect(page.getByTestId('traced')).toHaveText(/samples|every pixel/);
    await expect(page.getByTestId('true-picture')).toBeVisible();
    const drawer = await openDeliver(page);
    await addOutput(page, 'MP4 movie');
    const card = await renderAll(drawer, 300_000);
    const file = await save(page, card, 'MP4 movie', mkdtempSync(path.join(os.tmpdir(), 'maypole-webgpu-')));
    expect(probe(file)).toMatchObject({ nb_read_frames: '6' });
    expect(errors).toEqual([]);
  });
});

test.describe('Firefox', { tag: '@long' }, () => {
  const running: { browsers: Firefox[]; screen?: ChildProcess } = { browsers: [] };
  test.afterAll(async () => {
    for (const browser of running.browsers) await browser.close();
    running.screen?.kill();
  });

  /** A screen without a machine's own, on which Mesa draws in software; gives its name. */
  function virtualScreen(): Promise<string> {
    running.screen = spawn('/usr/bin/Xvfb', ['-displayfd', '1', '-screen', '0', '1400x1000x24', '-nolisten', 'tcp'], {
      stdio: ['ignore', 'pipe', 'ignore'],
    });
    return new Promise((done, failed) => {
      running.screen!.stdout!.once('data', (number: Buffer) => done(`:${number.toString().trim()}`));
      running.screen!.once('exit', () => failed(new Error('Xvfb ended at once.')));
    });
  }

  async function firefoxPage(display: string | null): Promise<{ page: FirefoxPage; errors: string[] }> {
    const browser = await puppeteer.launch({
      browser: 'firefox',
      executablePath: '/usr/bin/firefox-esr',
      headless: display === null,
      args: ['--width=1280', '--height=900'],
      env: {
        ...process.env,
        HOME: mkdtempSync(path.join(os.tmpdir(), 'maypole-firefox-')),
        ...(display && { DISPLAY: display }),
      },
    });
    running.browsers.push(browser);
    const page = await browser.newPage();
    await page.setViewport({ width: 1280, height: 800 });
    page.setDefaultTimeout(180_000);
    const errors: string[] = [];
    page.on('pageerror', (e) => errors.push(String(e)));
    return { page, errors };
  }

  /** The number that a canvas of the page tells tests under a name. */
  const told = (page: FirefoxPage, name: string) =>
    page.$eval('canvas[data-testid=picture]', (canvas, n) => Number((canvas as HTMLCanvasElement).dataset[n]), name);
  const still = (page: FirefoxPage) =>
    page.waitForSelector('canvas[data-testid=picture][data-complete=true][data-still=true]');

  test('three pieces are drawn, edited, played, traced and delivered; every formula agrees', async ({
    page: other,
    baseURL,
  }) => {
    const { page, errors } = await firefoxPage(await virtualScreen());
    for (const piece of demoPieces()) {
      await page.goto(`${baseURL}/piece/${await putPiece(other, piece)}`);
      await still(page);
      const picture = PNG.sync.read(Buffer.from(await (await page.$('[data-testid=viewport]'))!.screenshot()));
      const colours = new Set<number>();
      for (let i = 0; i < picture.data.length; i += 4) colours.add(picture.data.readUInt32LE(i));
      // A lit form over its backdrop has many tones.
      expect(colours.size, piece.name).toBeGreaterThan(500);
    }
    const small = {
      ...demoPieces()[0],
      name: 'By Firefox',
      loop: { frames: 6, fps: 12 },
      format: { width: 64, height: 64 },
    };
    await page.goto(`${baseURL}/piece/${await putPiece(other, small)}`);
    await still(page);
    const drawn = await told(page, 'drawn');
    await page.locator('[data-testid=step-torus] ::-p-aria([name="Pipe radius"][role="spinbutton"])').click();
    await page.keyboard.type('0.3');
    await page.keyboard.press('Enter');
    await page.waitForSelector('::-p-text(Saved)');
    await expect.poll(() => told(page, 'drawn')).toBeGreaterThan(drawn);
    await still(page);
    const edited = await told(page, 'drawn');
    await page.locator('[data-testid=viewport]').click();
    await page.keyboard.press(' ');
    await expect.poll(() => told(page, 'drawn')).toBeGreaterThan(edited + 5);
    await page.keyboard.press(' ');
    await page.locator('::-p-aria([name="True"][role="radio"])').click();
    await page.waitForSelector('canvas[data-testid=true-picture]');
    await page.locator('::-p-aria([name="Deliver"][role="button"])').click();
    await page.locator('::-p-aria([name="Add output"][role="button"])').click();
    await page.locator('[role=menuitem] ::-p-text(256 colours)').click();
    await page.locator('::-p-aria([name="Render 6 frames"][role="button"])').click();
    await page.waitForSelector('[data-testid=render] ::-p-text(Done)');
    await page.goto(`${baseURL}/check`);
    await page.waitForSelector('[data-testid=verdict][data-state=agree]');
    expect(errors).toEqual([]);
  });

  test('without any 3D drawing true light draws the picture, and the page says why', async ({
    page: other,
    baseURL,
  }) => {
    const { page, errors } = await firefoxPage(null);
    expect(await page.evaluate(() => document.createElement('canvas').getContext('webgl2'))).toBeNull();
    await page.goto(`${baseURL}/piece/${await putPiece(other, demoPieces()[0])}`);
    await page.waitForSelector('canvas[data-testid=true-picture]');
    await page.waitForSelector('::-p-text(No quick light here)');
    await page.locator('::-p-aria([name="Why?"][role="button"])').click();
    await page.waitForSelector('::-p-text(hardware acceleration)');
    // The picture stays while it is turned, and another follows.
    const picture = await (await page.$('[data-testid=viewport]'))!.screenshot();
    await page.focus('[data-testid=viewport]');
    await page.keyboard.press('ArrowLeft');
    expect(await page.$$('canvas[data-testid=true-picture]')).toHaveLength(1);
    await expect
      .poll(async () =>
        difference(Buffer.from(picture), Buffer.from(await (await page.$('[data-testid=viewport]'))!.screenshot())),
      )
      .toBeGreaterThan(1);
    expect(errors).toEqual([]);
  });
});
