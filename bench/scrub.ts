import { chromium } from 'playwright-core';
import { newPiece, newRibbon, newStep } from '@maypole/core/piece/piece';
import { evaluateRibbon } from '@maypole/core/evaluate/ribbon';
import { MeshCache } from '@maypole/core/evaluate/mesh-cache';
import { drawBuffers } from '@maypole/core/shape/drawable';
import { writePiece } from '@maypole/core/piece/read';
import { alone, type Row } from './table';

/** 25 600 vertices: torus, displace, smooth, twist. */
function piece() {
  const ribbon = newRibbon('torus', 0, 'Ring');
  const steps = [newStep('torus', { ringSegments: 160, pipeSegments: 160 }), newStep('displace', { scale: 0.5 }), newStep('smooth', { iterations: 4 }), newStep('twist', { angle: 30, axis: 'x' })];
  return { ...newPiece('Bench'), ribbons: [{ ...ribbon, steps }] };
}

/**
 * From a change of value to new geometry: in Node for the evaluation alone; and, where an
 * application runs (MAYPOLE_ADDRESS), in the browser from key press to the end of the draw call,
 * the time spent in drawing software left in.
 */
export async function scrub(): Promise<Row[]> {
  const doc = piece();
  const rows: Row[] = [];
  const cache = new MeshCache();
  const times: number[] = [];
  for (let i = 0; i < 30; i++) {
    const steps = doc.ribbons[0].steps.map((s, k) => (k === 1 ? { ...s, values: { ...s.values, height: 0.2 + i * 0.01 } } : s));
    const start = performance.now();
    drawBuffers(evaluateRibbon({ ...doc.ribbons[0], steps }, doc.loop, 0, 'draft', cache).mesh);
    times.push(performance.now() - start);
  }
  rows.push(alone('scrub a height on 25.6k vertices, evaluation (limit 100)', median(times)));

  const address = process.env.MAYPOLE_ADDRESS;
  if (!address) return rows;
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--use-angle=swiftshader', '--enable-unsafe-swiftshader', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'] });
  try {
    const page = await browser.newPage({ viewport: { width: 640, height: 500 } });
    const { id } = (await (await page.request.post(`${address}/api/pieces`, { data: { source: writePiece(doc) } })).json()) as { id: string };
    await page.goto(`${address}/piece/${id}`);
    await page.waitForSelector('canvas[data-complete=true]');
    await page.waitForTimeout(12_000);
    const field = page.getByRole('spinbutton', { name: 'Height', exact: true });
    const samples: { arrived: number; drawn: number; blocked: number }[] = [];
    for (let i = 0; i < 15; i++) {
      await field.focus();
      const handle = await page.evaluateHandle(() => {
        const canvas = document.querySelector<HTMLCanvasElement>('canvas[data-testid=picture]')!;
        const before = Number(canvas.dataset.drawn);
        const start = performance.now();
        let blocked = 0;
        let last = start;
        return {
          result: new Promise<{ arrived: number; drawn: number; blocked: number }>((resolve) => {
            const look = () => {
              const now = performance.now();
              blocked = Math.max(blocked, now - last);
              last = now;
              // The first draw after the change still shows the old shape; complete says the new one is there.
              if (Number(canvas.dataset.drawn) > before && canvas.dataset.complete === 'true' && now - start > 4) resolve({ arrived: now - start, drawn: Number(canvas.dataset.took ?? 0), blocked });
              else setTimeout(look, 1);
            };
            setTimeout(look, 1);
          }),
        };
      });
      await page.keyboard.press('ArrowUp');
      samples.push(await handle.evaluate((h) => h.result));
      await page.waitForTimeout(250);
    }
    await page.request.delete(`${address}/api/pieces/${id}`);
    rows.push(alone('scrub in the browser, key to new shape on screen, drawing included', median(samples.map((s) => s.arrived))));
    rows.push(alone('  of which the last draw call (software drawing)', median(samples.map((s) => s.drawn))));
  } finally {
    await browser.close();
  }
  return rows;
}

function median(values: number[]): number {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];
}
