import { existsSync } from 'node:fs';
import { defineConfig } from '@playwright/test';

/** The one without windows takes half of the processor's time; where Debian does not have it, the other does as well. */
const HEADLESS = '/usr/bin/chromium-headless-shell';
const CHROMIUM = existsSync(HEADLESS) ? HEADLESS : '/usr/bin/chromium';

/** What the repository's tools do; see playwright.tools.config.ts. */
export const TOOLS = 'tools.spec.ts';
/** Files in which no figure matters; two of them may go on at a time. */
const SEEN = [
  ...[
    'access',
    'accessibility',
    'agents-standing',
    'alarms',
    'case',
    'commands',
    'failures',
    'hunts',
    'ledger',
    'own-agent',
    'people',
    'rounds',
    'side',
    'set-up',
    'starting',
    'time',
    'watch',
  ],
].map((name) => `${name}.spec.ts`);

/** Drives the real program in Debian's Chromium. Each file starts its own on ports of its own. */
export default defineConfig({
  testDir: 'e2e',
  globalSetup: './e2e/demo-template.ts',
  timeout: 90_000,
  workers: 1,
  // Real runs on a shared machine: one that was held up from outside is run once more, to the same bounds.
  retries: 1,
  forbidOnly: Boolean(process.env.CI),
  reporter: [['list'], ['json', { outputFile: process.env['PLAYWRIGHT_JSON_OUTPUT_NAME'] ?? 'test-results/e2e.json' }]],
  projects: [
    { name: 'seen', testMatch: SEEN },
    { name: 'measured', testIgnore: [...SEEN, TOOLS] },
  ],
  outputDir: 'test-results/playwright',
  expect: { timeout: 15_000 },
  use: {
    viewport: { width: 1280, height: 800 },
    // No traces: recording each frame of the strip takes a core and would be measured too.
    trace: 'off',
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: CHROMIUM,
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
