export {
  changeComparison,
  makeComparison,
  opensSharedComparison,
  removeComparison,
  shareComparison,
  sharedComparisonPath,
  type ComparisonOrder,
} from './comparisons';
export { handInRun, noteRunAlive } from './hand-in-run';
export { judgeSomeAnew } from './judge-anew';
export { conditionsOf, figureColumns } from './judged-run';
export { removeLedgerView, saveLedgerView } from './ledger-views';
export { leaveOutRuns, noteRuns, removeRuns, tagRuns, type ChosenRuns } from './many-runs';
export { recompute, type RecomputedRun } from './recompute';
export { saveRunNotes } from './run-notes';
export { shareRun, stopSharing } from './share-run';
export { sweepSilentRuns } from './sweep-silent-runs';
