import { lazy } from 'react';

/** What shows a run. The page opens without it: it is fetched when a run is asked for, before anything is measured. */
export const fetchRunView = () => import('./run-view');

export const GoingRun = lazy(async () => ({ default: (await fetchRunView()).GoingRun }));
export const EndedRun = lazy(async () => ({ default: (await fetchRunView()).EndedRun }));
