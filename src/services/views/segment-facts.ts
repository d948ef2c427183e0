import {
  addedDelayWords,
  linkKindOf,
  linkKindWords,
  rateFigure,
  rateWords,
  type LinkKind,
  type Reach,
  type StrawSegment,
} from '@/core';
import type { Device } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import { weekOfRuns } from './week-of-runs';

function linkCounts(devices: readonly Device[]): string {
  const counts = new Map<LinkKind, number>();
  for (const { link } of devices) counts.set(linkKindOf(link), (counts.get(linkKindOf(link)) ?? 0) + 1);
  return [...counts].map(([kind, count]) => `${count} × ${linkKindWords(kind)}`).join(', ');
}

async function runsOfWeek(context: ConsoleContext, siteId: string, reach: Reach, what: string): Promise<string> {
  const { count, downBps, upBps, addedMs } = await weekOfRuns(context, siteId, reach, null);
  if (downBps === null || upBps === null) return `${what}: no run in the last seven days.`;
  const times = count === 1 ? 'one run' : `${count} runs`;
  return `${what}: ${times} in the last seven days; median ${rateWords(downBps)} down, ${rateFigure(upBps)} up, ${addedDelayWords(addedMs)} of delay under load.`;
}

/** What is known of one segment of a site's straw, and how many runs that rests on, in words. */
export function segmentFacts(
  context: ConsoleContext,
  siteId: string,
  segment: StrawSegment['kind'],
  devices: readonly Device[],
): Promise<string> {
  switch (segment) {
    case 'device':
    case 'link':
      return Promise.resolve(devices.length === 0 ? 'No device yet.' : `Devices by link: ${linkCounts(devices)}.`);
    case 'hop':
      return runsOfWeek(context, siteId, 'local', 'Inside the office');
    case 'router':
    case 'line':
    case 'far-end':
      return runsOfWeek(context, siteId, 'internet', 'Over the provider’s line');
    case 'tunnel':
      return runsOfWeek(context, siteId, 'tunnel', 'Through the tunnel');
  }
}
