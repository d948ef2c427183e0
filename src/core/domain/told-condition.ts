/** What only the person at the device can know, and says before the run. */
export const TOLD_CONDITIONS = ['backup', 'update', 'others'] as const;
export type ToldCondition = (typeof TOLD_CONDITIONS)[number];
