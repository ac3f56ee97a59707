import { newPiece, newRibbon, newStep, type Piece } from '@maypole/core/piece/piece';
import { expect, test } from './test';
import { addStep, openPiece, step, typeNumber, watchErrors } from './helpers';

const withForm = (name: string, form: string, values: object = {}): Piece => ({
  ...newPiece(name),
  loop: { frames: 12, fps: 12 },
  format: { width: 160, height: 120 },
  ribbons: [{ ...newRibbon(form, 0, 'Form'), steps: [newStep(form, values as never)] }],
});

test('a bevelled rosette whose displacement dies away and comes back, nested', async ({ page }) => {
  const errors = watchErrors(page);
  await openPiece(page, withForm('Rosette', 'torus', { ringSegments: 12, pipeSegments: 6 }));
  await step(page, 'torus').getByRole('button', { name: 'More for Torus' }).click();
  await page.getByRole('menuitem', { name: 'Change to medal' }).click();
  await step(page, 'medal').getByRole('combobox', { name: 'Outline' }).selectOption({ label: 'Rose' });
  await typeNumber(step(page, 'medal'), 'Points', 6);
  await addStep(page, 'Displace');
  const displace = step(page, 'displace');
  await displace.getByRole('button', { name: 'Noise: Gradient' }).click();
  await expect(page.getByRole('radiogroup', { name: /Kinds of noise/ }).getByRole('radio')).toHaveCount(17);
  await page.getByRole('radio', { name: 'Cell edges' }).click();
  await page.keyboard.press('Escape');
  await expect(displace.getByRole('button', { name: 'Noise: Cell edges' })).toBeVisible();
  await displace.getByRole('combobox', { name: 'Distance' }).selectOption({ label: 'Square' });
  await displace.getByRole('button', { name: /^Motion of Height/ }).click();
  const motion = page.getByLabel('Motion of Height', { exact: true });
  await motion.getByRole('radio', { name: 'Wave' }).click();
  await typeNumber(motion, 'Low', 0);
  await typeNumber(motion, 'High', 0.4);
  await typeNumber(motion, 'Rest', 30);
  await page.keyboard.press('Escape');
  await addStep(page, 'Nest');
  await typeNumber(step(page, 'nest'), 'Copies', 3);
  await expect(page.getByTestId('seam-chip')).toHaveText('Seam closed');
  await expect(step(page, 'displace').getByRole('spinbutton', { name: 'Height' })).toHaveAttribute(
    'aria-valuenow',
    '0',
  );
  expect(errors).toEqual([]);
});

test('a dodecahedron shell with thinned-out faces; what a step cannot work on is said on its card', async ({
  page,
}) => {
  await openPiece(page, withForm('Cage', 'platonic', { solid: 'dodecahedron' }));
  await expect(page.getByTestId('face-count')).toHaveText('12 faces');
  await addStep(page, 'Thin out');
  await typeNumber(step(page, 'thin-out'), 'Share', 50);
  await expect(page.getByTestId('face-count')).toHaveText('6 faces');
  await addStep(page, 'Shell');
  // The other side has a finish of its own.
  await page.getByRole('button', { name: /^Finish/ }).click();
  const finish = page.getByTestId('finish');
  await finish.getByRole('button', { name: 'More', exact: true }).click();
  await finish.getByLabel('Inside', { exact: true }).focus();
  await page.keyboard.press('Space');
  await expect(finish.getByRole('spinbutton', { name: 'Inside roughness' })).toBeVisible();
  await addStep(page, 'Twist');
  // A region keeps the twist to one part; it is in sight, and the rarer values are folded away.
  const twist = step(page, 'twist');
  await expect(twist.getByRole('spinbutton', { name: 'Pivot x' })).toHaveCount(0);
  await twist.getByRole('button', { name: 'More', exact: true }).click();
  await expect(twist.getByRole('spinbutton', { name: 'Pivot x' })).toBeVisible();
  await twist.getByRole('combobox', { name: 'Region' }).selectOption({ label: 'Ball' });
  await expect(twist.getByRole('spinbutton', { name: 'Region size' })).toBeVisible();
  await addStep(page, 'Struts');
  await expect(page.getByTestId('seam-chip')).toHaveText('Seam closed');
  await step(page, 'platonic').getByRole('button', { name: 'More for Regular solid' }).click();
  await page.getByRole('menuitem', { name: 'Change to geodesic sphere' }).click();
  await typeNumber(step(page, 'geodesic'), 'Edge parts', 120);
  await expect(step(page, 'struts').getByRole('alert')).toContainText('the most is 2M. Put Struts before Subdivide');
});
