import { defineConfig } from '@playwright/test';
import interfaceConfig, { TOOLS } from './playwright.config';

const { globalSetup: _, ...shared } = interfaceConfig;

/** Benches and proofs in their shortest form. Each starts what it needs by itself, so this may go on beside the interface. */
export default defineConfig({
  ...shared,
  testIgnore: [],
  projects: [{ name: 'tools', testMatch: TOOLS }],
  outputDir: 'test-results/playwright-tools',
});
