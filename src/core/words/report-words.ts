import type { GroupComparison } from '../judge/compare/group-comparison';
import { SWAP_WORDS } from './swap-words';
import type { SwapCode } from '../diagnose/swap';
import { countWords, rateFigure } from './quantity-words';

/** What a swap did, in one sentence: "another cable, cable of the scan room: 93.8 to 480 Mb/s down, a real difference". */
export function swapSentence(
  what: SwapCode,
  where: string,
  compared: {
    readonly deviceName: string;
    readonly direction: 'down' | 'up';
    readonly beforeBps: number;
    readonly afterBps: number;
    readonly runsBefore: number;
    readonly runsAfter: number;
    readonly comparison: GroupComparison;
  } | null,
): string {
  const swapped = `${SWAP_WORDS[what]}, ${where}`.replace(/^./, (letter) => letter.toUpperCase());
  if (compared === null) return `${swapped}: nothing was measured on both sides of it.`;
  const { deviceName, direction, beforeBps, afterBps, runsBefore, runsAfter, comparison } = compared;
  const figures = `${deviceName} ${rateFigure(beforeBps)} Mb/s ${direction} before (${countWords(runsBefore, 'occasion')}), ${rateFigure(afterBps)} after (${runsAfter})`;
  if (comparison.status === 'too-few') return `${swapped}: ${figures}; too few to be sure.`;
  return `${swapped}: ${figures}; ${comparison.real ? 'a real difference' : 'no real difference'}.`;
}

/** How much was measured: "214 runs by 9 devices on 12 days." */
export function measuredSentence(runs: number, devices: number, days: number): string {
  return runs === 0
    ? 'Nothing that counts was measured.'
    : `${countWords(runs, 'run')} by ${countWords(devices, 'device')} on ${countWords(days, 'day')}.`;
}
