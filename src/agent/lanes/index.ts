export { ConsoleClock } from './console-clock';
export { openEchoProbe } from './echo-probe';
export { LaneKeeper, type LaneKeeperOptions } from './lane-keeper';
export { LaneShelf } from './lane-shelf';
export { openProbe } from './open-probe';
