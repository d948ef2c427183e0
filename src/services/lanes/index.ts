export type { StoredLane, StoredMark } from '@/store';
export { addLane, beginLanes, endLane, MOST_LANES, tellLanes } from './lanes';
export { beginMark, endMark, removeMark } from './marks';
export { openOutages, type OpenOutage } from './open-outages';
export { refreshOutages } from './outages';
export { seeWhoElse } from './line-use';
export { sumLanes, MINUTES_STAY_DAYS } from './sum-lanes';
export { takeMinutes } from './take-minutes';
export { watchBeats } from './watch-beats';
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
