export type { StoredLane, StoredMark } from '@/store';
export { addLane, beginLanes, endLane, MOST_LANES, tellLanes } from './lanes';
export { laneTicket, MOST_PAGE_LANES } from './page-lanes';
export { beginMark, endMark, removeMark } from './marks';
export { openOutages, type OpenOutage } from './open-outages';
export { refreshOutages } from './outages';
export { seeWhoElse } from './line-use';
export { sumLanes, MINUTES_STAY_DAYS } from './sum-lanes';
export { takeMinutes } from './take-minutes';
export { watchBeats } from './watch-beats';
export type { RunRates } from '../console/lane-beats';
export type { ShownRun } from './watched-runs';
export type { ShownSlowTime } from './shown-slow';
export {
  OUTAGES_DAYS,
  watchedSpanOf,
  type ShownLane,
  type ShownMachine,
  type ShownMark,
  type ShownOutage,
  type ShownSteps,
  type WatchedSpan,
} from './watch-page';
