export { CHANGED_THINGS, Changes, type ChangedThing } from './changes';
export { OneAtATime } from './one-at-a-time';
export { giveTurnBack, queueTurns, refuseTurn, trayOf, withdrawTurn, type TrayTurn } from './queue-turns';
export { standBy, type StandingSession } from './stand-by';
export { StandingDevices, type StandingLink } from './standing-devices';
export { ASKS_WITHIN_MS } from './waiting-devices';
export { askForRun, forgetOldTurns, moveQueue, NOTICE_MS, resumeQueue } from './turn-desk';
