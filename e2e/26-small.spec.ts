import { expectNone } from './access-rules';
import { expect, test, type Page } from './test';
import { openPiece, smallPiece, step, watchErrors } from './helpers';

/** Controls that no scrolling brings into the window. */
const beyond = (page: Page) =>
  page.evaluate(() => {
    const scrolls = (e: Element, way: 'X' | 'Y') => {
      for (let p = e.parentElement; p; p = p.parentElement)
        if (['auto', 'scroll'].includes(getComputedStyle(p)[`overflow${way}`])) return true;
      return false;
    };
    return [...document.querySelectorAll<HTMLElement>('button, input, select, a, [role=spinbutton], [role=slider]')]
      .filter((e) => e.offsetParent !== null && e.getBoundingClientRect().width > 1)
      .filter((e) => {
        const r = e.getBoundingClientRect();
        const [x, y] = [(r.left + r.right) / 2, (r.top + r.bottom) / 2];
        return ((x < 0 || x > innerWidth) && !scrolls(e, 'X')) || ((y < 0 || y > innerHeight) && !scrolls(e, 'Y'));
      })
      .map((e) => e.ariaLabel ?? e.textContent);
  });

/** Controls in sight that are smaller than so many pixels either way. */
const smallerThan = (page: Page, pixels: number) =>
  page.evaluate((least) => {
    const controls = [
      ...document.querySelectorAll<HTMLElement>('button, select, [role=spinbutton], [role=switch], [role=menuitem]'),
    ];
    return controls
      .filter((e) => e.offsetParent !== null)
      .map((e) => ({ name: e.ariaLabel ?? e.textContent, box: e.getBoundingClientRect() }))
      .filter(({ box }) => box.height > 0 && (box.height < least - 0.5 || box.width < least - 0.5))
      .map(({ name, box }) => `${name}: ${Math.round(box.width)} × ${Math.round(box.height)}`);
  }, pixels);

for (const [width, height] of [
  [820, 1180],
  [640, 400],
  [390, 844],
])
  test(`at ${width} × ${height} with a finger everything is reached: looking, playing, a value, delivering`, async ({
    browser,
    baseURL,
  }) => {
    const context = await browser.newContext({
      baseURL,
      viewport: { width, height },
      hasTouch: true,
      isMobile: true,
      deviceScaleFactor: 0.5,
    });
    const page = await context.newPage();
    const errors = watchErrors(page);
    await openPiece(page, smallPiece(`Small ${width}`));
    const parts = page.getByRole('navigation', { name: 'Parts of the editor' });
    const part = (name: string) => parts.getByRole('button', { name, exact: true });
    const inOrder = async (where: string) => {
      expect(await beyond(page), where).toEqual([]);
      expect(await smallerThan(page, 40), where).toEqual([]);
      expect(await page.evaluate(() => document.documentElement.scrollWidth), where).toBeLessThanOrEqual(width);
    };

    await inOrder('steps');
    const radius = step(page, 'torus').getByRole('spinbutton', { name: 'Pipe radius' });
    await radius.tap();
    await page.getByRole('textbox', { name: 'Pipe radius' }).fill('0.2 to 0.5');
    await page.keyboard.press('Enter');
    await part('Time').tap();
    await expect(page.getByRole('region', { name: 'Round' }).getByText('Torus · Pipe radius')).toBeVisible();
    await inOrder('time');
    await part('Play').tap();
    await expect(part('Pause')).toBeVisible();
    await part('Pause').tap();
    // Once more puts it away: the picture has the whole window.
    const picture = async () => (await page.getByTestId('viewport').boundingBox())!;
    const before = await picture();
    await part('Time').tap();
    await expect.poll(async () => (await picture()).height).toBeGreaterThan(before.height + 50);
    await part('Scene').tap();
    await expect(page.getByRole('complementary', { name: 'Scene' })).toBeVisible();
    await inOrder('scene');
    await page.getByRole('button', { name: 'Deliver', exact: true }).tap();
    const deliver = page.getByRole('complementary', { name: 'Deliver' });
    await deliver.getByRole('button', { name: 'Proof' }).tap();
    await inOrder('deliver');
    await expect(deliver.getByTestId('files-size')).toContainText('Files are 40 × 30');
    await expect(deliver.getByRole('button', { name: 'Render 12 frames' })).toBeEnabled();
    await expectNone(page, 'deliver');
    expect(errors).toEqual([]);
    await context.close();
  });

test('with a mouse no control is smaller than 24 pixels', async ({ page }) => {
  await openPiece(page, smallPiece('Fine'));
  expect(await smallerThan(page, 24)).toEqual([]);
});
