import type { Direction } from '../../domain/plan';
import type { ToldCondition } from '../../domain/told-condition';
import type { UnsettledCause } from '../../measure/rate/level-figure';

/**
 * What a flag does: `voids` any verdict; `unproven`: says nothing about the plan either way; `bars` the answer "not met"
 * about the plan; or `weakens` it.
 */
export type FitnessEffect = 'voids' | 'unproven' | 'bars' | 'weakens';

/** The registry of fitness flags; the table in docs/measurement.md is held against it. */
export const FITNESS_EFFECTS = {
  'same-machine': 'voids',
  'not-credible': 'voids',
  'shared-on-purpose': 'voids',
  'no-receipt': 'unproven',
  imported: 'unproven',
  'single-stream': 'bars',
  'link-below-plan': 'bars',
  'link-doubtful': 'bars',
  'over-wifi': 'bars',
  'through-tunnel': 'bars',
  'link-unknown': 'bars',
  'device-limited': 'bars',
  'peer-busy': 'bars',
  'peer-below-plan': 'bars',
  'far-end-not-ours': 'bars',
  'other-traffic': 'bars',
  'line-in-use': 'bars',
  unsettled: 'weakens',
  'single-run': 'weakens',
  'other-peer-than-usual': 'weakens',
  'page-hidden': 'weakens',
  'clock-jump': 'weakens',
  'power-saving': 'weakens',
} as const satisfies Record<string, FitnessEffect>;

export type FitnessCode = keyof typeof FITNESS_EFFECTS;

const UNFIT: readonly FitnessEffect[] = ['voids', 'unproven', 'bars'];

const saysNothing = (code: FitnessCode) => UNFIT.includes(FITNESS_EFFECTS[code]);

/** Whether nothing can be said against a line by a run with these flags. */
export function isUnfit(flags: readonly FitnessCode[]): boolean {
  return flags.some(saysNothing);
}

/** Those of some flags for which nothing can be said against a line, each once. */
export function unfitOf(flags: readonly FitnessCode[]): FitnessCode[] {
  return [...new Set(flags)].filter(saysNothing);
}

/** A port that is slower than the plan: what it names, what it can show, and the most that the plan promises. */
export interface SlowPort {
  readonly lineRateBps: number;
  readonly payloadBps: number;
  readonly promisedBps: number;
}

/** What in the samples cannot be. Bytes, ms; `way`: which direction. */
export type Incredible =
  | { readonly what: 'over-ticket'; readonly bytes: number; readonly allowedBytes: number }
  | {
      readonly what: 'over-peer';
      readonly way: Direction;
      readonly bytes: number;
      readonly peerBytes: number;
    }
  | { readonly what: 'too-short'; readonly way: Direction; readonly spanMs: number; readonly peerMs: number }
  | { readonly what: 'echoes'; readonly echoes: number; readonly peerEchoes: number }
  | { readonly what: 'round-trip'; readonly rttMs: number; readonly kernelMs: number | null };

/** What raised each flag, in figures: rates in bits per second, times in ms, shares from 0 to 1. */
export interface FitnessFacts {
  readonly 'same-machine': null;
  readonly 'not-credible': Incredible;
  readonly 'shared-on-purpose': null;
  readonly 'no-receipt': null;
  /** Its figures came from a file. */
  readonly imported: null;
  /** One TCP connection, on purpose. */
  readonly 'single-stream': null;
  /** A web server of somebody else's: it may be the limit. */
  readonly 'far-end-not-ours': null;
  readonly 'link-below-plan': SlowPort;
  readonly 'link-doubtful': { readonly measuredBps: number; readonly mostBps: number; readonly lineRateBps: number };
  readonly 'over-wifi': null;
  /** Without a segment size: it was said. */
  readonly 'through-tunnel': { readonly mssBytes: number | null };
  readonly 'link-unknown': null;
  readonly 'device-limited':
    | { readonly by: 'window'; readonly share: number }
    | { readonly by: 'self-read'; readonly selfReadBps: number }
    | { readonly by: 'stalls'; readonly share: number; readonly way: Direction };
  readonly 'peer-busy':
    | { readonly by: 'others'; readonly count: number }
    | { readonly by: 'processor'; readonly share: number }
    | { readonly by: 'lateness'; readonly lateMs: number };
  readonly 'peer-below-plan': SlowPort;
  readonly 'other-traffic':
    | { readonly seen: 'counted'; readonly downBps: number; readonly upBps: number }
    | { readonly seen: 'told'; readonly condition: ToldCondition };
  /** What others moved, bits per second, and what was measured beside it; null: nothing was. */
  readonly 'line-in-use': { readonly othersBps: number; readonly measuredBps: number | null; readonly seconds: number };
  readonly unsettled: {
    readonly cause: UnsettledCause;
    /** Where it is a range: what arrived steadily, and what in all. */
    readonly range: { readonly steadyBps: number; readonly meanBps: number } | null;
  };
  readonly 'single-run': null;
  readonly 'other-peer-than-usual': null;
  readonly 'page-hidden': { readonly hiddenMs: number };
  readonly 'clock-jump': { readonly jumpMs: number };
  /** The setting that says so. */
  readonly 'power-saving': { readonly setting: string };
}

/** A flag of a record of before method 5, with the words that it was given then. */
export interface WrittenFlag {
  readonly code: FitnessCode;
  readonly written: { readonly fact: string; readonly nextStep: string };
  readonly direction?: Direction | undefined;
}

/**
 * One reason why a run is weaker evidence than it looks: a code and the facts that raised it. `flagWords` has its words.
 * `direction`: the one that it holds for; absent: both.
 */
export type FitnessFlag =
  | {
      readonly [Code in FitnessCode]: {
        readonly code: Code;
        readonly facts: FitnessFacts[Code];
        readonly direction?: Direction | undefined;
      };
    }[FitnessCode]
  | WrittenFlag;

/** The flags that hold for a direction. */
export function flagsFor(flags: readonly FitnessFlag[], direction: Direction): FitnessCode[] {
  return flags.filter((flag) => (flag.direction ?? direction) === direction).map(({ code }) => code);
}
