import type { LaneMinute } from '@/core';
import type { LaneShelf } from '@/session/lanes';
import type { LaneMinuteSent } from '@/wire';

const KEY = 'bent-straw-lanes';
/** Of four lanes for two hours. */
const MOST_MINUTES = 480;
/** As many as are handed in at once. */
const PART_MINUTES = 120;

const sentMinute = ({ raw, ...minute }: LaneMinute): LaneMinuteSent => ({
  ...minute,
  raw: btoa(String.fromCharCode(...raw)),
});

function readKept(storage: Storage): LaneMinuteSent[] {
  try {
    const kept: unknown = JSON.parse(storage.getItem(KEY) ?? '[]');
    return Array.isArray(kept) ? (kept as LaneMinuteSent[]) : [];
  } catch {
    return [];
  }
}

/** Minutes of lanes in the browser's storage until the console has them; where there is none, for as long as the page is open. */
export function pageShelf(storage: Storage = localStorage): LaneShelf {
  let minutes = readKept(storage);
  let dropped = 0;
  const done = Promise.resolve();
  const keep = () => {
    try {
      storage.setItem(KEY, JSON.stringify(minutes));
    } catch {
      // Full, or forbidden: they are still handed in from here.
    }
  };
  return {
    put: (more) => {
      const all = [...minutes, ...more.map(sentMinute)];
      minutes = all.slice(-MOST_MINUTES);
      dropped += all.length - minutes.length;
      if (more.length > 0) keep();
      return done;
    },
    // What it is to ask the console says whenever the page stands by.
    lanes: () => Promise.resolve([]),
    keepLanes: () => done,
    oldest: () => {
      const part = minutes.slice(0, PART_MINUTES);
      return Promise.resolve(part.length === 0 ? null : { name: String(part.length), minutes: part });
    },
    remove: ({ minutes: gone }) => {
      const taken = new Set(gone);
      minutes = minutes.filter((minute) => !taken.has(minute));
      keep();
      return done;
    },
    takeDropped: () => {
      const taken = dropped;
      dropped = 0;
      return taken;
    },
  };
}
