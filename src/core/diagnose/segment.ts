import type { WifiBand } from '../domain/link';

/** What a path is made of, from the device outwards. */
export const DIAGNOSED_KINDS = [
  ...(['device', 'cable', 'air', 'unknown-link', 'vpn', 'hop', 'router', 'line', 'line-in-hours'] as const),
  ...(['far-network', 'tunnel', 'far-line', 'peer'] as const),
] as const;
export type DiagnosedKind = (typeof DIAGNOSED_KINDS)[number];

/** Rates that a sound segment shows, bits per second: from the least that is still sound to the most. */
export interface SoundRange {
  readonly lowBps: number;
  readonly highBps: number;
}

/** A length of the straw that several runs can share. Its id tells it from all others, and from what it was before a swap. */
export interface DiagnosedSegment {
  readonly id: string;
  readonly kind: DiagnosedKind;
  /** Name of the device, line or peer that it belongs to; null: of the office as a whole. */
  readonly name: string | null;
  readonly deviceId: string | null;
  readonly band: WifiBand | null;
  readonly accessPoint: string | null;
  /** What it carries while it is sound; null: nobody knows. */
  readonly sound: { readonly down: SoundRange | null; readonly up: SoundRange | null };
  /** How many swaps it has been through: evidence of another number speaks of what stood here before. */
  readonly generation: number;
  /** Hours of the day that it stands for; null: all. Only of `line-in-hours`. */
  readonly hours: readonly number[] | null;
}

/**
 * How likely a segment is to hold back before anything is known of it, in one direction. From the trade's experience, in
 * this order: radio is shared and moves, tunnels cost processor time and headers, laptops are old, cables get bent; a
 * switch works or does not. See docs/diagnosis.md.
 */
export const PRIORS: Readonly<Record<DiagnosedKind, number>> = {
  air: 0.2,
  tunnel: 0.15,
  vpn: 0.15,
  'unknown-link': 0.15,
  device: 0.1,
  line: 0.1,
  'line-in-hours': 0.1,
  cable: 0.08,
  router: 0.05,
  'far-network': 0.05,
  'far-line': 0.05,
  peer: 0.05,
  hop: 0.02,
};
/** The 2.4 GHz band has three channels and everybody's gadgets in it. */
const PRIOR_OF_24_GHZ = 0.4;

export function priorOf({ kind, band }: Pick<DiagnosedSegment, 'kind' | 'band'>): number {
  return kind === 'air' && band === '2.4' ? PRIOR_OF_24_GHZ : PRIORS[kind];
}

/** The part that a segment is, whatever was swapped in it and whatever rate it came up at: "cable:7@1000~2" → "cable:7". */
export function segmentBase(id: string): string {
  return id.replace(/(@[\d.]+)?(~\d+)?$/, '');
}
