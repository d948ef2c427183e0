import type { CheckCode } from '../diagnose/said';
import type { SwapCode } from '../diagnose/swap';
import type { Reach } from '../domain/reach';
import { CHECK_WORDS } from './check-words';
import { addedDelayWords, rateFigure, rateWords } from './quantity-words';
import { SWAP_WORDS } from './swap-words';

/** A line of what happened in a hunt. */
export type StoryLine =
  | { readonly kind: 'opened'; readonly atMs: number; readonly byName: string }
  | {
      readonly kind: 'run';
      readonly atMs: number;
      readonly runId: string;
      readonly deviceName: string;
      readonly reach: Reach;
      readonly downBps: number | null;
      readonly upBps: number | null;
      readonly soundBps: number | null;
      /** What load added to the delay, the worse of both directions, ms. */
      readonly addedMs: number | null;
    }
  | {
      readonly kind: 'swap';
      readonly atMs: number;
      readonly byName: string;
      readonly what: SwapCode;
      readonly words: string;
    }
  | { readonly kind: 'note'; readonly atMs: number; readonly byName: string; readonly text: string }
  | {
      readonly kind: 'checked';
      readonly atMs: number;
      readonly byName: string;
      readonly check: CheckCode;
      readonly out: boolean;
    }
  | { readonly kind: 'queue-set'; readonly atMs: number; readonly byName: string; readonly bps: number }
  | {
      readonly kind: 'ended';
      readonly atMs: number;
      readonly byName: string;
      readonly state: string;
      readonly text: string;
    };

const ENDS: Readonly<Record<string, string>> = {
  found: 'found it',
  mended: 'mended it',
  'given-up': 'gave up',
  open: 'went on',
};

/** What a line of a hunt's story says: of a run its figures, without whose it is; who did it stands apart. */
export function storyWords(line: StoryLine): string {
  switch (line.kind) {
    case 'opened':
      return `${line.byName || 'Somebody'} began.`;
    case 'run': {
      const sound = line.soundBps === null ? '' : ` of ${rateFigure(line.soundBps)}`;
      const added = line.addedMs === null ? '' : `, ${addedDelayWords(line.addedMs)} under load`;
      return `${rateFigure(line.downBps)}${sound} down, ${rateFigure(line.upBps)} up${added}`;
    }
    case 'swap':
      return `Swapped: ${SWAP_WORDS[line.what]} (${line.words}).`;
    case 'note':
      return `“${line.text}”`;
    case 'checked':
      return `${line.out ? 'Looked' : 'Taken back'}: ${CHECK_WORDS[line.check]}.`;
    case 'queue-set':
      return `The queue was set to ${rateWords(line.bps)}.`;
    case 'ended':
      return `${line.byName} ${ENDS[line.state] ?? line.state}${line.text === '' ? '.' : `: ${line.text}`}`;
  }
}

/** Whose run it was, or who did it, where the sentence does not say so itself; null: it does. */
export function storyWho(line: StoryLine): string | null {
  switch (line.kind) {
    case 'run':
      return `${line.deviceName}, ${line.reach}`;
    case 'opened':
    case 'ended':
      return null;
    case 'swap':
    case 'note':
    case 'checked':
    case 'queue-set':
      return line.byName;
  }
}
