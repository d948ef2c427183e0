import {
  readIwScan,
  type LookAsked,
  type LookFound,
  type NameAnswer,
  type NamesFound,
  type RandomSource,
} from '@/core';
import { demoScan } from './simulated-air';
import { simulatedPorts } from './simulated-ports';

/** What of the demo's made-up network a machine there would find. Addresses are those set apart for examples (RFC 5737). */

const TAKES_MS = 2500;
/** The office's address outside, and the only port that its router leads in. */
const OUTSIDE_ADDRESS = '203.0.113.9';
const VPN_PORT = 1194;
const around = (ms: number, random: RandomSource, spread = 0.15) =>
  Math.round(ms * (1 + spread * (2 * random() - 1)) * 100) / 100;

/** The office's own router forwards slowly; the provider's resolver is quick; the third makes up answers. */
export const DEMO_RESOLVERS = {
  quick: '192.0.2.53',
  lying: '192.0.2.99',
} as const;

function resolverOf(resolver: string, gateway: string): { freshMs: number; againMs: number; lies: boolean } | null {
  if (resolver === gateway) return { freshMs: 49, againMs: 1.1, lies: false };
  if (resolver.endsWith(DEMO_RESOLVERS.quick)) return { freshMs: 11, againMs: 7, lies: false };
  if (resolver.endsWith(DEMO_RESOLVERS.lying)) return { freshMs: 9, againMs: 8, lies: true };
  return null;
}

function answersOf(resolver: string, name: string, round: number, gateway: string, random: RandomSource): NameAnswer[] {
  const plays = resolverOf(resolver, gateway);
  const none = { resolver, name, round, ms: null, code: null, addresses: [], authentic: false } as const;
  if (plays === null) return [{ ...none, kind: 'fresh', trouble: 'it did not answer' }];
  const answer = (kind: NameAnswer['kind'], ms: number, exists: boolean): NameAnswer => ({
    ...{ resolver, name, kind, round, ms: around(ms, random), authentic: !plays.lies, trouble: null },
    ...{ code: exists ? 'NOERROR' : 'NXDOMAIN', addresses: exists ? ['203.0.113.80'] : [] },
  });
  return [answer('fresh', plays.freshMs, plays.lies), answer('again', plays.againMs, true)];
}

function names(
  { resolvers, names: asked }: Extract<LookAsked, { what: 'names' }>,
  gateway: string,
  random: RandomSource,
): NamesFound {
  const all = [
    { resolver: gateway, role: 'own' as const },
    ...resolvers.map((resolver) => ({ resolver, role: 'typed' as const })),
  ];
  const answers = [0, 1, 2].flatMap((round) =>
    asked.flatMap((name) => all.flatMap(({ resolver }) => answersOf(resolver, name, round, gateway, random))),
  );
  return { what: 'names', resolvers: all, answers };
}

/** The way out: the office's router, the provider's shared addresses, the link on which most of the delay comes in, the target. */
const WAY_OUT = [
  ['100.64.7.1', 'access-7.provider.example', 4.1],
  ['192.0.2.9', 'core-2.provider.example', 11.8],
  ['192.0.2.21', null, 12.2],
] as const;

function path(
  { target, loaded }: Extract<LookAsked, { what: 'path' }>,
  gateway: string,
  random: RandomSource,
): LookFound {
  const far =
    target === gateway ? [] : [...WAY_OUT, [/^[\d.]+$/.test(target) ? target : '203.0.113.80', target, 12.9] as const];
  const way = [[gateway, 'router.office.example', 0.4] as const, ...far];
  return {
    ...{ what: 'path', target, address: way.at(-1)![0], reached: true, mtuBytes: 1492 },
    hops: way.map(([address, name, ms], index) => ({
      ...{ place: index + 1, addresses: [address], name },
      rttsMs: [0, 1, 2].map(() => around(ms, random, 0.06)),
    })),
    ...(loaded === true && {
      loaded: {
        ...{ peer: 'outside peer', downBps: around(478e6, random, 0.01), upBps: around(95.6e6, random, 0.01) },
        hops: way.map(([address, , ms], index) => ({
          ...{ place: index + 1, address },
          idleMs: delays(ms, 0, random),
          // The modem's queues: both begin behind the office's router.
          downMs: delays(ms, index === 0 ? 0 : 24, random),
          upMs: delays(ms, index === 0 ? 0 : 212, random),
        })),
      },
    }),
  };
}

const delays = (ms: number, added: number, random: RandomSource) =>
  Array.from({ length: 30 }, () => around(ms + added * (0.9 + 0.1 * random()), random, 0.06));

const STORE_BPS = { write: 268e6, read: 312e6 };
function series(bytes: number, bps: number, random: RandomSource) {
  const wholeMs = (8000 * bytes) / bps;
  const many = Math.max(2, Math.round(wholeMs / 250));
  const atMs = Array.from({ length: many }, (_, step) => Math.round((wholeMs * (step + 1)) / many));
  return {
    atMs,
    bytes: atMs.map((_, step) =>
      step === many - 1 ? bytes : Math.round((bytes * around(step + 1, random, 0.02)) / many),
    ),
  };
}

/** What the shop's backup and a few others move just now. */
function simulatedLine(seconds: number, gateway: string, random: RandomSource): LookFound {
  const nowMs = Date.now();
  const bytes = (mbps: number) => Math.round(around(mbps, random, 0.1) * 125_000 * seconds);
  const before = { atMs: nowMs, receivedBytes: 3_111_222_333, sentBytes: 901_222_333 };
  return {
    ...{ what: 'line', router: 'office router', address: gateway, outsideAddress: OUTSIDE_ADDRESS },
    ...{ linkDownBps: 500e6, linkUpBps: 100e6, before },
    after: {
      atMs: nowMs + 1000 * seconds,
      receivedBytes: before.receivedBytes + bytes(61),
      sentBytes: before.sentBytes + bytes(26),
    },
  };
}

export function simulatedLook(asked: LookAsked, gateway: string, random: RandomSource): LookFound {
  switch (asked.what) {
    case 'names':
      return names(asked, gateway, random);
    case 'path':
      return path(asked, gateway, random);
    case 'share': {
      const bytes = asked.megabytes * 1e6;
      return {
        ...{ what: 'share', folder: asked.folder, fileSystem: 'nfs4', source: 'store.office.example:/volume1' },
        ...{ place: 'network', streams: asked.streams, written: series(bytes, STORE_BPS.write, random) },
        read: series(bytes, STORE_BPS.read, random),
      };
    }
    case 'echo': {
      const ms = asked.target === gateway ? 0.4 : 12.9;
      return {
        ...{
          what: 'echo',
          target: asked.target,
          address: /^[\d.]+$/.test(asked.target) ? asked.target : '203.0.113.80',
        },
        ...{ rttsMs: Array.from({ length: asked.count }, () => around(ms, random, 0.2)), duplicates: 0, refusal: null },
      };
    }
    case 'line':
      return simulatedLine(asked.seconds, gateway, random);
    case 'outside':
      return {
        ...{ what: 'outside', peer: 'outside peer', ownAddress: '192.168.7.20', seenAddress: OUTSIDE_ADDRESS },
        ...{ routerAddress: OUTSIDE_ADDRESS, ownIpv6: false },
        ports: asked.ports.map((port) => ({ port, state: port === VPN_PORT ? 'open' : 'silent' })),
      };
    case 'ports':
      return simulatedPorts(asked.target, asked.seconds, random);
    case 'air':
      return { what: 'air', device: 'wlan0', by: 'iw', networks: readIwScan(demoScan(random)) };
    case 'programs':
      return {
        ...{ what: 'programs', seconds: asked.seconds },
        programs: [
          { program: 'backup-client', inside: false, upBps: 24.1e6, downBps: 0.2e6 },
          { program: 'node', inside: true, upBps: 0.02e6, downBps: 0.05e6 },
        ],
      };
  }
}

/** The same after the time that it would take; null when it is stopped before. */
export function takeSimulatedLook(asked: LookAsked, gateway: string, signal: AbortSignal): Promise<LookFound | null> {
  return new Promise((resolve) => {
    const timer = setTimeout(() => resolve(simulatedLook(asked, gateway, Math.random)), TAKES_MS);
    signal.addEventListener('abort', () => {
      clearTimeout(timer);
      resolve(null);
    });
  });
}
