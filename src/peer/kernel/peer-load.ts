import { cpus } from 'node:os';
import { monitorEventLoopDelay } from 'node:perf_hooks';

const RESOLUTION_MS = 10;

function cpuTimes(): { busy: number; all: number } {
  let busy = 0;
  let all = 0;
  for (const { times } of cpus()) {
    const sum = times.user + times.nice + times.sys + times.irq + times.idle;
    all += sum;
    busy += sum - times.idle;
  }
  return { busy, all };
}

/** How busy this machine and this process were since the last look. */
export interface LoadMeter {
  look(): { readonly cpuShare: number | null; readonly loopLateMs: number };
  stop(): void;
}

/** Watches the processor and the event loop. Stop it when nobody measures: it costs a timer every 10 ms. */
export function startLoadMeter(): LoadMeter {
  const delay = monitorEventLoopDelay({ resolution: RESOLUTION_MS });
  delay.enable();
  let before = cpuTimes();
  return {
    look: () => {
      const now = cpuTimes();
      const all = now.all - before.all;
      const cpuShare = all > 0 ? Math.min(1, (now.busy - before.busy) / all) : null;
      before = now;
      // What the histogram records is the whole interval between two turns of its timer.
      const loopLateMs = delay.count === 0 ? 0 : Math.max(0, delay.max / 1e6 - RESOLUTION_MS);
      delay.reset();
      return { cpuShare, loopLateMs };
    },
    stop: () => delay.disable(),
  };
}
