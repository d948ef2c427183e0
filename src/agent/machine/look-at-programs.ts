import { rateWords } from '@/core';
import { sleep } from '@/session';
import { printed } from './printed';
import { programsBetween, readConnections, type BusyProgram } from './programs';

/** What moves less does not matter to a measurement, bits per second. */
const WORTH_TELLING_BPS = 500_000;
const MOST_TOLD = 3;

/** What programs of this machine move for a while, by the system's `ss`; null: it is not there. */
export async function lookAtPrograms(forMs: number, signal: AbortSignal): Promise<BusyProgram[] | null> {
  const before = await printed('ss', ['-tinpHO']);
  if (before === null) return null;
  const fromMs = performance.now();
  await sleep(forMs, signal);
  const after = await printed('ss', ['-tinpHO']);
  return after === null
    ? null
    : programsBetween(readConnections(before), readConnections(after), performance.now() - fromMs);
}

const nameOf = ({ program }: BusyProgram) => program ?? 'a program of another user';

/** What a program moves, as a sentence: "rsync moves 24.1 Mb/s up and 0.20 Mb/s down, to the outside". */
export function programWords(busy: BusyProgram): string {
  return `${nameOf(busy)} moves ${rateWords(busy.upBps)} up and ${rateWords(busy.downBps)} down, ${busy.inside ? 'inside this network' : 'to the outside'}`;
}

/** The busiest ones, as far as they are worth telling. */
export function noticedPrograms(busy: readonly BusyProgram[] | null): string[] {
  return (busy ?? [])
    .filter(({ upBps, downBps }) => upBps + downBps >= WORTH_TELLING_BPS)
    .slice(0, MOST_TOLD)
    .map((each) => `Just before: ${programWords(each)}.`);
}
