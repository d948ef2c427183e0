import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { WebSocket } from 'ws';
import type { EngineBrowser } from './engine-browser';
import { freePort, newFolder, said, startEngineProcess, untilUp, wayTo, type Endpoint } from './engine-process';

/** Nothing of it asks anybody outside. */
const PREFERENCES = {
  'app.normandy.enabled': false,
  'app.update.enabled': false,
  'browser.safebrowsing.downloads.remote.enabled': false,
  'browser.safebrowsing.malware.enabled': false,
  'browser.safebrowsing.phishing.enabled': false,
  'browser.shell.checkDefaultBrowser': false,
  'datareporting.policy.dataSubmissionEnabled': false,
  'network.captive-portal-service.enabled': false,
  'network.connectivity-service.enabled': false,
  'extensions.getAddons.cache.enabled': false,
  'services.settings.server': 'data:,',
  'toolkit.telemetry.enabled': false,
};

interface Answer {
  readonly id?: number;
  readonly type: 'success' | 'error' | 'event';
  readonly message?: string;
  readonly result?: unknown;
}

/** Commands of WebDriver BiDi (W3C) over one WebSocket. */
async function openBidi({ port, socketPath }: Endpoint) {
  // Whoever asks for another host than the one it listens at is refused, whatever way the question takes.
  const host = `127.0.0.1:${port}`;
  const url = socketPath === null ? `ws://${host}/session` : `ws+unix://${socketPath}:/session`;
  const socket = await untilUp(
    () =>
      new Promise<WebSocket>((resolve, reject) => {
        const opening = new WebSocket(url, { headers: { Host: host } });
        opening.once('open', () => resolve(opening));
        opening.once('error', reject);
      }),
  );
  const waiting = new Map<number, (answer: Answer) => void>();
  socket.on('message', (data) => {
    const answer = JSON.parse((data as Buffer).toString()) as Answer;
    if (answer.id !== undefined) waiting.get(answer.id)?.(answer);
  });
  let last = 0;
  return {
    call: async <Result>(method: string, params: object): Promise<Result> => {
      last += 1;
      const id = last;
      const answer = await new Promise<Answer>((resolve) => {
        waiting.set(id, resolve);
        socket.send(JSON.stringify({ id, method, params }));
      });
      waiting.delete(id);
      if (answer.type === 'error') throw new Error(`${method}: ${answer.message}`);
      return answer.result as Result;
    },
    close: () => socket.close(),
  };
}

interface Evaluated {
  readonly type: 'success' | 'exception';
  readonly result?: { readonly value?: unknown };
  readonly exceptionDetails?: { readonly text: string };
}

/** Debian's firefox-esr without a window, driven over WebDriver BiDi. */
export async function openFirefox(netns: string | null): Promise<EngineBrowser> {
  const folder = newFolder();
  writeFileSync(
    join(folder.path, 'user.js'),
    Object.entries(PREFERENCES)
      .map(([name, value]) => `user_pref(${JSON.stringify(name)}, ${JSON.stringify(value)});\n`)
      .join(''),
  );
  const port = await freePort();
  const firefox = startEngineProcess(
    netns,
    'firefox-esr',
    ['--headless', '--profile', folder.path, '--remote-debugging-port', String(port), '--no-remote', 'about:blank'],
    { HOME: folder.path, MOZ_DISABLE_CONTENT_SANDBOX: '1' },
  );
  await said(firefox, 'stderr', /WebDriver BiDi listening/);
  const way = await wayTo(netns, port, folder.path);
  const bidi = await openBidi(way.endpoint);
  await bidi.call('session.new', { capabilities: {} });
  const { contexts } = await bidi.call<{ contexts: { context: string }[] }>('browsingContext.getTree', {});
  const { context } = contexts[0]!;
  return {
    name: 'Firefox',
    open: async (url) => void (await bidi.call('browsingContext.navigate', { context, url, wait: 'complete' })),
    evaluate: async <Value>(expression: string) => {
      // What a page gives back is taken as JSON, so that lists and objects come as they are.
      const asked = { expression: `Promise.resolve(${expression}).then((v) => JSON.stringify(v ?? null))` };
      const found = await bidi.call<Evaluated>('script.evaluate', {
        ...asked,
        target: { context },
        awaitPromise: true,
      });
      if (found.type === 'exception') throw new Error(found.exceptionDetails?.text ?? 'the page threw');
      return JSON.parse(found.result?.value as string) as Value;
    },
    screenshot: async () => {
      const { data } = await bidi.call<{ data: string }>('browsingContext.captureScreenshot', { context });
      return Buffer.from(data, 'base64');
    },
    close: async () => {
      bidi.close();
      await way.stop();
      await firefox.stop();
      folder.remove();
    },
  };
}
