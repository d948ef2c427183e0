export { ruleOut } from './checks';
export { noteComplaint, seeComplaint } from './complaints';
export { endHunt, noteInHunt, noteQueueSet, resumeHunt } from './end-hunt';
export { openHunt, type HuntOrigin } from './open-hunt';
export { noteSwap, undoSwap, type SwapOrder } from './swaps';
