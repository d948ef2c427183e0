import { diskTroubleOf } from '@/store';

/** Why nothing could be written into the data folder; null for any other error. For those that may not ask the store. */
export const diskTroubleIn = (error: unknown): string | null => diskTroubleOf(error);
