import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from './test';

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

/** Expects that axe-core finds nothing wrong with the page. */
export async function expectNone(page: Page, what: string): Promise<void> {
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
