import { chromium } from 'playwright-core';
import type { Row } from './table';

/**
 * What a sub-frame takes, in the browser, where an application runs (MAYPOLE_ADDRESS): scenes that
 * differ in one thing each, beside the drawing library alone.
 */
export async function drawing(): Promise<Row[]> {
  const address = process.env.MAYPOLE_ADDRESS;
  if (!address) return [];
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--use-angle=swiftshader', '--enable-unsafe-swiftshader'],
  });
  try {
    const page = await browser.newPage();
    await page.goto(`${address}/check`);
    await page.getByRole('button', { name: 'Measure' }).click({ timeout: 120_000 });
    await page.waitForSelector('[data-testid=speed][data-state=done]', { timeout: 300_000 });
    const rows = await page.getByTestId('speed').getByRole('row').all();
    const read = await Promise.all(
      rows.map(async (r) => (await r.getByRole('cell').allInnerTexts()) as [string, string]),
    );
    const [[peerName, peer], ...ours] = read;
    const library = Number.parseFloat(peer);
    return ours.map(([name, time], i) => {
      const own = Number.parseFloat(time);
      // Only what draws the same is compared.
      const same = i === 1;
      return {
        name: `sub-frame: ${name}`,
        ours: own,
        peer: same ? library : null,
        peerName: same ? peerName : '',
        unit: 'ms',
        ratio: same ? own / library : null,
      };
    });
  } finally {
    await browser.close();
  }
}
