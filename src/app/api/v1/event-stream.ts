import { roleOf, signInStands, theConsole } from '@/services';

/** Keeps proxies and browsers from taking a quiet stream for a dead one; each time the sign-in is looked at again. */
const BEAT_MS = 15_000;

export type WriteEvent = (event: string, data: unknown) => void;

/**
 * Server-sent events (HTML Living Standard, 9.2). The stream ends with the sign-in or the token that it was opened by, and says so.
 * `begin` starts what writes events, and returns what ends it.
 */
export function eventStream(
  request: Request,
  { person }: { readonly person?: { readonly signInId: string } | null },
  begin: (write: WriteEvent) => (() => unknown) | Promise<() => unknown>,
): Response {
  const context = theConsole();
  const signInId = person?.signInId ?? null;
  const authorization = request.headers.get('authorization');
  const stillAllowed = async () =>
    signInId === null
      ? (await roleOf(context, { signIn: null, device: null, authorization })).kind === 'technician'
      : signInStands(context, signInId);
  const encoder = new TextEncoder();
  let stop = () => undefined as void;
  const stream = new ReadableStream<Uint8Array>({
    start: async (controller) => {
      let ended = false;
      const write = (text: string) => ended || controller.enqueue(encoder.encode(text));
      write('retry: 2000\n\n');
      const over = () => {
        if (ended) return;
        write('event: signed-out\ndata: {}\n\n');
        stop();
        controller.close();
      };
      const endWatching = signInId === null ? null : context.endedSignIns.listen(signInId, over);
      const beat = setInterval(() => {
        write(': still here\n\n');
        void stillAllowed().then(
          (allowedStill) => allowedStill || over(),
          // The store is being closed: the stream ends with the process.
          () => undefined,
        );
      }, BEAT_MS);
      let end: (() => unknown) | null = null;
      stop = () => {
        if (ended) return;
        ended = true;
        clearInterval(beat);
        endWatching?.();
        void end?.();
      };
      request.signal.addEventListener('abort', stop);
      const began = await begin((event, data) => write(`event: ${event}\ndata: ${JSON.stringify(data)}\n\n`));
      // Whoever opened it may have gone meanwhile.
      if (ended) void began();
      else end = began;
    },
    cancel: () => stop(),
  });
  return new Response(stream, {
    // no-transform: what is compressed would wait until a block is full.
    headers: { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-cache, no-transform' },
  });
}
