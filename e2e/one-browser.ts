import { test as base, type BrowserContext } from '@playwright/test';
import { newPort } from './ports';
import { newDataFolder, startProgram, type Program } from './program';

/**
 * For files whose tests only look: one browser for all tests of a worker, so that what the program sends is fetched and
 * compiled once and not for each test. Cookies and storage are a new browser's all the same.
 */
interface OfWorker {
  readonly oneBrowser: BrowserContext;
  /** A demo for all files of a worker that leave it as they found it. */
  readonly demo: Program;
}

export const test = base.extend<object, OfWorker>({
  demo: [
    // oxlint-disable-next-line no-empty-pattern -- Playwright reads from it which fixtures are needed
    async ({}, use) => {
      const program = await startProgram({ mode: 'demo', port: newPort(), data: newDataFolder() });
      await use(program);
      await program.interrupt();
    },
    { scope: 'worker', timeout: 90_000 },
  ],
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
