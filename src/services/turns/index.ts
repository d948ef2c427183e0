export {
  giveTurnBack,
  queueTurn,
  queueTurns,
  refuseTurn,
  stopTurn,
  trayOf,
  withdrawTurn,
  type TrayTurn,
} from './queue-turns';
export { queueBetween } from './queue-between';
export { standBy, type StandingSession } from './stand-by';
export { askForRun, forgetOldTurns, moveQueue, NOTICE_MS, resumeQueue } from './turn-desk';
