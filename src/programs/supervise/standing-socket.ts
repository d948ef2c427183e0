import { once } from 'node:events';
import type { IncomingMessage } from 'node:http';
import type { Duplex } from 'node:stream';
import { WebSocketServer, type WebSocket } from 'ws';
import { DEVICE_COOKIE, standBy, type ConsoleContext } from '@/services';
import { STANDING_PATH } from '@/wire/console/device';

/** A browser answers a ping also while its page is in the background; a sleeping device does not. */
const PING_MS = 1000;
const SILENT_MS = 2500;
/** What an agent says of a machine with many links fits. */
const MOST_MESSAGE_BYTES = 32_768;
/** So many messages of one that is not known yet are kept. */
const MOST_EARLY = 4;

function cookieOf(request: IncomingMessage, name: string): string | null {
  const found = (request.headers.cookie ?? '').split(/;\s*/).find((pair) => pair.startsWith(`${name}=`));
  return found === undefined ? null : decodeURIComponent(found.slice(name.length + 1));
}

/** A page of another site must not stand by in a device's name. */
function isOwnPage({ headers: { origin, host } }: IncomingMessage): boolean {
  return origin === undefined || (URL.canParse(origin) && new URL(origin).host === host);
}

function hostOf({ headers: { host } }: IncomingMessage): string | null {
  const origin = `http://${host ?? ''}`;
  return URL.canParse(origin) ? new URL(origin).hostname.replace(/^\[|\]$/g, '') : null;
}

/** Takes the connections of devices that stand by. Returns what handles an upgrade, and what closes all of them. */
export function openStandingSocket(context: ConsoleContext) {
  const server = new WebSocketServer({ noServer: true, maxPayload: MOST_MESSAGE_BYTES, perMessageDeflate: false });

  /** What still has to be written down of devices that come and go. */
  const pending = new Set<Promise<void>>();
  const report = (done: Promise<void>) => {
    const settled = done
      .catch((error: unknown) => context.log.error({ err: error }, 'a standing device'))
      .finally(() => pending.delete(settled));
    pending.add(settled);
  };

  const serve = async (socket: WebSocket, request: IncomingMessage) => {
    socket.on('error', () => socket.terminate());
    let seenMs = performance.now();
    socket.on('pong', () => (seenMs = performance.now()));
    const timer = setInterval(() => {
      if (performance.now() - seenMs > SILENT_MS) socket.terminate();
      else socket.ping();
    }, PING_MS);
    socket.on('close', () => clearInterval(timer));
    // What it says before it is known who it is waits for that: nothing of it is lost.
    const early: string[] = [];
    const keep = (text: Buffer) => {
      if (early.length < MOST_EARLY) early.push(text.toString());
    };
    socket.on('message', keep);
    const session = await standBy(context, cookieOf(request, DEVICE_COOKIE), {
      consoleHost: hostOf(request),
      send: (order) => socket.send(JSON.stringify(order)),
      close: () => socket.close(),
    });
    if (session === null) return socket.close(4401, 'not joined');
    if (socket.readyState !== socket.OPEN) return session.leave();
    socket.off('message', keep);
    socket.on('message', (text: Buffer) => report(session.hear(text.toString())));
    for (const text of early) report(session.hear(text));
    socket.on('close', () => report(session.leave()));
  };

  return {
    upgrade: (request: IncomingMessage, socket: Duplex, head: Buffer) => {
      const { pathname } = new URL(request.url ?? '/', 'http://console.invalid');
      if (pathname !== STANDING_PATH || !isOwnPage(request)) return socket.destroy();
      server.handleUpgrade(request, socket, head, (opened) => report(serve(opened, request)));
    },
    /** Resolves when nothing of it is under way any more. */
    close: async () => {
      const closed = [...server.clients].map((client) => once(client, 'close'));
      for (const client of server.clients) client.terminate();
      await Promise.all(closed);
      while (pending.size > 0) await Promise.all(pending);
    },
  };
}
