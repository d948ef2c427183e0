import { chromium, type Browser } from '@playwright/test';
import config from '../playwright.config';

/** Chromium as the tests start it, for the tools that drive the program without the test runner. */
export function startBrowser(): Promise<Browser> {
  return chromium.launch(config.use?.launchOptions ?? {});
}
