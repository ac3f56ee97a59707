/**
 * Draws the pictures that demo pieces have on a new shelf: `npm run demo-strips` draws those whose document has
 * changed. The shelf of a temporary Maypole draws them, in Chromium.
 */
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { chromium } from '@playwright/test';
import { Installation } from '../trials/installation';
import { demoFiles, demoMark, demoStrip, STRIPS } from '../web/server/demo/files';
import type { PieceSummary } from '../web/contract/pieces';

const folder = path.join(import.meta.dirname, '../demo');
const list = path.join(STRIPS, 'drawn.json');
mkdirSync(path.dirname(list), { recursive: true });
const drawn: Record<string, string> = existsSync(list) ? JSON.parse(readFileSync(list, 'utf8')) : {};
const sources = new Map(demoFiles(folder).map((f) => [f, readFileSync(path.join(folder, f), 'utf8')]));
/** Milliseconds allowed for all of them with software rendering. */
const LONG = 3_600_000;

// Missing ones are drawn by the browser that shows the shelf.
for (const [file, source] of sources) if (drawn[file] !== demoMark(source)) rmSync(demoStrip(file), { force: true });

const maypole = new Installation();
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--use-angle=swiftshader', '--enable-unsafe-swiftshader'],
});
try {
  await maypole.start();
  const page = await browser.newPage({ viewport: { width: 1280, height: 4000 } });
  await page.goto(maypole.address);
  await page.waitForFunction(
    (count) => document.querySelectorAll('[data-testid=thumbnail][data-ready=true]').length >= count,
    sources.size,
    { timeout: LONG, polling: 1000 },
  );
  const { pieces } = (await (await page.request.get(`${maypole.address}/api/pieces`)).json()) as {
    pieces: readonly PieceSummary[];
  };
  for (const [file, source] of sources) {
    const { name } = JSON.parse(source) as { name: string };
    const piece = pieces.find((p) => p.name === name)!;
    if (existsSync(demoStrip(file))) continue;
    const strip = await page.request.get(`${maypole.address}/api/pieces/${piece.id}/thumbnail`);
    if (!strip.ok()) throw new Error(`${name} has no picture.`);
    writeFileSync(demoStrip(file), await strip.body());
    drawn[file] = demoMark(source);
    console.log(`${name}: drawn.`);
  }
  const known = Object.entries(drawn).filter(([file]) => sources.has(file));
  writeFileSync(list, `${JSON.stringify(Object.fromEntries(known), null, 2)}\n`);
} finally {
  await browser.close();
  maypole.stop();
}
