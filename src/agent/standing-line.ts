import WebSocket from 'ws';
import { standingOrderSchema, type AgentHello, type StandingAnswer, type StandingOrder } from '@/wire';
import { STANDING_PATH } from '@/wire/console/device';
import { sleep } from '@/session';
import { DEVICE_COOKIE_NAME } from './console-client';

/** The console asks every second whether we are there; a line on which nothing came for so long is dead, ms. */
const SILENT_MS = 8000;
/** So often it says anew what it is, ms. */
const GREET_MS = 5 * 60_000;
/** Pauses before the line is opened again, ms: soon at first, then every half minute. */
const PAUSES_MS = [1000, 2000, 5000, 10_000, 30_000] as const;
/** The console closes with it when the cookie proves no device. */
const NOT_JOINED = 4401;

export type Dismissal = Extract<StandingOrder, { kind: 'dismissed' }>['reason'] | 'not-joined';

export interface StandingLineOptions {
  readonly origin: string;
  /** As it is now: it changes from time to time. */
  readonly cookie: () => string | null;
  readonly hello: () => Promise<AgentHello>;
  readonly onOrder: (order: StandingOrder) => void;
  /** Says something to the console as long as the line that was just opened holds; afterwards it says nothing. */
  readonly onOpen?: (say: (answer: StandingAnswer) => void) => void;
  /** The console hears us, or does not any more and why. */
  readonly onHeard: (heard: boolean, why: string) => void;
  readonly signal: AbortSignal;
}

/** How a line ended. */
type LineEnd =
  | { readonly kind: 'away'; readonly why: string }
  | { readonly kind: 'dismissed'; readonly reason: Dismissal };

/** The line of one connection, from its opening to its end. */
function oneLine({ origin, cookie, hello, onOrder, onOpen, onHeard, signal }: StandingLineOptions): Promise<LineEnd> {
  return new Promise((resolve) => {
    const socket = new WebSocket(`${origin.replace(/^http/, 'ws')}${STANDING_PATH}`, {
      headers: { Cookie: `${DEVICE_COOKIE_NAME}=${cookie() ?? ''}` },
      handshakeTimeout: SILENT_MS,
    });
    let end: LineEnd = { kind: 'away', why: 'the console went away' };
    let silence = setTimeout(() => socket.terminate(), SILENT_MS);
    const heard = () => {
      clearTimeout(silence);
      silence = setTimeout(() => socket.terminate(), SILENT_MS);
    };
    const stop = () => socket.close();
    signal.addEventListener('abort', stop);
    const say = (answer: StandingAnswer) => {
      if (socket.readyState === socket.OPEN) socket.send(JSON.stringify(answer));
    };
    const greet = () =>
      // What cannot be looked at now is looked at the next time.
      void hello().then(
        (said) => say({ kind: 'hello', hello: said }),
        () => undefined,
      );
    // What it sees of its machine and its network changes while it stands by.
    const greeting = setInterval(greet, GREET_MS);
    socket.on('open', () => {
      onHeard(true, '');
      onOpen?.(say);
      greet();
    });
    socket.on('ping', heard);
    socket.on('message', (text: Buffer) => {
      heard();
      const order = readOrder(text.toString());
      if (order === null) return;
      if (order.kind === 'dismissed') end = { kind: 'dismissed', reason: order.reason };
      onOrder(order);
    });
    socket.on('error', (error) => {
      if (end.kind === 'away') end = { kind: 'away', why: error.message };
    });
    socket.on('close', (code) => {
      clearTimeout(silence);
      clearInterval(greeting);
      signal.removeEventListener('abort', stop);
      resolve(code === NOT_JOINED ? { kind: 'dismissed', reason: 'not-joined' } : end);
    });
  });
}

/** Null for what this version does not know. */
function readOrder(text: string): StandingOrder | null {
  try {
    return standingOrderSchema.safeParse(JSON.parse(text)).data ?? null;
  } catch {
    return null;
  }
}

/** Keeps a line to the console open until it is aborted (null) or the console sends this machine away (why). */
export async function keepStandingLine(options: StandingLineOptions): Promise<Dismissal | null> {
  const { signal, onHeard } = options;
  for (let attempt = 0; !signal.aborted;) {
    const openedMs = performance.now();
    const end = await oneLine(options);
    if (signal.aborted) break;
    if (end.kind === 'dismissed') return end.reason;
    onHeard(false, end.why);
    // One that held for long begins with the short pauses again.
    attempt = performance.now() - openedMs > SILENT_MS ? 0 : attempt + 1;
    await sleep(PAUSES_MS[Math.min(attempt, PAUSES_MS.length - 1)]!, signal);
  }
  return null;
}
