import { answering, faultAnswer } from '@/app/api/v1/answer';
import { technician } from '@/app/role';
import { roleOf, signInStands, theConsole, type ChangedThing } from '@/services';

/** Keeps proxies and browsers from taking a quiet stream for a dead one; each time the sign-in is looked at again. */
const BEAT_MS = 15_000;

/**
 * Server-sent events (HTML Living Standard, 9.2): `changed` with what has, whenever something on the console did. The
 * stream ends with the sign-in or the token that it was opened by, and says so.
 */
export const GET = answering(async (request: Request): Promise<Response> => {
  const allowed = await technician();
  if (!allowed.ok) return faultAnswer(allowed.fault);
  const context = theConsole();
  const signInId = allowed.value.person?.signInId ?? null;
  const authorization = request.headers.get('authorization');
  const stillAllowed = async () =>
    signInId === null
      ? (await roleOf(context, { signIn: null, device: null, authorization })).kind === 'technician'
      : signInStands(context, signInId);
  const encoder = new TextEncoder();
  let stop = () => undefined as void;
  const stream = new ReadableStream<Uint8Array>({
    start: (controller) => {
      let ended = false;
      const write = (text: string) => ended || controller.enqueue(encoder.encode(text));
      write('retry: 2000\n\n');
      const endListening = context.changes.listen((what: readonly ChangedThing[]) =>
        write(`event: changed\ndata: ${JSON.stringify({ what })}\n\n`),
      );
      const endWatching = signInId === null ? null : context.endedSignIns.listen(signInId, () => over());
      const beat = setInterval(() => {
        write(': still here\n\n');
        void stillAllowed().then(
          (allowedStill) => allowedStill || over(),
          // The store is being closed: the stream ends with the process.
          () => undefined,
        );
      }, BEAT_MS);
      stop = () => {
        ended = true;
        clearInterval(beat);
        endListening();
        endWatching?.();
      };
      const over = () => {
        if (ended) return;
        write('event: signed-out\ndata: {}\n\n');
        stop();
        controller.close();
      };
      request.signal.addEventListener('abort', stop);
    },
    cancel: () => stop(),
  });
  return new Response(stream, {
    // no-transform: what is compressed would wait until a block is full.
    headers: { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-cache, no-transform' },
  });
});
