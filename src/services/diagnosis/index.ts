export { findingsAreDue, refreshDiagnosis, refreshDueDiagnoses } from './refresh-diagnosis';
export { letBe, openAgain } from './finding-state';
export { ruledOutIn } from './ruled-out';
