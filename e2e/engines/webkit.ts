import { existsSync } from 'node:fs';
import { request } from 'node:http';
import type { EngineBrowser } from './engine-browser';
import { freePort, newFolder, said, startEngineProcess, untilUp, wayTo, type Endpoint } from './engine-process';

/** Debian's small browser around WebKitGTK; the folder is named after the machine. */
const BINARY = ['x86_64-linux-gnu', 'aarch64-linux-gnu']
  .map((machine) => `/usr/lib/${machine}/webkit2gtk-4.1/MiniBrowser`)
  .find((path) => existsSync(path));
const SCRIPT_MS = 120_000;

/** One command of WebDriver (W3C) over HTTP; throws with what the driver says. */
function call<Value>(endpoint: Endpoint, method: string, path: string, body: unknown = null): Promise<Value> {
  return new Promise((resolve, reject) => {
    const { port, socketPath } = endpoint;
    const address = socketPath === null ? { host: '127.0.0.1', port } : { socketPath };
    const asked = request({ ...address, method, path, headers: { 'Content-Type': 'application/json' } }, (response) => {
      let text = '';
      response.on('data', (part: Buffer) => (text += part.toString()));
      response.once('end', () => {
        const { value } = JSON.parse(text) as { value: Value & { error?: string; message?: string } };
        if (response.statusCode === 200) resolve(value);
        else reject(new Error(`${method} ${path}: ${value.error} ${value.message}`));
      });
    });
    asked.once('error', reject);
    asked.end(body === null ? undefined : JSON.stringify(body));
  });
}

/** Debian's WebKitGTK, the engine of all browsers on iOS, on a screen of its own (Xvfb). */
export async function openWebKit(netns: string | null): Promise<EngineBrowser> {
  if (BINARY === undefined) throw new Error('WebKitGTK is not installed: Debian’s package webkit2gtk-driver has it');
  const folder = newFolder();
  const screen = startEngineProcess(null, 'Xvfb', [
    ...['-displayfd', '3', '-screen', '0', '1280x1024x24', '-nolisten', 'tcp'],
  ]);
  const display = `:${(await said(screen, 3, /\d+\n/)).trim()}`;
  const port = await freePort();
  const driver = startEngineProcess(netns, 'WebKitWebDriver', [`--port=${port}`, '--host=127.0.0.1'], {
    DISPLAY: display,
    HOME: folder.path,
    WEBKIT_DISABLE_SANDBOX_THIS_IS_DANGEROUS: '1',
    WEBKIT_DISABLE_COMPOSITING_MODE: '1',
    LIBGL_ALWAYS_SOFTWARE: '1',
  });
  const { endpoint, ...way } = await wayTo(netns, port, folder.path);
  const options = { binary: BINARY, args: ['--automation'] };
  const { sessionId } = await untilUp(() =>
    call<{ sessionId: string }>(endpoint, 'POST', '/session', {
      capabilities: { alwaysMatch: { 'webkitgtk:browserOptions': options } },
    }),
  );
  const base = `/session/${sessionId}`;
  await call(endpoint, 'POST', `${base}/timeouts`, { script: SCRIPT_MS, pageLoad: SCRIPT_MS });
  return {
    name: 'WebKit',
    open: async (url) => void (await call(endpoint, 'POST', `${base}/url`, { url })),
    evaluate: async <Value>(expression: string) => {
      const script = `const done = arguments[arguments.length - 1];
        try { Promise.resolve(${expression}).then((value) => done({ value: value ?? null }), (error) => done({ error: String(error) })); }
        catch (error) { done({ error: String(error) }); }`;
      const found = await call<{ value: Value; error?: string }>(endpoint, 'POST', `${base}/execute/async`, {
        ...{ script, args: [] },
      });
      if (found.error !== undefined) throw new Error(found.error);
      return found.value;
    },
    screenshot: async () => Buffer.from(await call<string>(endpoint, 'GET', `${base}/screenshot`), 'base64'),
    close: async () => {
      await call(endpoint, 'DELETE', base).catch(() => undefined);
      await way.stop();
      await driver.stop();
      await screen.stop();
      folder.remove();
    },
  };
}
