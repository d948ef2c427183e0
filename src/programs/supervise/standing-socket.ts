import { once } from 'node:events';
import type { IncomingMessage } from 'node:http';
import type { Duplex } from 'node:stream';
import { WebSocketServer, type WebSocket } from 'ws';
import { DEVICE_COOKIE, standBy, type ConsoleContext } from '@/services';
import { STANDING_PATH } from '@/wire/console/device';

/** How often a line is asked whether it stands, and after how long without an answer it is closed, ms. */
interface Pace {
  readonly everyMs: number;
  readonly silentMs: number;
}

/**
 * A browser answers also while its page is in the background; a sleeping device does not, and whoever looks at the board wants to
 * know at once. A program does not go to sleep, and there may be hundreds: asked more rarely, though so often that it
 * knows of a dead line by itself (8 s).
 */
const PACES: Readonly<Record<'page' | 'program', Pace>> = {
  page: { everyMs: 1000, silentMs: 2500 },
  program: { everyMs: 3000, silentMs: 7500 },
};
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
export function openStandingSocket(context: ConsoleContext, paces = PACES) {
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
    // Every browser says of which page it is, and a program has none.
    const { everyMs, silentMs } = paces[request.headers.origin === undefined ? 'program' : 'page'];
    const timer = setInterval(() => {
      if (performance.now() - seenMs > silentMs) socket.terminate();
      else socket.ping();
    }, everyMs);
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
