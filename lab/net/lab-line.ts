import { existsSync } from 'node:fs';
import type { ChildProcess } from 'node:child_process';
import { command, commandIn, lineOf, startIn, ended } from './command';
import { delayForwarder } from './delay-program';
import { tokenBucket } from './token-bucket';

/** One direction of a line as the kernel shapes it. */
export interface ShapedDirection {
  /** What the shaper lets through, Mb/s of whole Ethernet frames without preamble and FCS; null: not shaped. */
  readonly rateMbps: number | null;
  /** How long the shaper's queue is when full, ms. */
  readonly queueMs: number;
}

export interface LabLineConfig {
  readonly down: ShapedDirection;
  readonly up: ShapedDirection;
  /** Round trip of the empty line that a forwarder adds, ms. */
  readonly baseMs: number;
  readonly mtuBytes: number;
  readonly congestion: 'cubic' | 'bbr' | 'reno';
  /** Share of packets dropped in each direction. */
  readonly lossRatio: number;
}

export const PLAIN_LINE: LabLineConfig = {
  down: { rateMbps: null, queueMs: 0 },
  up: { rateMbps: null, queueMs: 0 },
  baseMs: 0,
  mtuBytes: 1500,
  congestion: 'cubic',
  lossRatio: 0,
};

/** client – near (shapes down) – far (shapes up) – peer; near and far are joined by a cable or by the delay. */
const PLACES = ['client', 'near', 'far', 'peer'] as const;
type Place = (typeof PLACES)[number];

const ADDRESSES = {
  client: '10.87.1.2',
  nearToClient: '10.87.1.1',
  farToPeer: '10.87.3.1',
  peer: '10.87.3.2',
} as const;
const JOINT = { near: '10.87.2.1', far: '10.87.2.2' } as const;

/** How long a managed queue is when full, ms. */
const MANAGED_MS = 15;

export interface DropCounts {
  readonly tcp: number;
  readonly udp: number;
}

/** A line between namespaces that this process made. */
export class LabLine {
  readonly peerAddress = ADDRESSES.peer;
  readonly clientAddress = ADDRESSES.client;
  readonly clientDevice = 'client0';
  readonly peerDevice = 'peer0';
  readonly #prefix: string;
  #forwarder: ChildProcess | null = null;

  constructor(
    readonly config: LabLineConfig,
    tag = String(process.pid),
  ) {
    this.#prefix = `straw${tag}`;
  }

  netns(place: Place): string {
    return `${this.#prefix}-${place}`;
  }

  async open(): Promise<void> {
    const { baseMs, mtuBytes, congestion } = this.config;
    // Namespaces may choose only among what the machine allows.
    command('sysctl', '-qw', 'net.ipv4.tcp_allowed_congestion_control=reno bbr cubic');
    for (const place of PLACES) {
      command('ip', 'netns', 'add', this.netns(place));
      command('ip', '-n', this.netns(place), 'link', 'set', 'lo', 'up');
      commandIn(this.netns(place), 'sysctl', '-qw', 'net.ipv4.ip_forward=1');
      commandIn(this.netns(place), 'sysctl', '-qw', `net.ipv4.tcp_congestion_control=${congestion}`);
    }
    this.#cable('client', 'client0', 'near', 'near0');
    this.#cable('far', 'far0', 'peer', 'peer0');
    this.#address('client', 'client0', ADDRESSES.client);
    this.#address('near', 'near0', ADDRESSES.nearToClient);
    this.#address('far', 'far0', ADDRESSES.farToPeer);
    this.#address('peer', 'peer0', ADDRESSES.peer);
    if (baseMs > 0) await this.#joinByDelay(baseMs);
    else this.#cable('near', 'joint0', 'far', 'joint0');
    this.#address('near', 'joint0', JOINT.near);
    this.#address('far', 'joint0', JOINT.far);
    for (const [place, device] of this.#devices()) {
      command(
        'ip',
        '-n',
        this.netns(place),
        'link',
        'set',
        device,
        'mtu',
        String(mtuBytes),
        'txqueuelen',
        '10000',
        'up',
      );
    }
    this.#route('client', 'default', ADDRESSES.nearToClient);
    this.#route('near', '10.87.3.0/24', JOINT.far);
    this.#route('far', '10.87.1.0/24', JOINT.near);
    this.#route('peer', 'default', ADDRESSES.farToPeer);
    this.shape('down', this.config.down);
    this.shape('up', this.config.up);
    this.#dropSome();
  }

  #devices(): [Place, string][] {
    return [
      ['client', 'client0'],
      ['near', 'near0'],
      ['near', 'joint0'],
      ['far', 'joint0'],
      ['far', 'far0'],
      ['peer', 'peer0'],
    ];
  }

  #cable(place: Place, device: string, other: Place, otherDevice: string): void {
    command(
      ...(['ip', 'link', 'add', device, 'netns', this.netns(place), 'type', 'veth'] as const),
      ...(['peer', 'name', otherDevice, 'netns', this.netns(other)] as const),
    );
  }

  #address(place: Place, device: string, address: string): void {
    command('ip', '-n', this.netns(place), 'addr', 'add', `${address}/24`, 'dev', device);
  }

  #route(place: Place, to: string, via: string): void {
    command('ip', '-n', this.netns(place), 'route', 'add', to, 'via', via);
  }

  async #joinByDelay(baseMs: number): Promise<void> {
    const child = startIn(
      this.netns('near'),
      delayForwarder(),
      this.netns('near'),
      'joint0',
      this.netns('far'),
      'joint0',
      String(Math.round((baseMs * 1000) / 2)),
    );
    this.#forwarder = child;
    await lineOf(child, /^ready$/);
  }

  /** Sets, or changes while traffic flows, what one direction carries. */
  shape(direction: 'down' | 'up', { rateMbps, queueMs }: ShapedDirection): void {
    if (rateMbps === null) return;
    const [place, device] = direction === 'down' ? (['near', 'near0'] as const) : (['far', 'far0'] as const);
    tokenBucket(this.netns(place), device, { rateMbps, queueMs, mtuBytes: this.config.mtuBytes });
  }

  /**
   * A router's managed queue before the upload: short, and kept to a rate of whole packets, bits per second. A token bucket
   * before a short queue, for not every kernel has a queue discipline that measures how long packets stay.
   */
  manageQueue(bps: number): void {
    // Whole packets, as most routers count; the kernel counts the Ethernet header as well.
    const rateMbps = (bps * (1514 / 1500)) / 1e6;
    tokenBucket(this.netns('client'), this.clientDevice, { rateMbps, queueMs: MANAGED_MS });
  }

  #dropSome(): void {
    const perMillion = Math.round(this.config.lossRatio * 1e6);
    const drop = (device: string, protocol: 'tcp' | 'udp') =>
      `oifname "${device}" meta l4proto ${protocol} numgen random mod 1000000 < ${perMillion} counter drop`;
    this.#firewall('lost', [drop('near0', 'tcp'), drop('near0', 'udp')], 'near');
    this.#firewall('lost', [drop('far0', 'tcp'), drop('far0', 'udp')], 'far');
  }

  #firewall(table: string, rules: readonly string[], place: 'near' | 'far'): void {
    const netns = this.netns(place);
    commandIn(netns, 'nft', 'add', 'table', 'ip', table);
    commandIn(netns, 'nft', 'add', 'chain', 'ip', table, 'way', '{ type filter hook forward priority 0 ; }');
    for (const rule of rules) commandIn(netns, 'nft', 'add', 'rule', 'ip', table, 'way', ...rule.split(' '));
  }

  /** Packets that the kernel dropped by chance in one direction. */
  dropped(direction: 'down' | 'up'): DropCounts {
    const netns = this.netns(direction === 'down' ? 'near' : 'far');
    const listed = commandIn(netns, 'nft', 'list', 'chain', 'ip', 'lost', 'way');
    const count = (protocol: string) =>
      Number(new RegExp(`${protocol} numgen.*?counter packets (\\d+)`).exec(listed)?.[1] ?? NaN);
    return { tcp: count('tcp'), udp: count('udp') };
  }

  /** Lets nothing with payload through in the given directions, until the returned function is called. */
  cut(directions: readonly ('down' | 'up')[]): () => void {
    const cuts = directions.map((direction) =>
      direction === 'down' ? (['near', 'near0'] as const) : (['far', 'far0'] as const),
    );
    for (const [place, device] of cuts) this.#firewall('cut', [`oifname "${device}" meta length > 200 drop`], place);
    return () => {
      for (const [place] of cuts) commandIn(this.netns(place), 'nft', 'delete', 'table', 'ip', 'cut');
    };
  }

  async close(): Promise<void> {
    if (this.#forwarder !== null) {
      this.#forwarder.stdin!.end();
      await ended(this.#forwarder);
    }
    for (const place of PLACES) removeNamespace(this.netns(place));
  }
}

/**
 * What the line carries at best, bits per second of TCP payload: shaper's rate, less what the lab itself sends, ×
 * (MTU − 52) / (MTU + 14).
 */
export function carriedBps({ rateMbps }: ShapedDirection, mtuBytes: number, takenBps = 0): number | null {
  return rateMbps === null ? null : ((rateMbps * 1e6 - takenBps) * (mtuBytes - 52)) / (mtuBytes + 14);
}

/** One that somebody else has removed meanwhile is removed. */
function removeNamespace(name: string): void {
  try {
    command('ip', 'netns', 'del', name);
  } catch (error) {
    if (existsSync(`/run/netns/${name}`)) throw error;
  }
}

/** Removes namespaces that an interrupted lab of a process that is gone has left. */
export function removeLeftNamespaces(own?: number): void {
  for (const line of command('ip', 'netns', 'list').split('\n')) {
    const [name = '', pid] = /^straw(\d+)-\w+/.exec(line) ?? [];
    if (pid === undefined) continue;
    if (Number(pid) === own) {
      removeNamespace(name);
      continue;
    }
    try {
      process.kill(Number(pid), 0);
    } catch {
      removeNamespace(name);
    }
  }
}
