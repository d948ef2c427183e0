import { readStation, retriesPercent, type Lane, type StationReading } from '@/core';
import type { LaneProbe, OnEcho } from '@/session/lanes';
import { printed } from '../machine/printed';

type Read = (device: string) => Promise<StationReading | null>;
type OnReading = (atMs: number, now: StationReading | null, before: StationReading | null) => void;

interface Poll {
  readonly hear: Set<OnReading>;
  close(): void;
}

const dbBelow = (now: StationReading | null) => {
  const dbm = now?.signalDbm ?? null;
  return dbm === null ? null : Math.max(0, -dbm);
};

/** Several lanes of one radio are told by one question. */
const polls = new Map<string, Poll>();

const readRadio: Read = async (device) => readStation((await printed('iw', ['dev', device, 'station', 'dump'])) ?? '');

function begin({ target, everyMs }: Lane, nowMs: () => number, read: Read): Poll {
  const hear = new Set<OnReading>();
  let before: StationReading | null = null;
  let [reading, over] = [false, false];
  const once = async () => {
    if (reading) return;
    reading = true;
    const atMs = nowMs();
    const now = await read(target).catch(() => null);
    reading = false;
    if (over) return;
    for (const each of hear) each(atMs, now, before);
    before = now;
  };
  void once();
  const timer = setInterval(() => void once(), everyMs);
  return {
    hear,
    close: () => {
      over = true;
      clearInterval(timer);
    },
  };
}

/**
 * How this machine's own radio hears its access point: signal (dB below 1 mW), the rate at which it sends (Mb/s), or how much of what it
 * sends is sent again (percent, since the reading before). Without an access point the signal is silent, and the others say nothing.
 */
export function openRadioProbe(lane: Lane, onEcho: OnEcho, nowMs: () => number, read: Read = readRadio): LaneProbe {
  const name = `${lane.target} ${lane.everyMs}`;
  const poll = polls.get(name) ?? begin(lane, nowMs, read);
  polls.set(name, poll);
  const hear: OnReading = (atMs, now, before) => {
    if (lane.kind === 'signal') return onEcho({ atMs, ms: dbBelow(now) });
    const value =
      lane.kind === 'link-rate'
        ? (now?.rateMbps ?? null)
        : now === null || before === null
          ? null
          : retriesPercent(before, now);
    if (value !== null) onEcho({ atMs, ms: value });
  };
  poll.hear.add(hear);
  return {
    close: () => {
      poll.hear.delete(hear);
      if (poll.hear.size > 0) return;
      poll.close();
      polls.delete(name);
    },
  };
}
