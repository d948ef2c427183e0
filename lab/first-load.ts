import { execFileSync, spawn } from 'node:child_process';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import type { Browser } from '@playwright/test';
import { startBrowser } from '../e2e/browser';
import { newDataFolder, startProgram } from '../e2e/program';

/**
 * What JavaScript the device page loads before anything is pressed, gzipped, against an empty page of the framework,
 * which is built and started for the comparison. Prints kB (1000 bytes).
 */
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
  const server = spawn(process.execPath, [NEXT, 'start', '-p', String(EMPTY_PORT), '-H', '127.0.0.1'], {
    cwd: EMPTY_APP,
  });
  await new Promise<void>((resolve) =>
    server.stdout.on('data', (part: Buffer) => /Ready/.test(part.toString()) && resolve()),
  );
  return server;
}

buildEmptyApp();
const empty = await startEmptyApp();
const program = await startProgram({ mode: 'demo', port: PORT, data: newDataFolder() });
const browser = await startBrowser();
try {
  const base = await scriptBytes(browser, `http://127.0.0.1:${EMPTY_PORT}/`);
  const device = await scriptBytes(browser, `${program.origin}/j`);
  const board = await scriptBytes(browser, program.origin);
  const kB = (bytes: number) => `${(bytes / 1000).toFixed(1)} kB`;
  console.log(`empty page of the framework  ${kB(base)}`);
  console.log(
    `device page                  ${kB(device)}, over the empty page: ${kB(device - base)} (wanted: at most 35 kB)`,
  );
  console.log(`board                        ${kB(board)}, over the empty page: ${kB(board - base)}`);
} finally {
  empty.kill();
  await browser.close();
  await program.interrupt();
}
