import { expect, test } from './test';

test('the graphics card draws light within its limits of closed formulas, and every noise within a thousandth of the exact one', async ({
  page,
}) => {
  await page.goto('/check');
  await expect(page.getByTestId('verdict')).toHaveAttribute('data-state', /agree|differ/, { timeout: 500_000 });
  const rows = await page.getByRole('row').allInnerTexts();
  expect(rows.length).toBeGreaterThan(40);
  await expect(page.getByTestId('verdict')).toContainText('agree');
  await page.getByRole('link', { name: 'All pieces' }).click();
  await expect(
    page
      .getByRole('heading', { level: 1 })
      .or(page.getByRole('button', { name: /New loop/ }))
      .first(),
  ).toBeVisible();
});
