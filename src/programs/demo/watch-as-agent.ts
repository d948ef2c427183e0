import { DiskShelf } from '@/agent';
import type { Lane } from '@/core';
import type { Post } from '@/session';
import { ConsoleClock, LaneKeeper } from '@/session/lanes';
import type { LaneBeat } from '@/wire';
import { isLostThere, playedEcho, PLAYED_LANES, type PlayedLane } from './simulated-lanes';

/** A target that somebody adds answers like any place on the internet. */
const playedOf = ({ name, target, role, kind }: Lane): PlayedLane =>
  PLAYED_LANES.find((played) => played.target === target && (played.kind ?? 'echo') === kind) ?? {
    name,
    target,
    role,
    ...(kind === 'load-in' ? { load: 'down' } : kind === 'load-out' ? { load: 'up' } : {}),
    ms: 18,
    spread: 4,
    lost: 0.001,
  };

/** Keeps the demo's lanes as an agent would whose network is the made-up one. */
export function watchAsAgent(
  origin: string,
  folder: string,
  post: Post,
  onBeats: (beats: readonly LaneBeat[]) => void,
): { readonly lanes: LaneKeeper; readonly clock: ConsoleClock } {
  const clock = new ConsoleClock();
  const lanes = new LaneKeeper({
    ...{ clock, post, onBeats, shelf: new DiskShelf(folder, origin), onNews: (sentence) => console.error(sentence) },
    open: (lane, onEcho, nowMs) => {
      const played = playedOf(lane);
      let [number, reflected] = [2 ** 20, 0];
      const timer = setInterval(() => {
        const atMs = nowMs();
        const ms = playedEcho(played, atMs, false, Math.random);
        if (lane.kind !== 'stamp') return onEcho({ atMs, ms });
        // The far end counts what comes to it.
        if (ms !== null || !isLostThere(Math.random)) reflected += 1;
        onEcho(ms === null ? { atMs, ms } : { atMs, ms, reflected }, (number += 1));
      }, lane.everyMs);
      return { close: () => clearInterval(timer) };
    },
  });
  return { lanes, clock };
}
