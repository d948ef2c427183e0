import {
  ceilingOfLink,
  planPayloadBps,
  type DiagnosedSegment,
  type Link,
  type LinkCeiling,
  type Plan,
  type SoundRange,
} from '@/core';
import type { Device, EvidenceRun, Line, StoredPeer, StoredSwap } from '@/store';

/** A sound line gives a little more than its plan at most. */
const OVER_PLAN = 1.03;
/** What a tunnel's own headers and its work leave of the slower end. */
const TUNNEL_LEAVES = 0.8;
/** A cable's ceiling is exact: a sound one shows nearly all of it. */
const OF_CEILING = 0.93;
/** Where nobody read the rate of the air, it is sound from this share on of what its band and width can show: 5 and 6 GHz fade sooner. */
const UNREAD_AIR = { near: 0.3, fading: 0.2 } as const;
/** Link rate of two streams with a short guard interval by channel width (IEEE 802.11n, ac), bits per second. */
const USUAL_LINK_BPS: Readonly<Record<number, number>> = { 20: 173e6, 40: 400e6, 80: 866e6, 160: 1733e6, 320: 2882e6 };
const USUAL_24_GHZ_BPS = 144e6;

type Way = 'down' | 'up';
const both = (of: (way: Way) => SoundRange | null) => ({ down: of('down'), up: of('up') });
const NOTHING_KNOWN = { down: null, up: null } as const;

function soundAir(link: Extract<Link, { medium: 'wifi' }>, ceiling: LinkCeiling | null): SoundRange {
  if (ceiling?.rangeBps) return { lowBps: 0.8 * ceiling.rangeBps.low, highBps: ceiling.rangeBps.high };
  const usual = link.band === '2.4' ? USUAL_24_GHZ_BPS : (USUAL_LINK_BPS[link.widthMHz ?? 40] ?? USUAL_LINK_BPS[40]!);
  const least = link.band === '2.4' ? UNREAD_AIR.near : UNREAD_AIR.fading;
  return { lowBps: least * 0.7 * usual, highBps: 0.7 * usual };
}

/** The id of a link's segment before any swap: a device's cable, or the air of an access point in a band. */
export function linkSegmentId(deviceId: string, link: Link): string {
  switch (link.medium) {
    case 'wired':
      return `cable:${deviceId}`;
    case 'wifi':
      return `air:${link.accessPoint ?? deviceId}|${link.band ?? '?'}`;
    case 'tunnel':
      return `vpn:${deviceId}`;
    case 'unknown':
      return `link:${deviceId}`;
  }
}

export interface OfficeFacts {
  readonly devices: readonly Device[];
  readonly peers: readonly StoredPeer[];
  readonly swaps: readonly StoredSwap[];
  readonly lines: readonly Line[];
  readonly plan: Plan | null;
  /** By peer: what its tunnel gives at best. */
  readonly tunnelPlans: ReadonlyMap<string, Plan>;
  /** By peer: rate of its own port, bits per second. */
  readonly peerPorts: ReadonlyMap<string, number>;
}

/** What tells the path of a run. */
type PathRun = Pick<EvidenceRun, 'deviceId' | 'link' | 'startedAtMs' | 'ipVersion' | 'reach' | 'lineId' | 'peerId'>;

/** Makes the segments of an office as runs mention them, each once, and tells a run's path. */
export class OfficeSegments {
  readonly #segments: Map<string, DiagnosedSegment>;
  /** A path that many runs take is one and the same list. */
  readonly #paths = new Map<string, readonly string[]>();
  /** By the link, which is one and the same of many runs, and what else a path hangs on. */
  readonly #ways = new WeakMap<Link, Map<string, readonly string[]>>();

  constructor(
    private readonly facts: OfficeFacts,
    segments: Iterable<readonly [string, DiagnosedSegment]> = [],
  ) {
    this.#segments = new Map(segments);
  }

  /** A copy with only what lies on these paths; what is mentioned to it is not mentioned here. */
  along(paths: readonly (readonly string[])[]): OfficeSegments {
    const mentioned = new Set([...new Set(paths)].flat());
    return new OfficeSegments(
      this.facts,
      [...this.#segments].filter(([id]) => mentioned.has(id)),
    );
  }

  get all(): DiagnosedSegment[] {
    return [...this.#segments.values()];
  }

  #generation(base: string, atMs: number): number {
    return this.facts.swaps.filter((swap) => swap.segmentId === base && swap.atMs <= atMs).length;
  }

  /** The segment as it stood at that time; made when it is mentioned first. */
  #at(
    base: string,
    atMs: number,
    of: Omit<DiagnosedSegment, 'id' | 'generation' | 'hours'>,
    rate: string = '',
  ): string {
    const generation = this.#generation(base, atMs);
    const id = `${base}${rate}${generation === 0 ? '' : `~${generation}`}`;
    const known = this.#segments.get(id);
    // A link that was read later is known better than before.
    if (known === undefined || (known.sound.down === null && of.sound.down !== null))
      this.#segments.set(id, { ...of, id, generation, hours: null });
    return id;
  }

  #plain(
    base: string,
    atMs: number,
    kind: DiagnosedSegment['kind'],
    name: string | null = null,
    sound = both(() => null),
  ) {
    return this.#at(base, atMs, { kind, name, deviceId: null, band: null, accessPoint: null, sound });
  }

  #link(run: Pick<EvidenceRun, 'deviceId' | 'link' | 'startedAtMs' | 'ipVersion'>, name: string): string {
    const { deviceId, link, startedAtMs } = run;
    const ceiling = ceilingOfLink(link, run.ipVersion ?? 4);
    const base = linkSegmentId(deviceId, link);
    const own = { name, deviceId, band: null, accessPoint: null };
    switch (link.medium) {
      case 'wired': {
        const range =
          ceiling === null ? null : { lowBps: OF_CEILING * ceiling.payloadBps, highBps: ceiling.payloadBps };
        // A port that came up at another rate is another cable, or a plug put in anew.
        const rate = link.negotiatedBps === null ? '' : `@${link.negotiatedBps / 1e6}`;
        return this.#at(base, startedAtMs, { ...own, kind: 'cable', sound: both(() => range) }, rate);
      }
      case 'wifi': {
        const { band, accessPoint } = link;
        const shared = accessPoint === undefined ? own : { ...own, name: accessPoint, deviceId: null };
        const sound = soundAir(link, ceiling);
        return this.#at(base, startedAtMs, {
          ...shared,
          ...{ kind: 'air', band, accessPoint: accessPoint ?? null, sound: both(() => sound) },
        });
      }
      case 'tunnel':
        return this.#at(base, startedAtMs, { ...own, kind: 'vpn', sound: NOTHING_KNOWN });
      case 'unknown':
        return this.#at(base, startedAtMs, { ...own, kind: 'unknown-link', sound: NOTHING_KNOWN });
    }
  }

  #line(lineId: string | null, atMs: number): string {
    const { lines, plan } = this.facts;
    const line = lines.find(({ id }) => id === lineId);
    const sound = both((way) => {
      if (plan === null) return null;
      const promised = planPayloadBps(plan, way);
      return { lowBps: plan.fullFrom * promised, highBps: OVER_PLAN * promised };
    });
    return this.#plain(`line:${lineId ?? 'unknown'}`, atMs, 'line', line?.name ?? null, sound);
  }

  #peer(peerId: string, atMs: number): string {
    const { peers, peerPorts, devices } = this.facts;
    const peer = peers.find(({ id }) => id === peerId);
    const fastest = Math.max(
      0,
      ...devices.map(({ link }) => (link.medium === 'wired' ? (link.negotiatedBps ?? 0) : 0)),
    );
    const portBps = peerPorts.get(peerId);
    // A port as fast as the fastest cable here holds nobody back; of a way whose link nobody read it would only promise.
    const ceiling =
      portBps === undefined || portBps >= fastest
        ? null
        : ceilingOfLink({ medium: 'wired', negotiatedBps: portBps, mtuBytes: 1500 }, 4);
    const range = ceiling === null ? null : { lowBps: OF_CEILING * ceiling.payloadBps, highBps: ceiling.payloadBps };
    return this.#plain(
      `peer:${peer?.reach ?? 'gone'}:${peerId}`,
      atMs,
      'peer',
      peer?.name ?? null,
      both(() => range),
    );
  }

  /** The agent of this office that a far end is; null: it is another. */
  #farDevice(peerId: string): Device | null {
    const agentId = this.facts.peers.find(({ id }) => id === peerId)?.agentId ?? null;
    return this.facts.devices.find(({ id }) => id === agentId) ?? null;
  }

  /** Ids of the segments of a path, from the device outwards. */
  pathOf(run: PathRun): readonly string[] {
    // All that a path hangs on.
    const { deviceId, reach, lineId, peerId, ipVersion, link, startedAtMs } = run;
    let swapped = 0;
    for (const { atMs } of this.facts.swaps) if (atMs <= startedAtMs) swapped += 1;
    let ways = this.#ways.get(link);
    if (ways === undefined) this.#ways.set(link, (ways = new Map<string, readonly string[]>()));
    const way = `${deviceId} ${reach} ${lineId} ${peerId} ${ipVersion} ${swapped}`;
    let path = ways.get(way);
    if (path === undefined) {
      const made = this.#mention(run);
      const key = made.join(' ');
      path = this.#paths.get(key) ?? made;
      this.#paths.set(key, path);
      ways.set(way, path);
    }
    return path;
  }

  #mention(run: PathRun): readonly string[] {
    const { deviceId, startedAtMs, reach, lineId, peerId } = run;
    const name = this.facts.devices.find(({ id }) => id === deviceId)?.name ?? null;
    const device = this.#at(`device:${deviceId}`, startedAtMs, {
      ...{ kind: 'device', name, deviceId, band: null, accessPoint: null, sound: NOTHING_KNOWN },
    });
    const inside = [device, this.#link(run, name ?? ''), this.#plain('hop', startedAtMs, 'hop')];
    const peer = this.#peer(peerId, startedAtMs);
    if (reach === 'local') return [...inside, peer];
    const farDevice = this.#farDevice(peerId);
    // Between two machines of this office the path ends at the other one, over its own link.
    if (reach === 'between' && farDevice !== null && lineId === null) {
      const { id, name: farName, link } = farDevice;
      const far = { deviceId: id, link, startedAtMs, ipVersion: run.ipVersion };
      const end = {
        kind: 'device',
        name: farName,
        deviceId: id,
        band: null,
        accessPoint: null,
        sound: NOTHING_KNOWN,
      } as const;
      return [...inside, this.#link(far, farName), this.#at(`device:${id}`, startedAtMs, end)];
    }
    const outwards = [
      ...inside,
      this.#plain('router', startedAtMs, 'router'),
      ...(reach === 'internet' || lineId !== null ? [this.#line(lineId, startedAtMs)] : []),
    ];
    if (reach === 'internet') return [...outwards, this.#plain(`far:${peerId}`, startedAtMs, 'far-network'), peer];
    const plan = this.facts.tunnelPlans.get(peerId);
    const range = both((way) => {
      if (plan === undefined) return null;
      const best = planPayloadBps(plan, way);
      return { lowBps: TUNNEL_LEAVES * best, highBps: best };
    });
    const far = this.facts.peers.find(({ id }) => id === peerId)?.name ?? null;
    return [
      ...outwards,
      this.#plain(`tunnel:${peerId}`, startedAtMs, 'tunnel', far, range),
      this.#plain(`far-line:${peerId}`, startedAtMs, 'far-line', far),
      peer,
    ];
  }
}
