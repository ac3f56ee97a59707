import { expect, test, type Page } from './test';
import { openPiece, smallPiece, step } from './helpers';

/** Controls in sight that have no name for assistive technology. */
function nameless(page: Page): Promise<string[]> {
  return page.evaluate(() =>
    [
      ...document.querySelectorAll<HTMLElement>(
        'button, a[href], input:not([type=file]), select, textarea, [role=slider], [role=spinbutton], [role=switch], [role=radio], [role=application]',
      ),
    ]
      .filter((e) => e.offsetParent !== null || e instanceof SVGElement)
      .filter(
        (e) =>
          !(
            e.getAttribute('aria-label') ||
            e.getAttribute('aria-labelledby') ||
            e.getAttribute('title') ||
            e.textContent?.trim() ||
            (e as HTMLInputElement).labels?.[0]?.textContent
          ),
      )
      .map((e) => e.outerHTML.slice(0, 120)),
  );
}

/** Contrast of text with what is behind it, WCAG 2.2 (1.4.3), for plain text elements in sight. */
function faintTexts(page: Page, least: number): Promise<string[]> {
  return page.evaluate((limit) => {
    // A canvas reads any colour the browser can write.
    const context = Object.assign(document.createElement('canvas'), { width: 1, height: 1 }).getContext('2d', {
      willReadFrequently: true,
    })!;
    const rgba = (css: string) => {
      context.clearRect(0, 0, 1, 1);
      context.fillStyle = css;
      context.fillRect(0, 0, 1, 1);
      return [...context.getImageData(0, 0, 1, 1).data];
    };
    const luminance = ([r, g, b]: number[]) => {
      const [x, y, z] = [r, g, b].map((c) =>
        c / 255 <= 0.04045 ? c / 255 / 12.92 : ((c / 255 + 0.055) / 1.055) ** 2.4,
      );
      return 0.2126 * x + 0.7152 * y + 0.0722 * z;
    };
    const behind = (e: Element | null): number[] => {
      for (let at = e; at; at = at.parentElement) {
        const c = rgba(getComputedStyle(at).backgroundColor);
        if (c[3] > 250) return c;
      }
      return [255, 255, 255, 255];
    };
    const faint: string[] = [];
    for (const e of document.querySelectorAll<HTMLElement>('p, h1, h2, h3, button, span, label, option')) {
      const own = [...e.childNodes].some((n) => n.nodeType === 3 && n.textContent!.trim());
      const style = getComputedStyle(e);
      // Ribbon bands carry a shadowed hint over any colour a user may choose; switched-off controls are exempt.
      if (
        !own ||
        e.offsetParent === null ||
        style.visibility === 'hidden' ||
        e.closest('nav, :disabled, [aria-hidden=true]')
      )
        continue;
      const [a, b] = [luminance(rgba(style.color)), luminance(behind(e))].sort((x, y) => y - x);
      const ratio = (a + 0.05) / (b + 0.05);
      if (ratio < limit) faint.push(`${e.textContent!.trim().slice(0, 30)}: ${ratio.toFixed(2)}`);
    }
    return faint;
  }, least);
}

test('every control has a name, and text is strong enough to read, by day and at dusk', async ({ page }) => {
  await openPiece(page, smallPiece('Access'));
  for (const mode of ['Dusk mode', 'Paper mode']) {
    await page.getByTestId('seam-chip').click();
    expect(await nameless(page)).toEqual([]);
    expect(await faintTexts(page, 4.5)).toEqual([]);
    await page.getByRole('button', { name: 'Scene', exact: true }).click();
    expect(await nameless(page)).toEqual([]);
    await step(page, 'displace')
      .getByRole('button', { name: /^Displace, / })
      .focus();
    await page.getByRole('button', { name: 'Close scene' }).click();
    await page.getByRole('button', { name: mode }).click();
  }
  await page.goto('/');
  await expect(page.getByRole('article').first()).toBeVisible();
  expect(await nameless(page)).toEqual([]);
  expect(await faintTexts(page, 4.5)).toEqual([]);
});

test('a value is changed and made to move with the keyboard alone', async ({ page }) => {
  await openPiece(page, smallPiece('Keys only'));
  const reach = async (name: RegExp) => {
    for (let i = 0; i < 80; i++) {
      await page.keyboard.press('Tab');
      const label = await page.evaluate(
        () => document.activeElement?.getAttribute('aria-label') ?? document.activeElement?.textContent ?? '',
      );
      if (name.test(label)) return;
    }
    throw new Error(`Not reached by the Tab key: ${name}`);
  };
  await reach(/^Pipe radius$/);
  await page.keyboard.press('ArrowUp');
  await expect(step(page, 'torus').getByRole('spinbutton', { name: 'Pipe radius' })).toHaveAttribute(
    'aria-valuenow',
    '0.41',
  );
  await page.keyboard.press('Shift+Enter');
  const motion = page.getByLabel('Motion of Pipe radius', { exact: true });
  await expect(motion).toBeVisible();
  await motion.getByRole('radio', { name: 'Wave' }).focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  const lane = page.getByRole('region', { name: 'Round' }).getByText('Torus · Pipe radius');
  await expect(lane).toBeVisible();
  await page.keyboard.press('Control+z');
  // What moves by itself, the noise, has its lane as before.
  await expect(lane).toHaveCount(0);
  await expect(page.getByText('1 thing', { exact: true })).toBeVisible();
});

test('long names and an empty piece keep the screen in order', async ({ page }) => {
  const piece = smallPiece(
    'A very long name for a looping piece that goes on and on for the wall in the entrance hall',
  );
  await openPiece(page, {
    ...piece,
    ribbons: [{ ...piece.ribbons[0], name: 'A ribbon whose name is far longer than the panel is wide' }],
  });
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(1280);
  await expect(page.getByRole('button', { name: 'Deliver' })).toBeInViewport({ ratio: 1 });
  await page.getByRole('button', { name: 'More for this ribbon' }).click();
  await page.getByRole('menuitem', { name: 'Remove ribbon' }).click();
  await expect(page.getByText('No ribbon yet')).toBeVisible();
  await expect(page.getByTestId('seam-chip')).toHaveText('Seam closed');
  await page.getByRole('button', { name: 'Deliver' }).click();
  await expect(page.getByRole('button', { name: /^Render/ })).toBeDisabled();
});
