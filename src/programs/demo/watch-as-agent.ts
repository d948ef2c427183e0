import { LaneKeeper, LaneShelf, ConsoleClock } from '@/agent';
import type { Lane } from '@/core';
import type { Post } from '@/session';
import type { LaneBeat } from '@/wire';
import { playedEcho, PLAYED_LANES, type PlayedLane } from './simulated-lanes';

/** A target that somebody adds answers like any place on the internet. */
const playedOf = ({ name, target, role }: Lane): PlayedLane =>
  PLAYED_LANES.find((played) => played.target === target) ?? { name, target, role, ms: 18, spread: 4, lost: 0.001 };

/** Keeps the demo's lanes as an agent would whose network is the made-up one. */
export function watchAsAgent(
  origin: string,
  folder: string,
  post: Post,
  onBeats: (beats: readonly LaneBeat[]) => void,
): { readonly lanes: LaneKeeper; readonly clock: ConsoleClock } {
  const clock = new ConsoleClock();
  const lanes = new LaneKeeper({
    ...{ clock, post, onBeats, shelf: new LaneShelf(folder, origin), onNews: (sentence) => console.error(sentence) },
    open: (lane, onEcho, nowMs) => {
      const played = playedOf(lane);
      const timer = setInterval(() => {
        const atMs = nowMs();
        onEcho({ atMs, ms: playedEcho(played, atMs, false, Math.random) });
      }, lane.everyMs);
      return { close: () => clearInterval(timer) };
    },
  });
  return { lanes, clock };
}
