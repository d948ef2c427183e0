import type { TimeSeries } from '@/services';
import { PAPER_FONT } from './picture-parts';
import { TimePicture } from './time-picture';
import type { FromTimeWorker, ToTimeWorker } from './time-messages';
import { workOut } from './work-out';

/** Reads a series, works out what time shows, and draws it: all of it away from the page's own thread. */
const say = (message: FromTimeWorker) => postMessage(message);

const AWAY = 'The console does not answer. Look whether it runs, then load this page again.';

let picture: TimePicture | null = null;
let painted: Pick<Extract<ToTimeWorker, { kind: 'open' }>, 'colors' | 'lower'> | null = null;

async function read(url: string): Promise<TimeSeries | string> {
  try {
    const answer = await fetch(url);
    const body = (await answer.json()) as TimeSeries & { readonly detail?: string };
    return answer.ok ? body : (body.detail ?? AWAY);
  } catch {
    return AWAY;
  }
}

function drawn(startedMs: number): void {
  if (picture !== null) say({ kind: 'drawn', drawn: picture.drawn, tookMs: performance.now() - startedMs });
}

/** A worker has none of the page's fonts; without its file the system's stand in. */
async function loadFont(): Promise<void> {
  const file = new URL(
    '@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2',
    import.meta.url,
  );
  try {
    const face = new FontFace(PAPER_FONT, `url(${file.href})`, { weight: '200 800' });
    (self as unknown as { readonly fonts: FontFaceSet }).fonts.add(await face.load());
  } catch {
    // An engine that loads none in a worker.
  }
}

async function open(message: Extract<ToTimeWorker, { kind: 'open' }>): Promise<void> {
  const [series] = await Promise.all([read(message.url), loadFont()]);
  if (typeof series === 'string') return say({ kind: 'failed', sentence: series });
  const startedMs = performance.now();
  const { shows, places, told, whole } = workOut(series);
  say({ kind: 'worked-out', series, shows: told, whole });
  if (message.canvas === null || whole === null) return;
  const { canvas, timeZone, ...look } = message;
  // What was asked for while it was read counts.
  picture = new TimePicture(canvas, { series, shows, places, whole, timeZone }, { ...look, ...painted });
  drawn(startedMs);
}

addEventListener('message', ({ data: message }: MessageEvent<ToTimeWorker>) => {
  const startedMs = performance.now();
  switch (message.kind) {
    case 'open':
      return void open(message);
    case 'span':
      picture?.show(message.span);
      break;
    case 'size':
      picture?.resize(message.size);
      break;
    case 'colors':
    case 'lower':
      painted = { ...painted!, ...message };
      if (picture !== null && painted.colors !== undefined && painted.lower !== undefined)
        picture.paint(painted.colors, painted.lower);
  }
  drawn(startedMs);
});
