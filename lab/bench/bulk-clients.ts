import { execFile } from 'node:child_process';
import { promisify } from 'node:util';
import type { Browser, Page } from '@playwright/test';
import { startBrowser } from '../../e2e/browser';
import type { ServerUnderTest } from './server-under-test';

/** Payload bytes moved, and the time it took. */
export interface Moved {
  readonly bytes: number;
  readonly ms: number;
}

/** Something that pulls from or pushes to a server as fast as it can. */
export interface BulkClient {
  readonly name: string;
  move(server: ServerUnderTest, way: 'down' | 'up', seconds: number): Promise<Moved>;
  close(): Promise<void>;
}

const STREAMS = 3;
const runProgram = promisify(execFile);

/** Raw sockets of a Node process: the fastest client there is here. */
export const rawClient: BulkClient = {
  name: 'raw sockets',
  move: async (server, way, seconds) => {
    const url = way === 'down' ? server.downUrl : server.upUrl;
    const args = ['lab/children/bulk-client.mjs', way, url, String(STREAMS), String(seconds)];
    return JSON.parse((await runProgram(process.execPath, args)).stdout) as Moved;
  },
  close: () => Promise.resolve(),
};

/** Runs in the page: downloads by fetch into one reused buffer, uploads by XMLHttpRequest and one Blob. */
async function moveInPage([way, address, streams, seconds]: [string, string, number, number]): Promise<Moved> {
  let bytes = 0;
  const startedMs = performance.now();
  const over = () => performance.now() - startedMs > seconds * 1000;
  const urlOf = (stream: number) => address.replace('{stream}', String(stream));
  const pull = async (stream: number) => {
    const stop = new AbortController();
    let buffer = new ArrayBuffer(512 * 1024);
    // A file ends; the next request goes on.
    while (!over()) {
      const response = await fetch(urlOf(stream), { signal: stop.signal, cache: 'no-store' });
      const reader = response.body!.getReader({ mode: 'byob' });
      while (!over()) {
        const { done, value } = await reader.read(new Uint8Array(buffer));
        buffer = value?.buffer ?? new ArrayBuffer(512 * 1024);
        if (done) break;
        bytes += value.byteLength;
      }
    }
    stop.abort();
  };
  const part = new Uint8Array(1024 * 1024);
  const blob = new Blob(Array.from({ length: 64 }, () => part));
  const push = async (stream: number) => {
    while (!over()) {
      await new Promise<void>((resolve) => {
        const request = new XMLHttpRequest();
        request.onloadend = () => {
          if (request.status === 200) bytes += blob.size;
          resolve();
        };
        request.open('POST', urlOf(stream));
        request.send(blob);
      });
    }
  };
  await Promise.all(Array.from({ length: streams }, (_, stream) => (way === 'down' ? pull(stream) : push(stream))));
  return { bytes, ms: performance.now() - startedMs };
}

/** Chromium, as a device has it. */
export async function chromiumClient(): Promise<BulkClient> {
  const browser: Browser = await startBrowser();
  const pages = new Map<string, Page>();
  return {
    name: `Chromium ${browser.version().split('.')[0]}`,
    move: async (server, way, seconds) => {
      const url = way === 'down' ? server.downUrl : server.upUrl;
      const { origin } = new URL(url);
      const page = pages.get(origin) ?? (await browser.newPage());
      if (!pages.has(origin)) await page.goto(`${origin}/peer/v1/info`);
      pages.set(origin, page);
      return page.evaluate(moveInPage, [way, url, STREAMS, seconds] as [string, string, number, number]);
    },
    close: () => browser.close(),
  };
}
