export { CHANGED_THINGS, Changes, type ChangedThing } from './changes';
export { openPresence, setConsole, theConsole, type ConsoleContext, type PracticeHands } from './console-context';
export { NO_LOG, type Log } from './log';
export { OneAtATime } from './one-at-a-time';
export { ReachedFrom } from './reached-from';
export { StandingDevices, type StandingLink } from './standing-devices';
export { ASKS_WITHIN_MS } from './waiting-devices';
