import { chmodSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import type { RunSamples } from '@/core';
import config from '../../playwright.config';
import type { LabClient } from './lab-client';
import { withoutPicture } from './without-picture';

const PATIENCE_MS = 120_000;

/** Chromium in the client's namespace, on the page that a device opens. */
export async function browserClient(netns: string): Promise<LabClient> {
  const launcher = join(mkdtempSync(join(tmpdir(), 'bent-straw-lab-')), 'chromium');
  writeFileSync(launcher, `#!/bin/sh\nexec ip netns exec ${netns} /usr/bin/chromium "$@"\n`);
  chmodSync(launcher, 0o755);
  const browser = await chromium.launch({ ...config.use?.launchOptions, executablePath: launcher });
  // One context: what keeps the device's cookie from one run to the next.
  const context = await browser.newContext();
  return {
    name: 'Chromium',
    run: async (joinAddress, profile, deviceName = 'lab browser') => {
      const page = await context.newPage();
      try {
        if (process.env['LAB_PICTURE'] === 'off') await withoutPicture(page);
        await page.goto(`${joinAddress}?profile=${profile}`);
        const known = page.getByRole('combobox', { name: /What is this device/ });
        const names = (await known.count()) > 0 ? await known.locator('option').allTextContents() : [];
        if (names.includes(deviceName)) await known.selectOption({ label: deviceName });
        else await page.getByPlaceholder('for example: Reading room laptop').fill(deviceName);
        const startedMs = performance.now();
        const handedIn = page.waitForResponse((response) => response.url().includes('/hand-in'), {
          timeout: PATIENCE_MS,
        });
        await page.getByRole('button', { name: 'Measure' }).click();
        const response = await handedIn.catch(async (error: Error) => {
          // What is seen tells more than that nothing came.
          throw new Error(`${error.message}\n${await page.innerText('body')}`);
        });
        const tookMs = performance.now() - startedMs;
        const answer = (await response.json()) as { runId: string; status: string; figures: string; held: string };
        if (answer.status !== 'finished')
          return { status: 'unfinished', sentence: `${answer.figures} ${answer.held}`, tookMs };
        const url = new URL(`/api/v1/runs/${answer.runId}/samples`, joinAddress).href;
        // Fetched by the page: only the browser is inside the namespace.
        const document = JSON.parse(await page.evaluate(async (address) => (await fetch(address)).text(), url)) as {
          samples: RunSamples;
        };
        return { status: 'finished', samples: document.samples, tookMs };
      } finally {
        await page.close();
      }
    },
    close: () => browser.close(),
  };
}
