import { counterBps, type Lane } from '@/core';
import type { LaneProbe, OnEcho } from './lane-probe';
import { openLoadCounters, type LoadCounters, type LoadReading } from './load-counters';

/** Hears the mean loads between two readings, bits per second, and when the first of them was. Null: not known. */
type OnLoad = (fromMs: number, loads: Readonly<Record<'inBytes' | 'outBytes', number | null>>) => void;

interface Poll {
  readonly counters: LoadCounters;
  readonly hear: Set<OnLoad>;
  readonly timer: ReturnType<typeof setInterval>;
}

/** Both ways of a port are read with one question: a small switch is asked no oftener than it must. */
const polls = new Map<string, Poll>();

type Opening = typeof openLoadCounters;

function join(lane: Lane, nowMs: () => number, open: Opening, hear: OnLoad): () => void {
  const name = `${lane.target} ${lane.key ?? ''}`;
  const poll = polls.get(name) ?? begin(lane, nowMs, open);
  polls.set(name, poll);
  poll.hear.add(hear);
  return () => {
    poll.hear.delete(hear);
    if (poll.hear.size > 0) return;
    clearInterval(poll.timer);
    poll.counters.close();
    polls.delete(name);
  };
}

function begin({ target, key = null, everyMs }: Lane, nowMs: () => number, open: Opening): Poll {
  const counters = open(target, key);
  const hear = new Set<OnLoad>();
  let before: { readonly reading: LoadReading; readonly atMs: number } | null = null;
  let reading = false;
  const once = async () => {
    // A device that takes longer to answer is not asked a second time meanwhile.
    if (reading) return;
    reading = true;
    // What it does not answer now is told by the next stretch, which is longer then.
    const now = await counters.read().catch(() => null);
    reading = false;
    if (now === null) return;
    const last = before;
    before = { reading: now, atMs: nowMs() };
    if (last === null) return;
    const at = ({ atMs, upMs, wide }: LoadReading) => ({ atMs, upMs, wide, ports: [] });
    const readings = [at(last.reading), at(now)] as const;
    const bps = (way: 'inBytes' | 'outBytes') => counterBps(last.reading[way], now[way], readings, now.speedMbps);
    const loads = { inBytes: bps('inBytes'), outBytes: bps('outBytes') };
    for (const each of hear) each(last.atMs, loads);
  };
  void once();
  return { counters, hear, timer: setInterval(() => void once(), everyMs) };
}

/**
 * What goes over a port of a router or switch, by its own counters (SNMP, or UPnP IGD): the mean between two readings, Mb/s, for the
 * moment of the first one. Of a stretch in which the counters began anew, or may have come round, nothing is said.
 */
export function openLoadProbe(
  lane: Lane,
  onEcho: OnEcho,
  nowMs: () => number,
  open: Opening = openLoadCounters,
): LaneProbe {
  const way = lane.kind === 'load-in' ? 'inBytes' : 'outBytes';
  try {
    const leave = join(lane, nowMs, open, (atMs, loads) => {
      const bps = loads[way];
      if (bps !== null) onEcho({ atMs, ms: bps / 1e6 });
    });
    return { close: leave };
  } catch {
    // Nothing can be read by what it was told: it says nothing.
    return { close: () => undefined };
  }
}
