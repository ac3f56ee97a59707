import { expectNone } from './access-rules';
import { expect, test, type Locator } from './test';
import { openPiece, smallPiece, step, typeNumber } from './helpers';

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

const MORE = 'Find, history and sheets';

test('at twice the size nothing of the shelf, the guide or the editor is out of reach', async ({ page }) => {
  // 200 % zoom of a page of 1280 × 800 leaves it 640 × 400 CSS pixels (WCAG 2.2, 1.4.4, as browsers do it).
  await page.setViewportSize({ width: 640, height: 400 });
  for (const path of ['/', '/guide', '/guide/place']) {
    await page.goto(path);
    const over = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
    expect(over, path).toBeLessThanOrEqual(0);
  }
  await openPiece(page, smallPiece('Twice'));
  const inside = async (of: Locator) => {
    const box = (await of.boundingBox())!;
    expect(box.x + box.width).toBeLessThanOrEqual(640);
    expect(box.y + box.height).toBeLessThanOrEqual(400);
  };
  for (const name of ['Deliver', 'Scene', MORE]) await inside(page.getByRole('button', { name, exact: true }));
  await page.getByRole('button', { name: MORE, exact: true }).click();
  for (const name of ['Find and do', 'History', 'Sheet of variations', 'What is this?'])
    await inside(page.getByRole('menuitem', { name }));
  await page.getByRole('menuitem', { name: 'History' }).click();
  await expect(page.getByRole('complementary', { name: 'History' })).toBeVisible();
});
