import { WallTime } from '../parts/wall-time';
import type { LinkState } from './link-state';

/** The link to hand over, once; or what kept it from being made. */
export function LinkNote({ state }: { readonly state: LinkState }) {
  if (state.status === 'untouched') return null;
  if (state.status === 'refused')
    return (
      <p role="alert" className="mt-2 text-sm font-medium text-starved">
        {state.why}
      </p>
    );
  return (
    <p role="status" className="mt-3 border-[1.5px] border-ink bg-sheet p-3 text-sm">
      Give this link to {state.name || 'whoever it is for'}. It sets a passphrase, once, until{' '}
      <WallTime atMs={state.untilMs} />.
      <span className="figure mt-2 block break-all text-[0.8rem] select-all">{state.address}</span>
    </p>
  );
}
