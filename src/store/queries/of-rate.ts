import { NOT_OF_RATE } from '@/core';

/** Runs that show what a way can carry, as SQL; the index `runs_of_evidence` is written with the same words. */
export const OF_RATE = `profile NOT IN (${NOT_OF_RATE.map((profile) => `'${profile}'`).join(', ')})`;
