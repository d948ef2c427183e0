import { readFileSync } from 'node:fs';

function processorTicks(): { readonly all: number; readonly stolen: number } {
  const [, ...ticks] = readFileSync('/proc/stat', 'utf8').split('\n')[0]!.trim().split(/\s+/).map(Number);
  // user, nice, system, idle, iowait, irq, softirq, steal (proc(5)); guest time is within user time.
  return { all: ticks.slice(0, 8).reduce((sum, each) => sum + each, 0), stolen: ticks[7] ?? 0 };
}

/** Watches how much of the processors other virtual machines take; the returned function gives the share since then. */
export function watchStolenTime(): () => number {
  const before = processorTicks();
  return () => {
    const now = processorTicks();
    return now.all === before.all ? 0 : (now.stolen - before.stolen) / (now.all - before.all);
  };
}
