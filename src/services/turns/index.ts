export { CHANGED_THINGS, Changes, type ChangedThing } from '../console/changes';
export { OneAtATime } from '../console/one-at-a-time';
export { giveTurnBack, queueTurns, refuseTurn, trayOf, withdrawTurn, type TrayTurn } from './queue-turns';
export { standBy, type StandingSession } from './stand-by';
export { StandingDevices, type StandingLink } from '../console/standing-devices';
export { ASKS_WITHIN_MS } from '../console/waiting-devices';
export { askForRun, forgetOldTurns, moveQueue, NOTICE_MS, resumeQueue } from './turn-desk';
