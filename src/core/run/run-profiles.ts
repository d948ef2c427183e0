import { STEADY_RULES, type SteadyRules } from '../rate/steady-part';
import type { Phase } from './phase';

export const PROFILE_NAMES = ['quick', 'standard', 'thorough', 'soak', 'delay', 'paced'] as const;
export type ProfileName = (typeof PROFILE_NAMES)[number];

/** How a run goes: its phases in order, how long they may take, and how hard it pulls. Times in ms. */
export interface RunProfile {
  readonly name: ProfileName;
  readonly steps: readonly Phase[];
  readonly idleMs: number;
  readonly mostDirectionMs: number;
  readonly mostSettleMs: number;
  /** When a direction knows enough; see steady-part.ts. */
  readonly steady: SteadyRules;
  /** Whether a direction ends as soon as it knows enough, or lasts its whole time. */
  readonly stopsEarly: boolean;
  readonly probesPerSecond: number;
  readonly streams: { readonly first: number; readonly most: number };
  /** Whether loss and delay are measured over UDP too, where that is possible. */
  readonly udp: boolean;
  /** No session, or no first echo, within this: the peer cannot be reached. */
  readonly openDeadlineMs: number;
  /** No byte at all in a direction within this: the direction is blocked. */
  readonly silenceMs: number;
  /** What such a run usually takes on a steady line, from grant to result, ms: for whoever waits behind it. */
  readonly typicalMs: number;
  /** What a ticket for such a run allows. */
  readonly limits: { readonly seconds: number; readonly bytes: number };
}

/** What a packet of the paced load carries, bytes of UDP payload: fits every usual path, tunnels too. */
export const PACED_BYTES = 1200;

const BOTH_WAYS: readonly Phase[] = ['idle', 'download', 'settle', 'upload'];

const standard: RunProfile = {
  name: 'standard',
  steps: BOTH_WAYS,
  idleMs: 2000,
  mostDirectionMs: 10_000,
  mostSettleMs: 3000,
  steady: STEADY_RULES,
  stopsEarly: true,
  probesPerSecond: 20,
  streams: { first: 3, most: 6 },
  udp: true,
  openDeadlineMs: 8000,
  silenceMs: 5000,
  typicalMs: 16_000,
  limits: { seconds: 90, bytes: 60e9 },
};

/**
 * The ways to measure (docs/measurement.md, "Profiles"). Quick: one number soon, with a fixed number of streams.
 * Thorough: longer, and both directions at once. Soak: two minutes in each direction, to see what changes. Delay: no load.
 * Paced: UDP at a chosen rate.
 */
export const RUN_PROFILES: Readonly<Record<ProfileName, RunProfile>> = {
  quick: {
    ...standard,
    name: 'quick',
    idleMs: 1000,
    mostDirectionMs: 3600,
    mostSettleMs: 800,
    steady: { ...STEADY_RULES, leastCountedMs: 2000, countedRoundTrips: 5, meanSpanMs: 600 },
    streams: { first: 4, most: 4 },
    udp: false,
    typicalMs: 9000,
    limits: { seconds: 45, bytes: 40e9 },
  },
  standard,
  thorough: {
    ...standard,
    name: 'thorough',
    steps: [...BOTH_WAYS, 'settle', 'both'],
    idleMs: 4000,
    mostDirectionMs: 20_000,
    steady: { ...STEADY_RULES, leastCountedMs: 8000 },
    typicalMs: 45_000,
    limits: { seconds: 150, bytes: 120e9 },
  },
  soak: {
    ...standard,
    name: 'soak',
    idleMs: 5000,
    mostDirectionMs: 120_000,
    stopsEarly: false,
    typicalMs: 250_000,
    limits: { seconds: 400, bytes: 400e9 },
  },
  paced: { ...standard, name: 'paced', steps: ['idle', 'paced'], limits: { seconds: 60, bytes: 4e9 } },
  delay: { ...standard, name: 'delay', steps: ['idle'], idleMs: 15_000, limits: { seconds: 60, bytes: 1e8 } },
};

/** Kept back of a ticket's bytes, so that requests under way when a direction ends are not refused. */
const RESERVE = 0.1;

/**
 * The most that one direction of one phase moves, bytes: an equal share of the ticket's, so that a fast download leaves
 * enough for the upload. Null for a profile that fills no direction.
 */
export function directionBytes({ steps, limits }: RunProfile): number | null {
  const directions = steps.reduce(
    (sum, phase) => sum + { idle: 0, settle: 0, paced: 0, download: 1, upload: 1, both: 2 }[phase],
    0,
  );
  return directions === 0 ? null : Math.floor((limits.bytes * (1 - RESERVE)) / directions);
}
