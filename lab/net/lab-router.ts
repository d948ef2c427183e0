import type { ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { command, commandIn, ended, isInstalled, lineOf, startIn } from './command';

const PLACES = ['router', 'provider', 'others'] as const;
type Place = (typeof PLACES)[number];

export const ROUTER = { inside: '10.78.1.1', box: '10.78.1.9', provider: '10.78.2.2', others: '10.78.5.2' } as const;
const SERVER_PORT = 5001;
const COMMUNITY = 'straw';
const OWN_CABLE = 'straw-box';

/** What the kernel itself counted at a moment. */
export interface KernelCount {
  readonly atMs: number;
  readonly bytes: number;
}

/**
 * A router between a provider and an office in which two take what comes: this process, at the end of a cable of its own, and others.
 * Debian's snmpd and miniupnpd say on it what its ports count. Ports are shaped at the provider, so that what is dropped never came.
 */
export class LabRouter {
  readonly community = COMMUNITY;
  readonly #folder = mkdtempSync(join(tmpdir(), 'bent-straw-router-'));
  readonly #children: ChildProcess[] = [];
  #shaped = false;

  netns(place: Place): string {
    return `straw${process.pid}-${place}`;
  }

  /** Sentence with what is missing; null: all is there. */
  static missing(): string | null {
    const files = ['snmpd', 'miniupnpd'].filter((file) => !isInstalled(file));
    return files.length === 0
      ? null
      : `This table needs Debian's ${files.join(' and ')}. Install them, then start again.`;
  }

  async open(): Promise<void> {
    for (const place of PLACES) {
      command('ip', 'netns', 'add', this.netns(place));
      command('ip', '-n', this.netns(place), 'link', 'set', 'lo', 'up');
      commandIn(this.netns(place), 'sysctl', '-qw', 'net.ipv4.ip_forward=1');
    }
    const inside = ['peer', 'name', 'lan0', 'netns', this.netns('router')];
    command('ip', 'link', 'add', OWN_CABLE, 'type', 'veth', ...inside);
    command('ip', 'addr', 'add', `${ROUTER.box}/24`, 'dev', OWN_CABLE);
    command('ip', 'link', 'set', OWN_CABLE, 'up');
    this.#address('router', 'lan0', ROUTER.inside);
    for (const [place, device, address] of [
      ['provider', 'wan0', ROUTER.provider],
      ['others', 'oth0', ROUTER.others],
    ] as const) {
      command(
        ...(['ip', 'link', 'add', 'eth0', 'netns', this.netns(place), 'type', 'veth'] as const),
        ...(['peer', 'name', device, 'netns', this.netns('router')] as const),
      );
      this.#address(place, 'eth0', address);
      this.#address('router', device, address.replace(/\d+$/, '1'));
      command('ip', '-n', this.netns(place), 'route', 'add', 'default', 'via', address.replace(/\d+$/, '1'));
    }
    command('ip', 'route', 'add', `${ROUTER.provider}/32`, 'via', ROUTER.inside);
    // Each packet is a frame, as on a cable: what one machine hands to the other in large pieces is counted with one head.
    for (const place of ['provider', 'others'] as const)
      command('ip', '-n', this.netns(place), 'link', 'set', 'eth0', 'gso_max_segs', '1');
    command('ip', 'link', 'set', OWN_CABLE, 'gso_max_segs', '1');
    const server = startIn(
      this.netns('provider'),
      process.execPath,
      'lab/children/endless-server.mjs',
      String(SERVER_PORT),
    );
    this.#children.push(server);
    await lineOf(server, /listening/);
    this.#serve();
  }

  /** Rates from the provider to each, Mb/s. */
  shape(own: number, others: number): void {
    const tc = (...args: string[]) => commandIn(this.netns('provider'), 'tc', ...args);
    if (this.#shaped) tc('qdisc', 'del', 'dev', 'eth0', 'root');
    this.#shaped = true;
    tc('qdisc', 'add', 'dev', 'eth0', 'root', 'handle', '1:', 'htb');
    for (const [place, [rate, address]] of (
      [
        [own, ROUTER.box],
        [others, ROUTER.others],
      ] as const
    ).entries()) {
      const name = `1:${place + 1}`;
      tc(
        'class',
        'replace',
        'dev',
        'eth0',
        'parent',
        '1:',
        'classid',
        name,
        'htb',
        'rate',
        `${rate}mbit`,
        'burst',
        '64k',
      );
      tc('qdisc', 'replace', 'dev', 'eth0', 'parent', name, 'pfifo', 'limit', '400');
      tc(
        'filter',
        'add',
        'dev',
        'eth0',
        'parent',
        '1:',
        'protocol',
        'ip',
        'u32',
        'match',
        'ip',
        'dst',
        `${address}/32`,
        'flowid',
        name,
      );
    }
  }

  /** Others take what comes until it is stopped. */
  async others(): Promise<() => Promise<void>> {
    const args = ['lab/children/endless-client.mjs', ROUTER.provider, String(SERVER_PORT)];
    const child = startIn(this.netns('others'), process.execPath, ...args);
    await lineOf(child, /connected/);
    return () => {
      child.stdin!.end();
      return ended(child);
    };
  }

  readonly server = { host: ROUTER.provider, port: SERVER_PORT };

  /** The router's interface as SNMP numbers it. */
  indexOf(device: string): string {
    return commandIn(this.netns('router'), 'cat', `/sys/class/net/${device}/ifindex`).trim();
  }

  /** What came in at the line, or went out to the others, by the kernel's own count. */
  counted(device: 'wan0' | 'oth0'): KernelCount {
    const which = device === 'wan0' ? 'rx_bytes' : 'tx_bytes';
    const bytes = Number(commandIn(this.netns('router'), 'cat', `/sys/class/net/${device}/statistics/${which}`));
    return { atMs: Date.now(), bytes };
  }

  async close(): Promise<void> {
    for (const child of this.#children) child.kill('SIGTERM');
    await Promise.all(this.#children.map(ended));
    for (const place of PLACES) command('ip', 'netns', 'del', this.netns(place));
    rmSync(this.#folder, { recursive: true, force: true });
  }

  #serve(): void {
    const [snmp, igd] = [join(this.#folder, 'snmpd.conf'), join(this.#folder, 'miniupnpd.conf')];
    writeFileSync(snmp, `rocommunity ${COMMUNITY} 10.78.1.0/24\nagentaddress udp:${ROUTER.inside}:161\n`);
    writeFileSync(
      igd,
      [
        'ext_ifname=wan0',
        'ext_ip=11.22.33.44',
        'listening_ip=lan0',
        'port=5431',
        'enable_natpmp=no',
        'enable_upnp=yes',
        'secure_mode=yes',
        'system_uptime=yes',
        'uuid=00000000-0000-4000-8000-000000000001',
        '',
      ].join('\n'),
    );
    const router = this.netns('router');
    this.#children.push(
      startIn(router, 'snmpd', '-f', '-Lo', '-C', '-c', snmp, '-p', join(this.#folder, 'snmpd.pid')),
      // It says each request that it is asked.
      startIn(router, 'sh', '-c', `exec miniupnpd -d -f ${igd} -P ${this.#folder}/miniupnpd.pid 2>/dev/null`),
    );
    for (const child of this.#children) child.stdout?.resume();
  }

  #address(place: Place, device: string, address: string): void {
    command('ip', '-n', this.netns(place), 'addr', 'add', `${address}/24`, 'dev', device);
    command('ip', '-n', this.netns(place), 'link', 'set', device, 'up');
  }
}
