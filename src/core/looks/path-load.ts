import { median } from '../stats/percentile';
import type { Direction } from '../domain/plan';

/** Round trips to one hop, ms, in the order of sending: with an empty line, and while it was full each way; null: no answer came. */
export interface HopDelays {
  readonly place: number;
  readonly address: string;
  readonly idleMs: readonly (number | null)[];
  readonly downMs: readonly (number | null)[];
  readonly upMs: readonly (number | null)[];
}

/** A path that was asked again while a far end filled the line. */
export interface PathLoaded {
  /** Whose load it was. */
  readonly peer: string;
  /** What it moved meanwhile, bits per second; null: not known. */
  readonly downBps: number | null;
  readonly upBps: number | null;
  readonly hops: readonly HopDelays[];
}

/** Where the delay of a full line comes in. */
export interface DelayUnderLoad {
  readonly way: Direction;
  /** What the load added on the whole way that answers, ms. */
  readonly addedMs: number;
  /** The hop from which on most of it is there; null: nothing worth telling was added. */
  readonly place: number | null;
  readonly address: string | null;
  /** The hop before it that answers: the delay comes in between the two. Null: the machine itself. */
  readonly before: { readonly place: number; readonly address: string } | null;
}

/** Fewer answers make no middle. */
const LEAST_ANSWERS = 8;
/** Less is nothing to look for, ms. */
const LEAST_ADDED_MS = 5;
/** From the hop on that holds the delay, each has at least so much of it. */
const MOST_OF_IT = 0.5;

function middleOf(rtts: readonly (number | null)[]): number | null {
  const answered = rtts.filter((ms) => ms !== null);
  return answered.length < LEAST_ANSWERS ? null : median(answered);
}

/** What the load added at a hop, ms: the median under it less the idle one; null: too few answers. */
export function addedAtHop({ idleMs, downMs, upMs }: HopDelays, way: Direction): number | null {
  const [idle, loaded] = [middleOf(idleMs), middleOf(way === 'down' ? downMs : upMs)];
  return idle === null || loaded === null ? null : loaded - idle;
}

/**
 * Where the delay comes in while a line is full, each way: the first hop from which on every hop that answers has half of what the last one
 * has and more. A router that answers late for reasons of its own is followed by hops that do not, and is passed over. Null: nothing
 * on the way answered often enough.
 */
export function delaysUnderLoad({ hops }: PathLoaded): DelayUnderLoad[] {
  return (['down', 'up'] as const).flatMap((way): DelayUnderLoad[] => {
    const known = hops.flatMap((hop) => {
      const addedMs = addedAtHop(hop, way);
      return addedMs === null ? [] : [{ hop, addedMs }];
    });
    const end = known.at(-1);
    if (end === undefined) return [];
    const { addedMs } = end;
    if (addedMs < LEAST_ADDED_MS) return [{ way, addedMs, place: null, address: null, before: null }];
    const last = known.findLastIndex((each) => each.addedMs < MOST_OF_IT * addedMs);
    const { hop } = known[last + 1]!;
    const before = known[last]?.hop;
    return [
      {
        ...{ way, addedMs, place: hop.place, address: hop.address },
        before: before === undefined ? null : { place: before.place, address: before.address },
      },
    ];
  });
}
