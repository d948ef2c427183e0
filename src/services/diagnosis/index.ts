export { findingsAreDue, refreshDiagnosis, refreshDueDiagnoses } from './refresh-diagnosis';
export { calendarIn, hoursIn, type CalendarMoment } from './office-hours';
export { letBe, openAgain } from './finding-state';
export { ruledOutIn } from './ruled-out';
