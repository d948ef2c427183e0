import { gzipSync } from 'node:zlib';
import type { Browser } from '@playwright/test';
import { startBrowser } from '../e2e/browser';
import { newDataFolder, startProgram } from '../e2e/program';

/**
 * What JavaScript the device page loads before anything is pressed, gzipped, against what every page of the framework
 * loads: the chunks that the framework's own not-found page shares with it. Prints kB (1000 bytes).
 */
const PORT = 4930;

async function scriptsOf(browser: Browser, url: string): Promise<Map<string, number>> {
  const page = await browser.newPage();
  const sizes = new Map<string, number>();
  page.on('response', (response) => {
    if (response.request().resourceType() !== 'script') return;
    sizes.set(new URL(response.url()).pathname, 0);
  });
  await page.goto(url, { waitUntil: 'networkidle' });
  for (const path of sizes.keys()) {
    const body = await (await page.request.get(new URL(path, url).href)).body();
    sizes.set(path, gzipSync(body, { level: 9 }).byteLength);
  }
  await page.close();
  return sizes;
}

const program = await startProgram({ mode: 'demo', port: PORT, data: newDataFolder() });
const browser = await startBrowser();
try {
  const device = await scriptsOf(browser, `${program.origin}/j`);
  const board = await scriptsOf(browser, program.origin);
  const kB = (bytes: number) => `${(bytes / 1000).toFixed(1)} kB`;
  const sum = (sizes: Iterable<number>) => [...sizes].reduce((total, size) => total + size, 0);
  // The framework's own: what pages without any client component of ours load too.
  const bare = await scriptsOf(browser, `${program.origin}/j/WRONG9`);
  const own = [...device].filter(([path]) => !bare.has(path));
  console.log(`empty page of the framework: ${kB(sum(bare.values()))}`);
  console.log(
    `device page:                 ${kB(sum(device.values()))}, own: ${kB(sum(own.map(([, size]) => size)))} (wanted: at most 35 kB)`,
  );
  console.log(`board:                       ${kB(sum(board.values()))}`);
} finally {
  await browser.close();
  await program.interrupt();
}
