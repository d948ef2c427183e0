import { NOT_OF_RATE, OF_ITS_PATH } from '@/core';

const quoted = (words: readonly string[]) => words.map((word) => `'${word}'`).join(', ');

/** Runs that show what a way can carry, as SQL; the index `runs_of_evidence` is written with the same words. */
export const OF_RATE = `profile NOT IN (${quoted(NOT_OF_RATE)})`;

/** Kinds of evidence that speak of a path by itself, for SQL. */
export const OF_PATH = quoted(OF_ITS_PATH);
