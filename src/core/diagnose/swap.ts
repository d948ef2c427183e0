import type { DiagnosedKind } from './segment';

/** One thing that a person changes on purpose, and what of the path is another one afterwards. */
export interface SwapKind {
  readonly changes: readonly DiagnosedKind[];
  /** What it takes, minutes, walking there included. */
  readonly minutes: number;
}

export const SWAPS = {
  'other-cable': { changes: ['cable'], minutes: 4 },
  'other-port': { changes: ['cable'], minutes: 3 },
  'past-the-switch': { changes: ['hop'], minutes: 6 },
  'other-switch': { changes: ['hop'], minutes: 6 },
  'other-device': { changes: ['device'], minutes: 5 },
  'device-mended': { changes: ['device'], minutes: 5 },
  'by-cable': { changes: ['air', 'unknown-link'], minutes: 4 },
  'other-band': { changes: ['air'], minutes: 2 },
  'other-channel': { changes: ['air'], minutes: 4 },
  'air-cleared': { changes: ['air'], minutes: 4 },
  'tunnel-off': { changes: ['vpn', 'tunnel'], minutes: 2 },
  'tunnel-changed': { changes: ['tunnel'], minutes: 6 },
  'router-replaced': { changes: ['router'], minutes: 6 },
  'queue-managed': { changes: ['router'], minutes: 5 },
  'line-changed': { changes: ['line'], minutes: 6 },
  'peer-moved': { changes: ['peer'], minutes: 6 },
  other: { changes: [], minutes: 5 },
} as const satisfies Record<string, SwapKind>;

export type SwapCode = keyof typeof SWAPS;
export const SWAP_CODES = Object.keys(SWAPS) as [SwapCode, ...SwapCode[]];

/** What can be swapped to learn about a segment, the cheapest first. */
export function swapsFor(kind: DiagnosedKind): SwapCode[] {
  return SWAP_CODES.filter((code) => (SWAPS[code].changes as readonly DiagnosedKind[]).includes(kind)).sort(
    (a, b) => SWAPS[a].minutes - SWAPS[b].minutes,
  );
}
