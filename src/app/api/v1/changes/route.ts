import { faultAnswer } from '@/app/api/v1/answer';
import { technician } from '@/app/role';
import { theConsole } from '@/services';

/** Keeps proxies and browsers from taking a quiet stream for a dead one. */
const BEAT_MS = 15_000;

/** Server-sent events (HTML Living Standard, 9.2): a line whenever something on the console has changed. */
export async function GET(request: Request): Promise<Response> {
  const allowed = await technician();
  if (!allowed.ok) return faultAnswer(allowed.fault);
  const { changes } = theConsole();
  const encoder = new TextEncoder();
  let stop = () => undefined as void;
  const stream = new ReadableStream<Uint8Array>({
    start: (controller) => {
      const write = (text: string) => controller.enqueue(encoder.encode(text));
      write('retry: 2000\n\n');
      const endListening = changes.listen(() => write('event: changed\ndata: {}\n\n'));
      const beat = setInterval(() => write(': still here\n\n'), BEAT_MS);
      stop = () => {
        clearInterval(beat);
        endListening();
      };
      request.signal.addEventListener('abort', stop);
    },
    cancel: () => stop(),
  });
  return new Response(stream, {
    // no-transform: what is compressed would wait until a block is full.
    headers: { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-cache, no-transform' },
  });
}
