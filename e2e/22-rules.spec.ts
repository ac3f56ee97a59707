import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Page } from './test';
import { openPiece, smallPiece, step, typeNumber } from './helpers';

/** WCAG 2.2 AA, as axe-core checks it. */
const RULES = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

/**
 * Marked experimental by axe-core itself: it takes a comma in a name ("Twist, 40°") for other words than those that are
 * seen ("Twist 40°"), which WCAG 2.5.3 does not.
 */
const UNSURE = ['label-content-name-mismatch'];

/** Rules that what is dark keeps, or not, by itself. */
const COLOURS = ['color-contrast', 'link-in-text-block'];

/** What fades in is paler for as long as it does: colours are read when everything that moves once has moved. */
async function stoodStill(page: Page): Promise<void> {
  await page.waitForFunction(() =>
    document
      .getAnimations()
      .every((a) => a.playState !== 'running' || a.effect?.getComputedTiming().endTime === Infinity),
  );
}

async function expectNone(page: Page, what: string): Promise<void> {
  await stoodStill(page);
  // There are no frames in our pages, so there is nothing to be put together elsewhere.
  const axe = new AxeBuilder({ page }).setLegacyMode();
  // By night only colours are others.
  const dusk = (await page.locator('html').getAttribute('class'))?.includes('dark');
  const { violations } = await (dusk ? axe.withRules(COLOURS) : axe.withTags(RULES).disableRules(UNSURE)).analyze();
  const said = violations.flatMap((v) =>
    v.nodes.map((n) => `${what}: ${v.id}: ${n.target.join(' ')}: ${n.failureSummary}`),
  );
  expect(said).toEqual([]);
}

for (const mode of ['light', 'dark'] as const)
  test.describe(`in ${mode === 'light' ? 'paper' : 'dusk'}`, () => {
    test.beforeEach(async ({ page }) => {
      await page.addInitScript((theme) => localStorage.setItem('theme', theme), mode);
    });

    test('pages keep the rules of access', async ({ page }) => {
      for (const path of ['/', '/guide', '/guide/place', '/guide/words', '/renders', '/notices', '/check']) {
        await page.goto(path);
        await expect(page.locator('html')).toHaveClass(new RegExp(mode));
        await expectNone(page, path);
      }
      await page.goto('/');
      await page.getByRole('button', { name: 'New loop' }).first().click();
      await expect(page.getByRole('dialog', { name: 'New loop' })).toBeVisible();
      await expectNone(page, 'New loop');
    });

    test('rooms of the editor keep them, too', async ({ page }) => {
      await openPiece(page, smallPiece('Rules'));
      await expectNone(page, 'editor');
      for (const [key, name] of [
        ['s', 'Scene'],
        ['d', 'Deliver'],
        ['h', 'History'],
        ['e', 'Seam'],
      ] as const) {
        await page.keyboard.press(key);
        await expect(page.getByRole('complementary', { name: new RegExp(name) })).toBeVisible();
        await expectNone(page, name);
      }
      await page.keyboard.press('?');
      await expect(page.getByRole('dialog', { name: 'Shortcuts' })).toBeVisible();
      await expectNone(page, 'Shortcuts');
      await page.keyboard.press('Escape');
      // Keys go to what lies on top until it has closed.
      await expect(page.getByRole('dialog', { name: 'Shortcuts' })).toHaveCount(0);
      await page.keyboard.press('Control+k');
      await expect(page.getByRole('dialog', { name: 'Find and do' })).toBeVisible();
      await expectNone(page, 'Find and do');
      await page.keyboard.press('Escape');
      await expect(page.getByRole('dialog', { name: 'Find and do' })).toHaveCount(0);
      await page.keyboard.press('a');
      await expect(page.getByRole('textbox', { name: 'Find a step' })).toBeVisible();
      await expectNone(page, 'Add step');
      await page.keyboard.press('Escape');
      await expect(page.getByRole('textbox', { name: 'Find a step' })).toHaveCount(0);
      await page.getByRole('button', { name: /^Motion of .*Height/i }).click();
      await expectNone(page, 'Motion');
      await page.keyboard.press('w');
      await expect(page.getByRole('region', { name: 'What is this?' })).toBeVisible();
      await expectNone(page, 'What is this?');
      await page.keyboard.press('Escape');
      await typeNumber(step(page, 'displace'), 'Height', 0.3);
      await expect(page.getByText('Saved', { exact: true })).toBeVisible();
      await page.keyboard.press('Escape');
      await page.keyboard.press('m');
      await expect(page.getByTestId('compare')).toContainText('1 thing differs');
      await expectNone(page, 'Compare');
      await page.keyboard.press('Escape');
      await page.keyboard.press('v');
      await expect(page.getByTestId('sheet').getByTestId('tile').nth(3)).toBeVisible({ timeout: 60_000 });
      await page.getByTestId('tile').nth(1).click();
      await expectNone(page, 'Sheet');
    });
  });

test('at twice the size nothing of the shelf, the guide or the editor is out of reach', async ({ page }) => {
  // 200 % zoom of a page of 1280 × 800 leaves it 640 × 400 CSS pixels (WCAG 2.2, 1.4.4, as browsers do it).
  await page.setViewportSize({ width: 640, height: 400 });
  for (const path of ['/', '/guide', '/guide/place']) {
    await page.goto(path);
    const over = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
    expect(over, path).toBeLessThanOrEqual(0);
  }
  await openPiece(page, smallPiece('Twice'));
  for (const name of ['Deliver', 'History', 'Scene', 'Sheet of variations']) {
    const button = page.getByRole('button', { name, exact: true });
    const box = (await button.boundingBox())!;
    expect(box.x + box.width, name).toBeLessThanOrEqual(640);
  }
});
