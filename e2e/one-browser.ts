import { test as base, type BrowserContext } from '@playwright/test';

/**
 * For files whose tests only look: one browser for all tests of a worker, so that what the program sends is fetched and
 * compiled once and not for each test. Cookies and storage are a new browser's all the same.
 */
export const test = base.extend<object, { readonly oneBrowser: BrowserContext }>({
  oneBrowser: [
    async ({ browser }, use) => {
      const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
      await use(context);
      await context.close();
    },
    { scope: 'worker' },
  ],
  page: async ({ oneBrowser }, use) => {
    await oneBrowser.clearCookies();
    const page = await oneBrowser.newPage();
    await use(page);
    await forget(oneBrowser, page.url());
    await page.close();
  },
});

/** What a page of this address has stored in the browser is gone. */
async function forget(context: BrowserContext, address: string): Promise<void> {
  if (!address.startsWith('http')) return;
  const blank = await context.newPage();
  const devTools = await context.newCDPSession(blank);
  const { origin } = new URL(address);
  await devTools.send('Storage.clearDataForOrigin', { origin, storageTypes: 'local_storage,indexeddb' });
  await blank.close();
}
