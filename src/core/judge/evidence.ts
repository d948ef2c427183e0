import { FITNESS_EFFECTS, type FitnessCode } from './fitness/fitness-flag';

/**
 * What a run is evidence of. *alone*: of its whole path. *practice*: of the practice line that stood in for one.
 * *together*: only of what several runs shared on purpose, as a sum. *voided*: of nothing. *left-out*: of nothing, because
 * a technician says so. *imported*: of what a file says, which nothing here proves.
 */
export const EVIDENCES = ['alone', 'practice', 'together', 'voided', 'left-out', 'imported'] as const;
export type Evidence = (typeof EVIDENCES)[number];

export interface EvidenceFacts {
  readonly together: boolean;
  readonly practice: boolean;
  readonly leftOut: boolean;
  readonly flags: readonly FitnessCode[];
}

/** The one place where it is decided what a finished run counts for. */
export function evidenceOf({ together, practice, leftOut, flags }: EvidenceFacts): Evidence {
  if (leftOut) return 'left-out';
  if (flags.includes('imported')) return 'imported';
  if (flags.some((code) => FITNESS_EFFECTS[code] === 'voids' && code !== 'shared-on-purpose')) return 'voided';
  if (together) return 'together';
  return practice ? 'practice' : 'alone';
}

/** Evidence of a path by itself: what boards, sites, sets, medians, the usual peer and copy times are made of. */
export const OF_ITS_PATH = ['alone', 'practice'] as const satisfies readonly Evidence[];

/** What is compared and looked at over time: the same, and figures that were brought in. */
export const COMPARABLE = [...OF_ITS_PATH, 'imported'] as const satisfies readonly Evidence[];

export function judgesItsPath(evidence: Evidence): boolean {
  return (OF_ITS_PATH as readonly Evidence[]).includes(evidence);
}
