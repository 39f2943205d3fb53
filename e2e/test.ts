/** Tests at one desk: they share a browser context, so that the application is parsed once and not by every test. */
import { test as base, type BrowserContext } from '@playwright/test';
import { address } from './desk.ts';

export { expect, type Page } from '@playwright/test';

export const test = base.extend<object, { desk: BrowserContext }>({
  desk: [
    async ({ browser }, use) => {
      const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
      // The browser puts up a window of its own for a first page, and only a tab for each further one.
      await context.newPage();
      await use(context);
      await context.close();
    },
    { scope: 'worker' },
  ],
  page: async ({ desk }, use) => {
    const page = await desk.newPage();
    await use(page);
    // What a browser remembers between visits is no test's to find.
    const session = await desk.newCDPSession(page);
    await session.send('Storage.clearDataForOrigin', {
      origin: address(),
      storageTypes: 'local_storage,indexeddb',
    });
    await page.close();
  },
});
