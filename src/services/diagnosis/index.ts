export { findingsAreDue, refreshDiagnosis, refreshDueDiagnoses } from './refresh-diagnosis';
export { hoursIn } from './office-hours';
export { letBe, openAgain } from './finding-state';
export { ruledOutIn } from './ruled-out';
