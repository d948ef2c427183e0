export { findingsAreDue, refreshDiagnosis, refreshDueDiagnoses } from './refresh-diagnosis';
export { letBe, openAgain } from './finding-state';
