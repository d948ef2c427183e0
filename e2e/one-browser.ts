import { test as base, type BrowserContext, type Page } from '@playwright/test';
import { newPort } from './ports';
import { newDataFolder, startProgram, type Program } from './program';

interface OfWorker {
  readonly oneBrowser: BrowserContext;
  /** A demo for all files of a worker that leave it as they found it. */
  readonly demo: Program;
}

/**
 * For files in which no test needs a browser of its own: one window for all tests of a worker, so that what the program
 * sends is fetched and compiled once and not for each test. Cookies and storage are a new browser's all the same.
 */
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
    const page = oneBrowser.pages()[0] ?? (await oneBrowser.newPage());
    await use(page);
    await forget(oneBrowser, page);
  },
});

/** What a test left in the browser is gone before the next one. */
async function forget(context: BrowserContext, page: Page): Promise<void> {
  for (const other of context.pages()) if (other !== page) await other.close();
  await context.clearCookies();
  if (page.isClosed()) return;
  const address = page.url();
  page.removeAllListeners();
  await page.unrouteAll({ behavior: 'ignoreErrors' });
  await page.emulateMedia({ colorScheme: null, reducedMotion: null, media: null });
  await page.setViewportSize({ width: 1280, height: 800 });
  if (address.startsWith('http')) {
    const devTools = await context.newCDPSession(page);
    const { origin } = new URL(address);
    await devTools.send('Storage.clearDataForOrigin', { origin, storageTypes: 'local_storage,indexeddb' });
    await devTools.detach();
  }
  await page.goto('about:blank');
}
