export { ConsoleClock } from './console-clock';
export { LaneKeeper, type LaneKeeperOptions } from './lane-keeper';
export type { LaneProbe, OnEcho, OpenProbe } from './lane-probe';
export type { LaneShelf, ShelfPart } from './lane-shelf';
