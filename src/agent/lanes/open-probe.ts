import type { Lane } from '@/core';
import { openEchoProbe } from './echo-probe';
import type { LaneProbe, OnEcho } from '@/session/lanes';
import { openLoadProbe } from './load-probe';
import { openRadioProbe } from './radio-probe';
import { openStampProbe } from './stamp-probe';
import { askPage, askPort, openTimedProbe } from './timed-probe';

/** Begins to ask for a lane, as it says. */
export function openProbe(lane: Lane, onEcho: OnEcho, nowMs: () => number): LaneProbe {
  switch (lane.kind) {
    case 'echo':
      return openEchoProbe(lane, onEcho, nowMs);
    case 'stamp':
      return openStampProbe(lane, onEcho, nowMs);
    case 'load-in':
    case 'load-out':
      return openLoadProbe(lane, onEcho, nowMs);
    case 'connect':
      return openTimedProbe(askPort, lane, onEcho, nowMs);
    case 'web':
      return openTimedProbe(askPage, lane, onEcho, nowMs);
    case 'signal':
    case 'link-rate':
    case 'retries':
      return openRadioProbe(lane, onEcho, nowMs);
    // Only a page is asked for that.
    case 'probe':
      return { close: () => undefined };
  }
}
