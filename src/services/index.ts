export * from './access';
export { boardOf, type Board, type BoardCell, type BoardColumn, type BoardRow } from './board';
export { openPresence, setConsole, theConsole, type ConsoleContext } from './console-context';
export { DEVICE_COOKIE, DEVICE_COOKIE_SECONDS, deviceCookieValue } from './device-cookie';
export { conditionsOf, figureColumns, handInRun, noteRunAlive } from './hand-in-run';
export { joinPageOf, type JoinPage } from './join-page';
export { ledgerOf, type Ledger, type LedgerQuery } from './ledger';
export { ledgerPageOf } from './ledger-page';
export { checkPeer, type PeerState } from './peer-check';
export { joinAddresses, lanAddresses } from './reachable-addresses';
export { runPageOf, samplesDocumentOf, type RunPage } from './run-page';
export {
  removeDevice,
  removePeer,
  saveDevice,
  saveLine,
  saveOffice,
  savePeer,
  setUpOf,
  shownLine,
  type SetUp,
} from './set-up';
export { recompute, type RecomputedRun } from './recompute';
export * from './turns';
export { forgiveRunningRuns, sweepSilentRuns } from './sweep-silent-runs';
export type { Visitor } from './visitor';
