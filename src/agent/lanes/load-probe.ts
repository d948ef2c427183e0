import { counterBps, type Lane } from '@/core';
import { sleep } from '@/session';
import type { LaneProbe, OnEcho } from '@/session/lanes';
import { openLoadCounters, type LoadCounters, type LoadReading } from './load-counters';

/** Hears the mean loads between two readings, bits per second, and when the first of them was. Null: not known. */
type OnLoad = (fromMs: number, loads: Readonly<Record<'inBytes' | 'outBytes', number | null>>) => void;

interface Poll {
  readonly hear: Set<OnLoad>;
  close(): void;
}

/** Both ways of a port are read with one question: a small switch is asked no oftener than it must. */
const polls = new Map<string, Poll>();

type Opening = typeof openLoadCounters;

/** A device is asked at most twenty times a minute. */
const LEAST_PAUSE_MS = 3000;
/** Between two readings that wait for the counters to move. */
const STEP_MS = 800;
/** So often in a row they moved at once. */
const COUNTS_AS_IT_GOES = 6;
/** Begun a little later each time, and at first again: a device with a beat of its own is not met at the same moment of it. */
const [SHIFT_MS, SHIFTS] = [900, 4];

function join(lane: Lane, nowMs: () => number, open: Opening, hear: OnLoad): () => void {
  const name = `${lane.target} ${lane.key ?? ''}`;
  const poll = polls.get(name) ?? begin(lane, nowMs, open);
  polls.set(name, poll);
  poll.hear.add(hear);
  return () => {
    poll.hear.delete(hear);
    if (poll.hear.size > 0) return;
    poll.close();
    polls.delete(name);
  };
}

const moved = (one: LoadReading, other: LoadReading) =>
  one.inBytes !== other.inBytes || one.outBytes !== other.outBytes;

/**
 * Many devices bring their counters up to date only every few seconds, and tell the same in between: what was counted until a reading
 * is then up to so much older than the reading. So they are read until they move, and count for the moment of that; one whose counters
 * move each time counts as it goes, and is read once.
 */
class FreshReadings {
  readonly #most: number;
  #before: LoadReading | null = null;
  #atOnce = 0;
  #times = 0;

  constructor(
    private readonly counters: LoadCounters,
    everyMs: number,
    private readonly signal: AbortSignal,
  ) {
    this.#most = Math.max(1, Math.floor(everyMs / LEAST_PAUSE_MS));
  }

  async next(): Promise<LoadReading> {
    if (this.#most > 1) await sleep(SHIFT_MS * (this.#times++ % SHIFTS), this.signal);
    const first = await this.counters.read();
    // Where nothing went since the last time, nothing is waited for.
    const isStill = this.#before !== null && !moved(this.#before, first);
    const reading = isStill || this.#atOnce >= COUNTS_AS_IT_GOES ? first : await this.#untilItMoves(first);
    this.#before = reading;
    return reading;
  }

  async #untilItMoves(first: LoadReading): Promise<LoadReading> {
    let last = first;
    for (let time = 1; time < this.#most; time += 1) {
      await sleep(STEP_MS, this.signal);
      const next = await this.counters.read();
      if (moved(first, next)) {
        this.#atOnce = time === 1 ? this.#atOnce + 1 : 0;
        return { ...next, atMs: (last.atMs + next.atMs) / 2 };
      }
      last = next;
    }
    return last;
  }
}

function begin({ target, key = null, everyMs }: Lane, nowMs: () => number, open: Opening): Poll {
  const counters = open(target, key);
  const closing = new AbortController();
  const fresh = new FreshReadings(counters, everyMs, closing.signal);
  const hear = new Set<OnLoad>();
  let before: { readonly reading: LoadReading; readonly atMs: number } | null = null;
  let reading = false;
  const once = async () => {
    // A device that takes longer to answer is not asked a second time meanwhile.
    if (reading) return;
    reading = true;
    // What it does not answer now is told by the next stretch, which is longer then.
    const now = await fresh.next().catch(() => null);
    reading = false;
    if (now === null || closing.signal.aborted) return;
    const last = before;
    before = { reading: now, atMs: nowMs() - (performance.now() - now.atMs) };
    if (last === null) return;
    const at = ({ atMs, upMs, wide }: LoadReading) => ({ atMs, upMs, wide, ports: [] });
    const readings = [at(last.reading), at(now)] as const;
    const bps = (way: 'inBytes' | 'outBytes') => counterBps(last.reading[way], now[way], readings, now.speedMbps);
    const loads = { inBytes: bps('inBytes'), outBytes: bps('outBytes') };
    for (const each of hear) each(last.atMs, loads);
  };
  void once();
  const timer = setInterval(() => void once(), everyMs);
  const close = () => {
    closing.abort();
    clearInterval(timer);
    counters.close();
  };
  return { hear, close };
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
