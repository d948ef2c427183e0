export { NEW_DEVICE, NEW_LINE, NEW_PEER, NEW_PLAN, NEW_SITE, STARTED_RUN } from './blank-rows';
export type { FiguresSince, RunEnding, RunLine, SetRun, StoredRun } from './queries/run-queries';
export type { Device, Line, LineSwitch, Site, Spot, StoredPeer, StoredPlan } from './queries/site-queries';
export type { StoredApiToken, StoredSignIn, StoredTechnician } from './queries/access-queries';
export type { AuditEntry, AuditFilter, Facts, NewAuditEntry } from './queries/audit-queries';
export type {
  StoredComplaint,
  StandingFinding,
  StoredFinding,
  StoredHunt,
  StoredHuntStep,
  StoredLabel,
  StoredSwap,
} from './queries/finding-queries';
export { FINDING_STATES, HUNT_STATES, type FindingState, type HuntFocus, type HuntState } from './models/finding-rows';
export { MOST_OF_A_TRAY, type ComparedRow, type StoredComparison } from './queries/comparison-queries';
export type { PlanMet, StoredAlarm, StoredDelivery, StoredRecipient } from './queries/alarm-queries';
export type { StoredAgent, StoredLinkChange, StoredNeighbour } from './queries/agent-queries';
export type { StoredLane, StoredMark, StoredOutage, LaneStep } from './queries/lane-queries';
export type { StoredAirRun } from './queries/air-queries';
export type { WatchedRun } from './queries/watched-run-queries';
export type { LookEnd, StoredLook } from './queries/look-queries';
export type { ScheduledTime, StoredSchedule } from './queries/schedule-queries';
export type { AlternatedSide, StoredAlternation } from './queries/alternation-queries';
export type { CaseRunRow, StoredCase } from './queries/case-queries';
export type { KeptInStore } from './queries/keeping-queries';
export type { ImportRow, StoredImport } from './queries/import-queries';
export type { ExportedRow } from './queries/export-queries';
export type { StoredTray } from './models/rows';
export type { EvidenceRun } from './queries/evidence-queries';
export {
  LEDGER_SORTS,
  MOST_COUNTED,
  type LedgerOrder,
  type LedgerPlace,
  type LedgerRun,
  type LedgerSlice,
  type LedgerSort,
  type LedgerView,
} from './queries/ledger-queries';
export { MOST_TIMED, type TimedRun, type TimedSubject, type TimeSubject } from './queries/time-queries';
export type { StoredTurn, TurnStatus } from './queries/turn-queries';
export type { StoredReceipt } from './models/rows';
export { mergedInto, type RemovedLine } from './queries/removal-queries';
export { diskTroubleOf } from './disk-trouble';
export { lockFile } from './lock-file';
export { readPeople, type KnownPerson } from './read-people';
export { openStore, type Store } from './store';
export { checkStore, copyStore, type StoreCheck } from './store-copies';
export { StoreFault, type StoreFaultCode } from './store-faults';
