import type { Direction, Plan } from '../domain/plan';
import type { BloatRating } from '../judge/bloat-rating';
import type { DiagnosedSegment } from './segment';
import type { SwapCode } from './swap';

/** How sure a finding is: read off; almost certain; likelier than not; worth a test. */
export const STRENGTHS = ['fact', 'found', 'likely', 'hint'] as const;
export type Strength = (typeof STRENGTHS)[number];

/** What was found, with its facts. Rates in bits per second, delays in ms, shares from 0 to 1. */
export type FindingFacts =
  /** A cable came up slower than the others of this office. */
  | {
      readonly code: 'cable-came-up-slow';
      readonly negotiatedBps: number;
      readonly othersBps: number;
      readonly othersCount: number;
      readonly measuredBps: number | null;
    }
  /** One of these segments holds back; more than one where no test can tell them apart yet. */
  | {
      readonly code: 'segment-holds-back';
      readonly measuredBps: number;
      readonly expectedBps: number;
      readonly direction: Direction;
      /** Another device that does better over what they share, and how well. */
      readonly compared: { readonly deviceName: string; readonly bps: number } | null;
      /** How likely it is, 0 to 1. */
      readonly probability: number;
    }
  | {
      readonly code: 'line-below-plan';
      readonly measuredBps: number;
      readonly plan: Plan;
      readonly direction: Direction;
      readonly probability: number;
    }
  | {
      readonly code: 'line-below-least';
      readonly measuredBps: number;
      readonly leastBps: number;
      readonly plan: Plan;
      readonly direction: Direction;
    }
  | {
      readonly code: 'line-slow-in-hours';
      readonly bps: number;
      readonly elseBps: number;
      readonly occasions: number;
      readonly direction: Direction;
      readonly plan: Plan | null;
    }
  | {
      readonly code: 'queue-too-deep';
      readonly where: 'line' | 'tunnel' | 'inside';
      readonly direction: Direction;
      readonly addedMs: number;
      readonly rating: BloatRating;
    }
  | {
      readonly code: 'tunnel-slower-end';
      readonly measuredBps: number;
      readonly plan: Plan;
      readonly direction: Direction;
    }
  | { readonly code: 'packets-lost'; readonly resentShare: number; readonly runs: number }
  | {
      readonly code: 'peer-below-plan';
      readonly peerBps: number;
      readonly plan: Plan;
    }
  /** What a swap of late did; the rates are those of one device over one way. */
  | {
      readonly code: 'swap-told';
      readonly what: SwapCode;
      readonly direction: Direction;
      readonly beforeBps: number;
      readonly afterBps: number;
      readonly deviceName: string;
      readonly runsBefore: number;
      readonly runsAfter: number;
    }
  | {
      readonly code: 'contradicting-runs';
      readonly lowBps: number;
      readonly highBps: number;
      readonly direction: Direction;
    };

export type FindingCode = FindingFacts['code'];

export interface Finding {
  /** The same for the same trouble, however often it is worked out: its state is kept under it. */
  readonly key: string;
  readonly facts: FindingFacts;
  readonly strength: Strength;
  /** Those of which one (or each) holds back; the first is the likeliest. */
  readonly segments: readonly DiagnosedSegment[];
  /** Its first evidence in what was looked at, UTC epoch ms. */
  readonly sinceMs: number;
  /** Hours of the day; null: at all times. */
  readonly hours: readonly number[] | null;
  readonly deviceIds: readonly string[];
  /** Run ids. */
  readonly evidence: { readonly for: readonly string[]; readonly against: readonly string[] };
  /** Devices touched × share lost: what the order goes by, after the facts. */
  readonly weight: number;
}

const RANK: Readonly<Record<Strength, number>> = { fact: 0, found: 0, likely: 1, hint: 2 };

/** Whether it tells that something got better: nothing is to be done about it. */
export const isGoodNews = ({ facts }: Pick<Finding, 'facts'>): boolean =>
  facts.code === 'swap-told' && facts.afterBps > facts.beforeBps;

/** Worst first: what is sure before what is likely, then by how many lose how much; what got better comes last. */
export function inOrder(findings: readonly Finding[]): Finding[] {
  return [...findings].sort(
    (a, b) =>
      Number(isGoodNews(a)) - Number(isGoodNews(b)) ||
      RANK[a.strength] - RANK[b.strength] ||
      b.weight - a.weight ||
      a.key.localeCompare(b.key),
  );
}
