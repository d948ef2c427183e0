import type { PathAsked, PathFound, PathHop } from '@/core';
import { reverseName } from '../machine/reverse-name';
import { rttsOf } from './echo';
import { ping } from './ping-process';

const MOST_HOPS = 30;
/** So many hops are asked at a time. */
const AT_A_TIME = 6;
const EACH = 3;
/** Three hops in a row that say nothing: what is behind them says nothing either. */
const MOST_SILENT = 5;

interface HopSaid {
  readonly addresses: readonly string[];
  readonly reached: boolean;
}

/** Who says that a packet that may go `place` hops has gone far enough: a router (time exceeded), or the target itself. */
async function hop(target: string, place: number, signal: AbortSignal): Promise<HopSaid> {
  const { events } = await ping(target, ['-t', `${place}`, '-c', `${EACH}`, '-i', '0.2', '-W', '1'], signal);
  const said = events.filter((event) => event.kind !== 'silent');
  return {
    addresses: [...new Set(said.map(({ from }) => from))],
    reached: said.some(({ kind }) => kind === 'reply'),
  };
}

/** The routers on the way, up to the target or to where nobody answers any more. */
async function hopsTo(target: string, signal: AbortSignal): Promise<{ hops: HopSaid[]; reached: boolean }> {
  const hops: HopSaid[] = [];
  for (let from = 1; from <= MOST_HOPS; from += AT_A_TIME) {
    const places = Array.from({ length: Math.min(AT_A_TIME, MOST_HOPS + 1 - from) }, (_, step) => from + step);
    hops.push(...(await Promise.all(places.map((place) => hop(target, place, signal)))));
    const end = hops.findIndex(({ reached }) => reached);
    if (end >= 0) return { hops: hops.slice(0, end + 1), reached: true };
    if (hops.length >= MOST_SILENT && hops.slice(-MOST_SILENT).every(({ addresses }) => addresses.length === 0)) break;
  }
  const last = hops.findLastIndex(({ addresses }) => addresses.length > 0);
  return { hops: hops.slice(0, last + 1), reached: false };
}

async function timesTo(address: string, signal: AbortSignal): Promise<(number | null)[]> {
  // An address of one link only cannot be asked without naming the link.
  if (address.startsWith('fe80:')) return [];
  const { events } = await ping(address, ['-c', `${EACH}`, '-i', '0.2', '-W', '1'], signal);
  return rttsOf(events, EACH);
}

const HEADERS = { 4: 28, 6: 48 } as const;
const LEAST_MTU = 576;
const MOST_MTU = 9216;

/** The largest packet that arrives whole, by halving (RFC 1191, RFC 8201: nobody on the way may cut it); null: not even a small one. */
async function pathMtu(target: string, version: 4 | 6, signal: AbortSignal): Promise<number | null> {
  const passes = async (bytes: number) => {
    const size = `${bytes - HEADERS[version]}`;
    const { events } = await ping(target, ['-M', 'do', '-s', size, '-c', '2', '-i', '0.2', '-W', '1'], signal);
    return events.some(({ kind }) => kind === 'reply');
  };
  if (!(await passes(LEAST_MTU))) return null;
  // Most ways carry one of these.
  let [low, high] = [LEAST_MTU, MOST_MTU];
  if (await passes(1500)) low = 1500;
  else high = 1500;
  if (low === 1500 && !(await passes(1501))) return 1500;
  // More than that nobody sends.
  if (low === 1500 && (await passes(MOST_MTU))) return MOST_MTU;
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (await passes(middle)) low = middle;
    else high = middle;
  }
  return low;
}

/**
 * The way to a host: who answers at each distance (time exceeded, RFC 792), how far away each of them is by echo requests of its
 * own, and the largest packet that goes through. Throws LookFault.
 */
export async function lookAtPath({ target }: Pick<PathAsked, 'target'>, signal: AbortSignal): Promise<PathFound> {
  const { address } = await ping(target, ['-c', '1', '-W', '1'], signal);
  const { hops, reached } = await hopsTo(target, signal);
  const version = address?.includes(':') === true ? 6 : 4;
  const [found, mtuBytes] = await Promise.all([
    Promise.all(
      hops.map(async ({ addresses }, index): Promise<PathHop> => {
        const first = addresses[0];
        const [name, rttsMs] =
          first === undefined ? [null, []] : await Promise.all([reverseName(first), timesTo(first, signal)]);
        return { place: index + 1, addresses, name, rttsMs };
      }),
    ),
    reached ? pathMtu(target, version, signal) : Promise.resolve(null),
  ]);
  return { what: 'path', target, address, hops: found, reached, mtuBytes };
}
