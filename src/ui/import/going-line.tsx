import { Button } from '../parts/button';
import type { Going } from './use-import';

const WORDS: Readonly<Record<Going['what'], string>> = {
  sending: 'Sending the file',
  looking: 'Reading the file',
  'taking-in': 'Bringing the runs in',
};

/** How far it is, and a way to stop it. */
export function GoingLine({ going, stop }: { readonly going: Going; readonly stop: () => void }) {
  const { what, bytes, whole } = going;
  const share = whole === 0 ? 0 : Math.min(1, bytes / whole);
  return (
    <div className="my-2 flex flex-wrap items-center gap-3 text-sm" aria-live="polite">
      <label className="flex min-w-0 flex-1 items-center gap-3">
        <span className="w-36 shrink-0">{WORDS[what]}</span>
        <progress className="h-2 w-full max-w-96 accent-down" value={share} max={1} />
        <span className="figure w-10 text-right text-[0.78rem]">{Math.floor(100 * share)} %</span>
      </label>
      <Button className="!min-h-8 text-sm" onClick={stop}>
        Stop
      </Button>
    </div>
  );
}
