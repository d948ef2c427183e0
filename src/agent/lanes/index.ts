export { ConsoleClock } from './console-clock';
export { LaneKeeper, type LaneKeeperOptions } from './lane-keeper';
export { LaneShelf } from './lane-shelf';
export { openProbe } from './open-probe';
