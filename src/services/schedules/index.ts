export { setBudget } from './budgets';
export { expectedBytes, lineBudget, type LineBudget } from './data-volume';
export { forgetOldTimes, keepSchedules } from './keep-schedules';
export { scheduledDevices } from './scheduled-devices';
export { makeSchedule, pauseSchedule, removeSchedule, type ScheduleOrder } from './schedules';
export type { StoredSchedule } from '@/store';
export { zoneClock } from './zone-clock';
