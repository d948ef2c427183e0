export { auditPageOf, type AuditPage, type AuditQuery } from './audit-page';
export { boardOf, type Board, type BoardRow } from './board';
export type { BoardCell, BoardColumn } from './board-cells';
export { BOARD_AGES, type BoardAge, type BoardFilter } from './board-filter';
export {
  huntPageOf,
  huntsOf,
  swapsPageOf,
  type HuntLine,
  type HuntPage,
  type ShownSwap,
  type ShownTest,
  type StoryLine,
} from './hunt-page';
export { joinPageOf, type JoinPage } from './join-page';
export { ledgerOf, type Ledger, type LedgerQuery } from './ledger';
export { ledgerPageOf, ledgerRunOf } from './ledger-page';
export { peopleOf, type OpenSignIn, type Person } from './people';
export { labelsOf, type ShownLabel } from './labels-page';
export { standsOut, type ShownComplaint, type ShownFinding, type StandsOut } from './stands-out';
export { runPageOf, samplesDocumentOf, type RunPage } from './run-page';
export { setUpOf, type SetUp, type SetUpDevice, type SetUpLine } from './set-up';
export { sharedRunPageOf } from './shared-run-page';
export { sitesOverview, type SiteSummary, type SiteTunnel } from './sites-overview';
export { weekOfRuns, type WeekOfRuns } from './week-of-runs';
