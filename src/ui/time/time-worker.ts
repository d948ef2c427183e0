import type { TimeSeries } from '@/services';
import { PAPER_FONT } from './picture-parts';
import { TimePicture } from './time-picture';
import type { FromTimeWorker, ToTimeWorker } from './time-messages';
import { workOut } from './work-out';

/** Reads a series, works out what time shows, and draws it: all of it away from the page's own thread. */
const say = (message: FromTimeWorker) => postMessage(message);

const AWAY = 'The console does not answer. Look whether it runs, then load this page again.';

type Opening = Extract<ToTimeWorker, { kind: 'open' }>;

let picture: TimePicture | null = null;
/** How it is to look now: what was asked for while the series was read counts. */
let look: Pick<Opening, 'colors' | 'lower' | 'size' | 'span'> | null = null;

async function read(url: string): Promise<TimeSeries | string> {
  try {
    const answer = await fetch(url);
    const body = (await answer.json()) as TimeSeries & { readonly detail?: string };
    return answer.ok ? body : (body.detail ?? AWAY);
  } catch {
    return AWAY;
  }
}

function drawn(): void {
  if (picture !== null) say({ kind: 'drawn', drawn: picture.drawn });
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

async function open({ url, canvas, timeZone }: Opening): Promise<void> {
  const [series] = await Promise.all([read(url), loadFont()]);
  if (typeof series === 'string') return say({ kind: 'failed', sentence: series });
  const { shows, places, told, whole } = workOut(series);
  say({ kind: 'worked-out', series, shows: told, whole });
  if (canvas === null || whole === null) return;
  picture = new TimePicture(canvas, { series, shows, places, whole, timeZone }, look!);
  drawn();
}

addEventListener('message', ({ data: message }: MessageEvent<ToTimeWorker>) => {
  if (message.kind === 'open') {
    look = message;
    return void open(message);
  }
  look = { ...look!, ...message };
  if (picture === null) return;
  if (message.kind === 'span') picture.show(message.span);
  else if (message.kind === 'size') picture.resize(message.size);
  else picture.paint(look.colors, look.lower);
  drawn();
});
