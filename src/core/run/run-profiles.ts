import { leastCountedMs, LONG_PATH_MS, rampMs, STEADY_RULES, type SteadyRules } from '../measure/rate/steady-part';
import type { Phase } from './phase';

export const PROFILE_NAMES = ['quick', 'standard', 'thorough', 'soak', 'delay', 'paced', 'single'] as const;
export type ProfileName = (typeof PROFILE_NAMES)[number];
/** Those whose runs do not show what the way can carry: without load, at a chosen rate, with one stream. */
export const NOT_OF_RATE = ['delay', 'paced', 'single'] as const satisfies readonly ProfileName[];

/** How a run goes: its phases in order, how long they may take, and how hard it pulls. Times in ms. */
export interface RunProfile {
  readonly name: ProfileName;
  readonly steps: readonly Phase[];
  readonly idleMs: number;
  readonly mostDirectionMs: number;
  /** A direction does not end before, even when it knows enough. */
  readonly leastDirectionMs: number;
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

/** Beyond a usual path each ms of round trip gives a direction so much more time, ms: TCP needs many of them to fill it. */
const MORE_ROUND_TRIPS = 65;
const USUAL_PATH_MS = 40;
/** No direction gets more than this on top, ms. */
const MOST_MORE_MS = 35_000;
/** After enough was counted a direction goes on for so long at most until it has settled, ms. */
const SETTLING_MS = 1500;
/** The same profile with directions that last at least so long, ms: for a line that may be fast only at first. */
export function longLook(profile: RunProfile, leastDirectionMs: number): RunProfile {
  if (leastDirectionMs <= 0) return profile;
  return { ...profile, leastDirectionMs, mostDirectionMs: Math.max(profile.mostDirectionMs, leastDirectionMs) };
}

/** Handshakes a second with a server that is not ours, and for how long the idle delay is told from them, ms. */
const WEB_PROBES_PER_SECOND = 5;
const WEB_IDLE_MS = 3000;

/** The same profile against a web server: nothing is uploaded, few probes, never more than `mostBytes`. */
export function downloadOnly(profile: RunProfile, mostBytes: number): RunProfile {
  return {
    ...profile,
    steps: profile.steps.filter((step) => step === 'idle' || step === 'download').slice(0, 2),
    idleMs: Math.max(profile.idleMs, WEB_IDLE_MS),
    probesPerSecond: WEB_PROBES_PER_SECOND,
    udp: false,
    limits: { ...profile.limits, bytes: Math.min(profile.limits.bytes, mostBytes) },
  };
}

/** How long a direction may last on a path of this round trip, ms. `rateBps`: what it carries, as far as known. */
export function mostDirectionMs(
  { mostDirectionMs: most, steady }: RunProfile,
  idleRttMs: number | null,
  rateBps: number | null = null,
): number {
  const longer = most + Math.min(MOST_MORE_MS, MORE_ROUND_TRIPS * Math.max(0, (idleRttMs ?? 0) - USUAL_PATH_MS));
  return Math.max(longer, rampMs(idleRttMs, steady) + leastCountedMs(idleRttMs, steady, rateBps) + SETTLING_MS);
}

/** How many streams a direction begins with: all of them on a long path, where trying them one by one would outlast the run. */
export function firstStreams({ streams }: RunProfile, idleRttMs: number | null): number {
  return (idleRttMs ?? 0) >= LONG_PATH_MS ? streams.most : streams.first;
}

/** What a run of this profile takes as a rule on a path of this round trip, from its beginning to its figures, ms. */
export function expectedRunMs(profile: RunProfile, idleRttMs: number | null): number {
  if (idleRttMs === null) return profile.typicalMs;
  const { steady, steps, stopsEarly } = profile;
  const load = stopsEarly
    ? rampMs(idleRttMs, steady) + leastCountedMs(idleRttMs, steady) + SETTLING_MS
    : mostDirectionMs(profile, idleRttMs);
  const lasts = { idle: profile.idleMs, settle: 1000 + 10 * idleRttMs, paced: profile.mostDirectionMs };
  return steps.reduce((sum, step) => sum + (step in lasts ? lasts[step as keyof typeof lasts] : load), 1000);
}

/** What a packet of the paced load carries, bytes of UDP payload: fits every usual path, tunnels too. */
export const PACED_BYTES = 1200;

const BOTH_WAYS: readonly Phase[] = ['idle', 'download', 'settle', 'upload'];

const standard: RunProfile = {
  name: 'standard',
  steps: BOTH_WAYS,
  idleMs: 2000,
  mostDirectionMs: 10_000,
  leastDirectionMs: 0,
  mostSettleMs: 3000,
  steady: STEADY_RULES,
  stopsEarly: true,
  probesPerSecond: 20,
  streams: { first: 3, most: 6 },
  udp: true,
  openDeadlineMs: 12_000,
  silenceMs: 5000,
  typicalMs: 16_000,
  limits: { seconds: 150, bytes: 60e9 },
};

/**
 * The ways to measure (docs/measurement.md, "Profiles"). Quick: one number soon, with a fixed number of streams.
 * Thorough: longer, and both directions at once. Soak: two minutes in each direction, to see what changes. Delay: no load.
 * Paced: UDP at a chosen rate. Single: one stream, as one copy has it.
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
    limits: { seconds: 120, bytes: 40e9 },
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
    limits: { seconds: 300, bytes: 120e9 },
  },
  soak: {
    ...standard,
    name: 'soak',
    idleMs: 5000,
    mostDirectionMs: 120_000,
    stopsEarly: false,
    typicalMs: 250_000,
    limits: { seconds: 500, bytes: 400e9 },
  },
  single: { ...standard, name: 'single', streams: { first: 1, most: 1 }, udp: false },
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
