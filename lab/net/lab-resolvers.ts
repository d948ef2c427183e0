import type { ChildProcess } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { command, commandIn, ended, lineOf, startIn } from './command';
import { delayForwarder } from './delay-program';

/** Names that the zone of the lab has; nothing else is in it, and none of them is a wildcard. */
export const LAB_NAMES = ['printer', 'files', 'mail', 'wiki'].map((host) => `${host}.lab.test`);
/** Which program each resolver is. */
export const RESOLVER_PROGRAMS = ['unbound', 'dnsmasq', 'unbound', 'dnsmasq'] as const;
const ZONE_AT = '10.90.0.2';
const MADE_UP = '10.66.6.6';

export const resolverAt = (place: number) => `10.91.${place}.2`;
/** The same machine, by a resolver that knows an address for every name. */
export const liarAt = (place: number) => `10.91.${place}.3`;

/** Waits until somebody answers at port 53 of an address. */
async function listens(netns: string, address: string): Promise<void> {
  for (let tries = 0; tries < 100; tries += 1) {
    if (commandIn(netns, 'ss', '-Hlun').includes(`${address}:53 `)) return;
    await sleep(100);
  }
  throw new Error(`nobody answers at ${address} in ${netns}`);
}

/**
 * A client, resolvers each behind a delay of its own, and behind all of them a server with the zone, behind one more:
 * client – wire – resolver – hub – wire – zone. All namespaces and programs are this process's own.
 */
export class LabResolvers {
  readonly #prefix = `straw${process.pid}`;
  readonly #folder = mkdtempSync(join(tmpdir(), 'bent-straw-names-'));
  readonly #servers: ChildProcess[] = [];
  #wires: ChildProcess[] = [];

  netns(place: 'client' | 'hub' | 'zone' | number): string {
    return `${this.#prefix}-${place}`;
  }

  #all() {
    return ['client', 'hub', 'zone', ...RESOLVER_PROGRAMS.keys()] as const;
  }

  async open(): Promise<void> {
    for (const place of this.#all()) {
      command('ip', 'netns', 'add', this.netns(place));
      command('ip', '-n', this.netns(place), 'link', 'set', 'lo', 'up');
      commandIn(this.netns(place), 'sysctl', '-qw', 'net.ipv4.ip_forward=1');
    }
    // What `ip netns exec` shows as the machine's own settings.
    const own = join('/etc/netns', this.netns('client'));
    mkdirSync(own, { recursive: true });
    writeFileSync(join(own, 'resolv.conf'), `nameserver ${resolverAt(0)}\n`);
    for (const place of RESOLVER_PROGRAMS.keys()) {
      const netns = this.netns(place);
      command(
        ...(['ip', 'link', 'add', 'up0', 'netns', netns, 'type', 'veth'] as const),
        ...(['peer', 'name', `r${place}`, 'netns', this.netns('hub')] as const),
      );
      this.#address(netns, 'up0', `10.89.${place}.2/24`);
      this.#address(this.netns('hub'), `r${place}`, `10.89.${place}.1/24`);
      command('ip', '-n', netns, 'route', 'add', '10.90.0.0/24', 'via', `10.89.${place}.1`);
      for (const address of [resolverAt(place), liarAt(place)]) this.#address(netns, 'lo', `${address}/32`);
    }
    await this.delays(
      RESOLVER_PROGRAMS.map(() => 1),
      1,
    );
    this.#serveZone();
    await listens(this.netns('zone'), '0.0.0.0');
    for (const [place, program] of RESOLVER_PROGRAMS.entries()) {
      if (program === 'unbound') this.#unbound(this.netns(place), resolverAt(place), [], FORWARDING);
      else this.#dnsmasq(place, resolverAt(place), `--server=${ZONE_AT}`);
      this.#dnsmasq(place, liarAt(place), `--address=/#/${MADE_UP}`);
      for (const address of [resolverAt(place), liarAt(place)]) await listens(this.netns(place), address);
    }
  }

  /** Round trips of the ways from now on, ms: from the client to each resolver, and from all of them to the zone. */
  async delays(toResolvers: readonly number[], toZone: number): Promise<void> {
    await this.#endWires();
    const client = this.netns('client');
    for (const [place, ms] of toResolvers.entries()) {
      await this.#wire(client, `wire${place}`, this.netns(place), 'wire', ms);
      this.#address(client, `wire${place}`, `10.88.${place}.1/24`);
      this.#address(this.netns(place), 'wire', `10.88.${place}.2/24`);
      command('ip', '-n', client, 'route', 'add', `10.91.${place}.0/24`, 'via', `10.88.${place}.2`);
    }
    await this.#wire(this.netns('hub'), 'far0', this.netns('zone'), 'near0', toZone);
    this.#address(this.netns('hub'), 'far0', '10.90.0.1/24');
    this.#address(this.netns('zone'), 'near0', `${ZONE_AT}/24`);
    command('ip', '-n', this.netns('zone'), 'route', 'add', '10.89.0.0/16', 'via', '10.90.0.1');
  }

  async close(): Promise<void> {
    for (const server of this.#servers) server.kill('SIGTERM');
    await Promise.all(this.#servers.map(ended));
    await this.#endWires();
    for (const place of this.#all()) command('ip', 'netns', 'del', this.netns(place));
    rmSync(join('/etc/netns', this.netns('client')), { recursive: true, force: true });
    rmSync(this.#folder, { recursive: true, force: true });
  }

  #address(netns: string, device: string, address: string): void {
    command('ip', '-n', netns, 'addr', 'add', address, 'dev', device);
    command('ip', '-n', netns, 'link', 'set', device, 'up');
  }

  async #wire(netns: string, device: string, other: string, otherDevice: string, ms: number): Promise<void> {
    const oneWayUs = String(Math.round((ms * 1000) / 2));
    const child = startIn(netns, delayForwarder(), netns, device, other, otherDevice, oneWayUs);
    this.#wires.push(child);
    await lineOf(child, /^ready$/);
  }

  async #endWires(): Promise<void> {
    for (const wire of this.#wires) wire.stdin!.end();
    await Promise.all(this.#wires.map(ended));
    this.#wires = [];
  }

  #serveZone(): void {
    const hosts = LAB_NAMES.map((name, place) => `local-data: "${name}. 300 IN A 203.0.113.${place + 1}"`);
    const soa = 'local-data: "lab.test. 300 IN SOA ns.lab.test. root.lab.test. 1 300 300 300 300"';
    this.#unbound(this.netns('zone'), '0.0.0.0', ['local-zone: "lab.test." static', soa, ...hosts]);
  }

  #unbound(netns: string, address: string, more: readonly string[], sections = ''): void {
    const file = join(this.#folder, `${netns}.conf`);
    const server = [
      ...[`interface: ${address}`, 'access-control: 0.0.0.0/0 allow', 'do-daemonize: no', 'use-syslog: no'],
      ...[
        `logfile: "${file}.log"`,
        `directory: "${this.#folder}"`,
        'username: ""',
        'chroot: ""',
        'pidfile: ""',
        'module-config: "iterator"',
        'do-ip6: no',
      ],
      ...['do-not-query-localhost: no', 'local-zone: "test." nodefault', 'num-threads: 1'],
    ];
    writeFileSync(file, `server:\n${[...server, ...more].map((line) => `  ${line}\n`).join('')}${sections}`);
    this.#servers.push(startIn(netns, 'unbound', '-d', '-c', file));
  }

  #dnsmasq(place: number, address: string, ...more: string[]): void {
    this.#servers.push(
      startIn(
        this.netns(place),
        ...['dnsmasq', '--keep-in-foreground', '--conf-file=/dev/null', '--no-resolv', '--no-hosts', '--user=root'],
        ...['--pid-file=', `--listen-address=${address}`, '--bind-interfaces', '--cache-size=1000', ...more],
      ),
    );
  }
}

/** Of `unbound` as a resolver: asks the server of the zone, and remembers what it said. */
const FORWARDING = `forward-zone:\n  name: "."\n  forward-addr: ${ZONE_AT}\n`;
