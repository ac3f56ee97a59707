import { chromium } from 'playwright-core';
import { newPiece, newRibbon, newStep } from '@maypole/core/piece/piece';
import { evaluateRibbon } from '@maypole/core/evaluate/ribbon';
import { MeshCache } from '@maypole/core/evaluate/mesh-cache';
import { drawBuffers } from '@maypole/core/shape/drawable';
import { writePiece } from '@maypole/core/piece/read';
import { alone, type Row } from './table';

declare global {
  /** Kept in the page that is measured. */
  var found: { moved: number; open: boolean; arrived: number[]; shown: number[] };
}

/** 25 600 vertices: torus, displace, smooth, twist. */
function piece() {
  const ribbon = newRibbon('torus', 0, 'Ring');
  const steps = [
    newStep('torus', { ringSegments: 160, pipeSegments: 160 }),
    newStep('displace', { scale: 0.5 }),
    newStep('smooth', { iterations: 4 }),
    newStep('twist', { angle: 30, axis: 'x' }),
  ];
  return { ...newPiece('Bench'), ribbons: [{ ...ribbon, steps }] };
}

/**
 * From a change of value to new geometry: in Node for the evaluation alone; and, where an
 * application runs (MAYPOLE_ADDRESS), in the browser from a movement of the pointer to the new shape in the page
 * that draws, and to the end of drawing it, which without a graphics card is the longer part.
 */
export async function scrub(): Promise<Row[]> {
  const doc = piece();
  const rows: Row[] = [];
  const cache = new MeshCache();
  const times: number[] = [];
  for (let i = 0; i < 30; i++) {
    const steps = doc.ribbons[0].steps.map((s, k) =>
      k === 1 ? { ...s, values: { ...s.values, height: 0.2 + i * 0.01 } } : s,
    );
    const start = performance.now();
    drawBuffers(evaluateRibbon({ ...doc.ribbons[0], steps }, doc.loop, 0, 'draft', cache).mesh);
    times.push(performance.now() - start);
  }
  rows.push(alone('scrub a height on 25.6k vertices, evaluation (limit 100)', median(times)));

  const address = process.env.MAYPOLE_ADDRESS;
  if (!address) return rows;
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--use-angle=swiftshader',
      '--enable-unsafe-swiftshader',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
    ],
  });
  try {
    // The picture is a narrow strip, so that drawing in software does not hide what is measured.
    const page = await browser.newPage({ viewport: { width: 420, height: 720 } });
    // The TypeScript runner marks named functions with a helper that a page does not have.
    await page.addInitScript({ content: 'globalThis.__name = (f) => f;' });
    const { id } = (await (
      await page.request.post(`${address}/api/pieces`, { data: { source: writePiece(doc) } })
    ).json()) as { id: string };
    await page.goto(`${address}/piece/${id}`);
    await page.waitForSelector('canvas[data-complete=true]');
    await page.waitForTimeout(12_000);
    const field = page.getByRole('spinbutton', { name: 'Height', exact: true });
    await field.scrollIntoViewIfNeeded();
    const box = (await field.boundingBox())!;
    await page.evaluate(() => {
      // From each movement of the pointer to the first shape after it, and to its picture.
      const canvas = document.querySelector<HTMLCanvasElement>('canvas[data-testid=picture]')!;
      const found = { moved: 0, open: false, arrived: [] as number[], shown: [] as number[] };
      globalThis.found = found;
      document.addEventListener(
        'pointermove',
        () => Object.assign(found, { moved: performance.now(), open: true }),
        true,
      );
      new MutationObserver(() => {
        if (!found.open || Number(canvas.dataset.arrived) < found.moved || canvas.dataset.complete !== 'true') return;
        found.open = false;
        found.arrived.push(Number(canvas.dataset.arrived) - found.moved);
        found.shown.push(performance.now() - found.moved);
      }).observe(canvas, { attributes: true, attributeFilter: ['data-drawn'] });
    });
    const [x, y] = [box.x + 30, box.y + 12];
    await page.mouse.move(x, y);
    await page.mouse.down();
    for (let i = 1; i <= 30; i++) {
      await page.mouse.move(x + 4 + 3 * i, y);
      // Within the pause after which frames ahead would be worked out: this is one long drag.
      await page.waitForTimeout(120);
    }
    await page.mouse.up();
    const found = await page.evaluate(() => globalThis.found);
    await page.request.delete(`${address}/api/pieces/${id}`);
    rows.push(alone('scrub in the browser, movement to new shape ready to draw (limit 100)', median(found.arrived)));
    rows.push(alone('  the same, to the end of drawing a strip of it in software', median(found.shown)));
  } finally {
    await browser.close();
  }
  return rows;
}

function median(values: number[]): number {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];
}
