export { AIR_DAYS, airPageOf, type AirPage, type HeardAir } from './air-page';
export { auditPageOf, type AuditPage, type AuditQuery } from './audit-page';
export { boardOf, type Board, type BoardRow } from './board';
export type { BoardCell, BoardColumn } from './board-cells';
export { BOARD_AGES, type BoardAge, type BoardFilter } from './board-filter';
export { huntsOf, type HuntLine } from './hunt-list';
export { huntPageOf, type HuntPage } from './hunt-page';
export type { ShownTest } from './hunt-tests';
export { joinPageOf, type JoinPage } from './join-page';
export {
  LEDGER_FIRST_ROWS,
  ledgerFrameOf,
  ledgerOf,
  matchingRuns,
  type Ledger,
  type LedgerFrame,
  type LedgerQuery,
} from './ledger';
export { ledgerPageOf, ledgerRunOf } from './ledger-page';
export { peopleOf, type OpenSignIn, type Person } from './people';
export { labelsOf, type ShownLabel } from './labels-page';
export { standsOut, type ShownComplaint, type ShownFinding, type StandsOut } from './stands-out';
export { runPageOf, samplesDocumentOf, type RunPage } from './run-page';
export { setUpOf, type SetUp, type SetUpDevice, type SetUpLine } from './set-up';
export { sharedRunPageOf } from './shared-run-page';
export { sitesOverview, type SiteSummary, type SiteTunnel } from './sites-overview';
export { swapsPageOf, type ShownSwap } from './swaps-page';
export { weekOfRuns, type WeekOfRuns } from './week-of-runs';
export { exportedRuns, type ExportedFile } from './exported-runs';
export { comparisonsOf, sharedSidePageOf, sidePageOf, type ShownTray, type SidePage } from './side-page';
export { timeSeriesOf, type OccasionColumns, type PlanStep, type TimeFlag, type TimeSeries } from './time-series';
export { timeSubjectsOf, type ShownSubject } from './time-subjects';
export { casePageOf, casesOf, type CasePage } from './case-page';
export {
  agentsPageOf,
  type AgentsPage,
  type ShownAgent,
  type ShownLinkChange,
  type ShownNeighbour,
} from './agents-page';
export {
  bytesAMonth,
  schedulesPageOf,
  type MissedTime,
  type SchedulesPage,
  type ShownSchedule,
} from './schedules-page';
export { officesAtAGlance, type OfficeGlance } from './offices-glance';
export { COPY_DAYS, copyPageOf, type CopyPage } from './copy-page';
export { casePdf } from './case-pdf';
export * from './report';
export { caseRecord } from './case-record';
