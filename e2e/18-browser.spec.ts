import { expect, test, type Page } from './test';
import { openPiece, pictureReady, smallPiece, step, typeNumber } from './helpers';

const saved = (page: Page) => expect(page.getByText('Saved', { exact: true })).toBeVisible({ timeout: 15_000 });

test('a browser that keeps nothing: edits are saved, nothing is saved twice, and it is said once where it matters', async ({
  page,
}) => {
  await page.addInitScript(() => {
    const none = () => {
      throw new DOMException('Blocked.', 'SecurityError');
    };
    for (const name of ['localStorage', 'sessionStorage'])
      Object.defineProperty(window, name, { configurable: true, get: none });
    Object.defineProperty(window, 'indexedDB', { configurable: true, get: none });
  });
  const errors: string[] = [];
  page.on('pageerror', (e) => errors.push(e.message));
  const id = await openPiece(page, smallPiece('Keepless'));
  for (const radius of [1.1, 1.2, 1.3]) {
    await typeNumber(step(page, 'torus'), 'Ring radius', radius);
    await saved(page);
  }
  await page.waitForTimeout(1500);
  const revisions = async () =>
    ((await (await page.request.get(`/api/pieces/${id}/revisions`)).json()) as { revisions: unknown[] }).revisions
      .length;
  expect(await revisions()).toBe(4);
  await page.route('**/api/pieces/*', (route) =>
    route.request().method() === 'PUT' ? route.abort() : route.continue(),
  );
  await typeNumber(step(page, 'torus'), 'Ring radius', 1.4);
  await expect(page.getByText(/leave this page open until it is saved/)).toHaveCount(1);
  await page.unroute('**/api/pieces/*');
  await saved(page);
  expect(await revisions()).toBe(5);
  expect(errors).toEqual([]);
});

/** How often pieces are opened and left; a hundred are tried by MAYPOLE_OPENED=100. */
const ROUNDS = Number(process.env.MAYPOLE_OPENED ?? 6);

/** Notes each graphics context that the page itself makes, beside those of its workers, which end with them. */
async function countContexts(page: Page): Promise<() => Promise<number>> {
  await page.addInitScript(() => {
    const made: WeakRef<object>[] = [];
    const plain = HTMLCanvasElement.prototype.getContext;
    HTMLCanvasElement.prototype.getContext = function (this: HTMLCanvasElement, ...args: unknown[]) {
      const context = (plain as (...args: unknown[]) => object | null).apply(this, args);
      if (context && args[0] !== '2d') made.push(new WeakRef(context));
      return context;
    } as typeof plain;
    Object.assign(window, { contextsAlive: () => made.filter((c) => c.deref()).length });
  });
  const cdp = await page.context().newCDPSession(page);
  return async () => {
    await cdp.send('HeapProfiler.collectGarbage');
    return page.evaluate(() => (window as unknown as { contextsAlive(): number }).contextsAlive());
  };
}

test(
  'pieces that are opened and left leave no workers and no graphics contexts behind',
  { tag: '@long' },
  async ({ page }) => {
    test.setTimeout(120_000 + ROUNDS * 10_000);
    const contexts = await countContexts(page);
    const ids: string[] = [];
    for (const name of ['One', 'Two', 'Three']) {
      const made = await page.request.post('/api/pieces', {
        data: { source: JSON.stringify(smallPiece(`Opened ${name}`)) },
      });
      ids.push(((await made.json()) as { id: string }).id);
    }
    await page.goto('/');
    const counts: number[] = [];
    for (let i = 0; i < ROUNDS; i++) {
      // By the shelf, as one does: the page itself is not loaded anew.
      const name = `Opened ${['One', 'Two', 'Three'][i % 3]}`;
      await page.getByLabel('Find a piece').fill(name);
      await page
        .getByRole('link', { name: `Open ${name}` })
        .first()
        .click();
      await pictureReady(page);
      counts.push(page.workers().length);
      await page.getByRole('link', { name: 'Back to the shelf' }).click();
      await expect(page.getByRole('heading', { name: 'Shelf' })).toBeVisible();
    }
    // Some are begun later than others, and three are what draws a sheet, made when nothing else is to do: it is never more
    // than one set.
    expect(Math.max(...counts)).toBeLessThanOrEqual(Math.min(...counts.slice(0, 3)) + 5);
    await expect.poll(() => page.workers().length).toBeLessThanOrEqual(counts[0]);
    // The picture is drawn in a worker; what the page may have is one set at most.
    expect(await contexts()).toBeLessThanOrEqual(1);
  },
);
