import { execFileSync, spawn } from 'node:child_process';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import type { Browser } from '@playwright/test';
import { median } from '@/core';
import { startPracticeLine } from '@/peer';
import { startBrowser } from '../e2e/browser';
import { childOfTool, endInOrder, numberArgument } from './end-together';
import { newDataFolder, startProgram } from '../e2e/program';

/**
 * What JavaScript the device page loads before anything is pressed, gzipped, against an empty page of the framework,
 * which is built and started for the comparison (not with --alone). Prints kB (1000 bytes).
 */
const ALONE = process.argv.includes('--alone');
/** What the device page may load over an empty page, kB. */
const WANTED_KB = 14.6;
const PORT = 4930;
const EMPTY_PORT = 4938;
const EMPTY_APP = join(process.cwd(), 'dist/empty-app');
const NEXT = join(process.cwd(), 'node_modules/next/dist/bin/next');

async function scriptBytes(browser: Browser, url: string): Promise<number> {
  const page = await browser.newPage();
  const scripts = new Set<string>();
  page.on('response', (response) => {
    if (response.request().resourceType() === 'script') scripts.add(response.url());
  });
  await page.goto(url, { waitUntil: 'networkidle' });
  let bytes = 0;
  for (const script of scripts)
    bytes += gzipSync(await (await page.request.get(script)).body(), { level: 9 }).byteLength;
  await page.close();
  return bytes;
}

/** A slow line in front of the program: 2 Mb/s each way, 100 ms there and back. */
const SLOW_PORT = 4939;
const LOADS = numberArgument(process.argv[2], 5, 'The number of loads');

/** From the first request until the device page takes a press, over the slow line with nothing cached, ms; median. */
async function usableAfterMs(browser: Browser, code: string | null): Promise<number> {
  const slow = { rateMbps: 2, queueMs: 200 };
  const line = await startPracticeLine(
    {
      name: 'slow',
      listenPort: SLOW_PORT,
      to: { host: '127.0.0.1', port: PORT },
      roundTripMs: 100,
      down: slow,
      up: slow,
    },
    () => performance.now(),
  );
  const took: number[] = [];
  for (let load = 0; load < LOADS; load += 1) {
    const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
    const page = await context.newPage();
    const startedMs = performance.now();
    await page.goto(`http://127.0.0.1:${SLOW_PORT}/j/${code}`, { waitUntil: 'commit' });
    // React marks the elements that it has taken over.
    await page.waitForFunction(() => {
      const form = document.querySelector('form');
      return form !== null && Object.keys(form).some((key) => key.startsWith('__reactProps'));
    });
    took.push(performance.now() - startedMs);
    await context.close();
  }
  await line.close();
  return median(took)!;
}

function buildEmptyApp(): void {
  mkdirSync(join(EMPTY_APP, 'app'), { recursive: true });
  const write = (file: string, text: string) => writeFileSync(join(EMPTY_APP, file), text);
  write('app/layout.js', 'export default ({ children }) => <html lang="en"><body>{children}</body></html>;\n');
  write('app/page.js', 'export default () => <main>empty</main>;\n');
  write('package.json', '{ "type": "module" }\n');
  write('next.config.js', `export default { turbopack: { root: ${JSON.stringify(process.cwd())} } };\n`);
  execFileSync(process.execPath, [NEXT, 'build'], { cwd: EMPTY_APP, stdio: 'ignore' });
}

async function startEmptyApp() {
  const server = childOfTool(
    spawn(process.execPath, [NEXT, 'start', '-p', String(EMPTY_PORT), '-H', '127.0.0.1'], { cwd: EMPTY_APP }),
  );
  await new Promise<void>((resolve) =>
    server.stdout!.on('data', (part: Buffer) => /Ready/.test(part.toString()) && resolve()),
  );
  return server;
}

endInOrder();
if (!ALONE) buildEmptyApp();
const empty = ALONE ? null : await startEmptyApp();
const program = await startProgram({ mode: 'demo', port: PORT, data: newDataFolder() });
const browser = await startBrowser();
try {
  const base = empty === null ? null : await scriptBytes(browser, `http://127.0.0.1:${EMPTY_PORT}/`);
  const device = await scriptBytes(browser, `${program.origin}/j/${program.code}`);
  const board = await scriptBytes(browser, program.origin);
  const kB = (bytes: number) => `${(bytes / 1000).toFixed(1)} kB`;
  const over = (bytes: number) => (base === null ? '' : `, over the empty page: ${kB(bytes - base)}`);
  if (base !== null) console.log(`empty page of the framework  ${kB(base)}`);
  console.log(
    `device page                  ${kB(device)}${over(device)} (wanted: at most ${WANTED_KB} kB over the empty page)`,
  );
  console.log(
    `device page over 2 Mb/s and 100 ms: usable after ${((await usableAfterMs(browser, program.code)) / 1000).toFixed(1)} s (wanted: 2 s)`,
  );
  console.log(`board                        ${kB(board)}${over(board)}`);
} finally {
  empty?.kill();
  await browser.close();
  await program.interrupt();
}
