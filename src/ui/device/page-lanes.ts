import { countWords, type Lane } from '@/core';
import type { LaneOrder, LaneReport } from '@/client';
import type { Post } from '@/session';
import { ConsoleClock, LaneKeeper, type OnEcho } from '@/session/lanes';
import type { LaneBeat, StandingOrder } from '@/wire';
import { pageShelf } from './page-shelf';

export type LanesWanted = Extract<StandingOrder, { kind: 'lanes' }>;

export interface PageLanes {
  set(order: LanesWanted): void;
  /** Asks nobody until it is set again; what was heard is handed in all the same. */
  rest(): void;
  close(): void;
}

interface PageLanesParts {
  readonly post: Post;
  readonly onBeats: (beats: readonly LaneBeat[]) => void;
  /** What the page says of it to whoever holds the device; null: nothing. */
  readonly onWords: (words: string | null) => void;
}

const NO_WORKER = 'The technician wants to see the delay from here, which this browser cannot keep measuring.';

function wordsOf(lanes: readonly Lane[]): string | null {
  if (lanes.length === 0) return null;
  const [{ name, everyMs }] = lanes as readonly [Lane, ...Lane[]];
  const whom = lanes.length === 1 ? name : `${name} and ${countWords(lanes.length - 1, 'other')}`;
  const often = everyMs === 1000 ? 'once a second' : `every ${everyMs / 1000} s`;
  return `Meanwhile it asks ${whom} ${often} how long an answer takes: a few packets, for the technician’s picture of delays.`;
}

/** The lanes that this page keeps while it stands by: asked in a worker of their own, kept and handed in here. */
export function keepPageLanes({ post, onBeats, onWords }: PageLanesParts): PageLanes {
  const clock = new ConsoleClock();
  const open = new Map<string, { readonly lane: Lane; readonly hear: OnEcho }>();
  let worker: Worker | null = null;
  let isBroken = false;
  const ask = (lanes: readonly Lane[]) => worker?.postMessage({ lanes } satisfies LaneOrder);
  const tell = () => ask([...open.values()].map(({ lane }) => lane));
  const tellWords = (lanes: readonly Lane[]) => onWords(isBroken && lanes.length > 0 ? NO_WORKER : wordsOf(lanes));
  const breakOff = () => {
    isBroken = true;
    worker?.terminate();
    worker = null;
    tellWords([...open.values()].map(({ lane }) => lane));
  };
  const start = () => {
    if (worker !== null || isBroken) return;
    try {
      worker = new Worker(new URL('../../client/lanes/lane-worker.ts', import.meta.url), { type: 'module' });
    } catch {
      return breakOff();
    }
    worker.onerror = (event) => {
      event.preventDefault();
      breakOff();
    };
    worker.onmessage = ({ data: { laneId, sentMs, ms, key } }: MessageEvent<LaneReport>) =>
      open.get(laneId)?.hear({ atMs: clock.nowMs() - (Date.now() - sentMs), ms }, key);
  };
  const keeper = new LaneKeeper({
    ...{ clock, shelf: pageShelf(), post, onBeats, onNews: () => undefined },
    open: (lane, hear) => {
      open.set(lane.id, { lane, hear });
      start();
      tell();
      return {
        close: () => {
          open.delete(lane.id);
          tell();
        },
      };
    },
  });
  return {
    set: ({ lanes, live, nowMs }) => {
      clock.learn(nowMs);
      keeper.set(lanes, live);
      tell();
      tellWords(lanes);
    },
    rest: () => {
      ask([]);
      onWords(null);
    },
    close: () => {
      void keeper.close();
      worker?.terminate();
    },
  };
}
