import { test as base, type BrowserContext } from '@playwright/test';

export { chromium, expect } from '@playwright/test';
export type { APIResponse, Browser, BrowserContext, Locator, Page } from '@playwright/test';

/** How many times slower than it is the processor is to seem to pages; 1 as a rule (`./maypole test --throttle N`). */
const RATE = Number(process.env.MAYPOLE_THROTTLE ?? 1);

/** Every page of the context, those it opens later too, has a processor that seems slower. */
function throttle(context: BrowserContext): BrowserContext {
  context.on('page', (page) => {
    void context
      .newCDPSession(page)
      .then((session) => session.send('Emulation.setCPUThrottlingRate', { rate: RATE }))
      // A page that is closed before it was slowed needs no slowing.
      .catch(() => undefined);
  });
  return context;
}

/** Playwright's test, whose browser can be slowed down. */
export const test = base.extend<object, object>({
  browser: [
    async ({ browser }, use) => {
      if (RATE > 1) {
        const newContext = browser.newContext.bind(browser);
        browser.newContext = async (options) => throttle(await newContext(options));
      }
      await use(browser);
    },
    { scope: 'worker' },
  ],
});
