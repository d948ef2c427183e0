export { DiskShelf } from './disk-shelf';
export { openEchoProbe } from './echo-probe';
export { openProbe } from './open-probe';
