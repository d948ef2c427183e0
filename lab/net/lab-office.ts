import { spawn, type ChildProcess } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Reach } from '@/core';
import { NEW_LINE, NEW_PEER, NEW_PLAN, openStore } from '@/store';
import { publicKeyText, readSigningKey } from '@/wire/peer/ticket';
import { command, commandIn, ended, lineOf, startIn } from './command';
import { delayForwarder } from './delay-program';
import { tokenBucket } from './token-bucket';

/** Hosts of the office behind its switch, and what lies outside. */
const HOSTS = ['console', 'press', 'bench', 'scan', 'router'] as const;
export type LabDevice = 'press' | 'bench' | 'scan';
const PLACES = [...HOSTS, 'switch', 'provider', 'outside', 'far'] as const;
type Place = (typeof PLACES)[number];

const OFFICE = {
  console: '10.88.1.1',
  press: '10.88.1.11',
  bench: '10.88.1.12',
  scan: '10.88.1.13',
  router: '10.88.1.254',
};
const OUTSIDE = '10.88.3.2';
const FAR = '10.88.4.2';
const PORT = 4870;
const CABLE_MBPS = 1000;
/** What the contracts of both offices promise, Mb/s. */
export const LAB_PLAN = { downMbps: 200, upMbps: 50 } as const;
export const FAR_PLAN = { downMbps: 100, upMbps: 20 } as const;
/** A contract counts the payload; the shaper whole frames. */
const FRAMES_OF_PAYLOAD = 1514 / 1448;
const SHORT_MS = 20;
/** Round trip of the empty line, ms. */
const LINE_RTT_MS = 15;
/** A processor quota is given per so much time, µs (Linux CFS bandwidth control). */
const QUOTA_PERIOD_US = 50_000;

/** What is wrong in the office, if anything. */
export interface LabFault {
  /** Rate of the bench's port, Mb/s, and at what its cable came up. */
  readonly benchPortMbps?: number;
  /** Share of packets that the bench's cable loses, each way. */
  readonly benchLoss?: number;
  /** Share of one processor that the bench has. */
  readonly benchProcessor?: number;
  readonly upQueueMs?: number;
  /** What the far office's line gives up, payload Mb/s. */
  readonly farUpMbps?: number;
}

/** A small office in namespaces: three devices and the console behind a switch, a router, a line, two far ends. */
export class LabOffice {
  readonly siteName = 'Lab';
  readonly #prefix = `straw${process.pid}`;
  readonly #data = mkdtempSync(join(tmpdir(), 'bent-straw-lab-'));
  readonly #state = mkdtempSync(join(tmpdir(), 'bent-straw-lab-'));
  readonly #children: ChildProcess[] = [];
  readonly #quota = `/sys/fs/cgroup/cpu/straw${process.pid}`;
  #joinAddress = '';
  #hasQuota = false;

  constructor(private readonly fault: LabFault) {}

  get database(): string {
    return join(this.#data, 'bent-straw.sqlite');
  }

  #netns(place: Place): string {
    return `${this.#prefix}-${place}`;
  }

  async open(): Promise<void> {
    for (const place of PLACES) {
      command('ip', 'netns', 'add', this.#netns(place));
      command('ip', '-n', this.#netns(place), 'link', 'set', 'lo', 'up');
      commandIn(this.#netns(place), 'sysctl', '-qw', 'net.ipv4.ip_forward=1');
      commandIn(this.#netns(place), 'sysctl', '-qw', 'net.ipv4.tcp_congestion_control=cubic');
    }
    command('ip', '-n', this.#netns('switch'), 'link', 'add', 'br0', 'type', 'bridge');
    command('ip', '-n', this.#netns('switch'), 'link', 'set', 'br0', 'up');
    for (const host of HOSTS) {
      this.#cable(host, 'eth0', 'switch', host);
      command('ip', '-n', this.#netns('switch'), 'link', 'set', host, 'master', 'br0');
      this.#address(host, 'eth0', OFFICE[host]);
    }
    // The line's own way takes a while: without any, lost packets would cost nothing.
    const delay = startIn(
      ...([this.#netns('router'), delayForwarder(), this.#netns('router'), 'wan0'] as const),
      ...([this.#netns('provider'), 'office0', String((LINE_RTT_MS * 1000) / 2)] as const),
    );
    this.#children.push(delay);
    await lineOf(delay, /^ready$/);
    for (const [place, device] of [
      ['router', 'wan0'],
      ['provider', 'office0'],
    ] as const)
      command('ip', '-n', this.#netns(place), 'link', 'set', device, 'txqueuelen', '10000', 'up');
    this.#address('router', 'wan0', '10.88.2.1');
    this.#address('provider', 'office0', '10.88.2.2');
    for (const [place, address, device] of [
      ['outside', OUTSIDE, 'out0'],
      ['far', FAR, 'far0'],
    ] as const) {
      this.#cable(place, 'eth0', 'provider', device);
      this.#address(place, 'eth0', address);
      this.#address('provider', device, address.replace(/\d+$/, '1'));
      this.#route(place, 'default', address.replace(/\d+$/, '1'));
    }
    for (const host of ['console', 'press', 'bench', 'scan'] as const) this.#route(host, 'default', OFFICE.router);
    this.#route('router', 'default', '10.88.2.2');
    this.#route('provider', '10.88.1.0/24', '10.88.2.1');
    for (const device of ['press', 'bench', 'scan'] as const) {
      const mbps = device === 'bench' ? (this.fault.benchPortMbps ?? CABLE_MBPS) : CABLE_MBPS;
      this.#shape(device, 'eth0', mbps, SHORT_MS / 4);
      this.#shape('switch', device, mbps, SHORT_MS / 4);
    }
    this.shapeLine(LAB_PLAN.downMbps);
    this.#shape('router', 'wan0', LAB_PLAN.upMbps * FRAMES_OF_PAYLOAD, this.fault.upQueueMs ?? SHORT_MS);
    this.#shape('provider', 'far0', FAR_PLAN.downMbps * FRAMES_OF_PAYLOAD, SHORT_MS);
    this.#shape('far', 'eth0', (this.fault.farUpMbps ?? FAR_PLAN.upMbps) * FRAMES_OF_PAYLOAD, SHORT_MS);
    if (this.fault.benchLoss !== undefined) this.#lose(this.fault.benchLoss);
    if (this.fault.benchProcessor !== undefined) this.#limitProcessor(this.fault.benchProcessor);
    await this.#startPrograms();
  }

  #cable(place: Place, device: string, other: Place, otherDevice: string): void {
    command(
      ...(['ip', 'link', 'add', device, 'netns', this.#netns(place), 'type', 'veth'] as const),
      ...(['peer', 'name', otherDevice, 'netns', this.#netns(other)] as const),
    );
    for (const [at, name] of [
      [place, device],
      [other, otherDevice],
    ] as const)
      command('ip', '-n', this.#netns(at), 'link', 'set', name, 'txqueuelen', '10000', 'up');
  }

  #address(place: Place, device: string, address: string): void {
    command('ip', '-n', this.#netns(place), 'addr', 'add', `${address}/24`, 'dev', device);
  }

  #route(place: Place, to: string, via: string): void {
    command('ip', '-n', this.#netns(place), 'route', 'add', to, 'via', via);
  }

  #shape(place: Place, device: string, rateMbps: number, queueMs: number): void {
    tokenBucket(this.#netns(place), device, { rateMbps, queueMs });
  }

  /** What the provider's line gives down, payload Mb/s. */
  shapeLine(downMbps: number): void {
    this.#shape('provider', 'office0', downMbps * FRAMES_OF_PAYLOAD, SHORT_MS);
  }

  #lose(share: number): void {
    const netns = this.#netns('bench');
    const lost = `numgen random mod 1000000 < ${Math.round(share * 1e6)} drop`;
    commandIn(netns, 'nft', 'add', 'table', 'ip', 'lost');
    for (const hook of ['input', 'output'] as const) {
      commandIn(netns, 'nft', 'add', 'chain', 'ip', 'lost', hook, `{ type filter hook ${hook} priority 0 ; }`);
      commandIn(netns, 'nft', 'add', 'rule', 'ip', 'lost', hook, 'meta', 'l4proto', 'tcp', ...lost.split(' '));
    }
  }

  #limitProcessor(share: number): void {
    mkdirSync(this.#quota);
    this.#hasQuota = true;
    writeFileSync(join(this.#quota, 'cpu.cfs_period_us'), String(QUOTA_PERIOD_US));
    writeFileSync(join(this.#quota, 'cpu.cfs_quota_us'), String(Math.round(QUOTA_PERIOD_US * share)));
  }

  async #startPrograms(): Promise<void> {
    const start = async () => {
      const args = ['dist/launch.js', 'start', '--no-agent', '--data', this.#data, '--port', String(PORT)];
      args.push('--office', this.siteName);
      const child = startIn(this.#netns('console'), process.execPath, ...args);
      const printed = await lineOf(child, /\(code \w+\)/);
      child.stdout!.resume();
      return { child, code: /\(code (\w+)\)/.exec(printed)![1]! };
    };
    // Once to make its folder and its office; then with what a technician would enter in the set-up.
    const first = await start();
    first.child.kill('SIGINT');
    await ended(first.child);
    const key = publicKeyText(readSigningKey(readFileSync(join(this.#data, 'console-key.pem'), 'utf8')));
    await this.#furnish();
    for (const [place, name] of [
      ['outside', 'outside peer'],
      ['far', 'far office'],
    ] as const) {
      const identity = join(this.#data, `${place}-key.pem`);
      const args = ['dist/peer-cli.js', '--name', name, '--port', String(PORT), '--key', identity, '--trust', key];
      const peer = startIn(this.#netns(place), process.execPath, ...args);
      await lineOf(peer, /Stop with/);
      peer.stdout!.resume();
      this.#children.push(peer);
    }
    const { child, code } = await start();
    this.#children.push(child);
    this.#joinAddress = `http://${OFFICE.console}:${PORT}/j/${code}`;
  }

  async #furnish(): Promise<void> {
    const store = await openStore(this.database);
    const { sites } = store;
    const [site] = await sites.all();
    const farId = 'far-site';
    await sites.saveSite({ ...site!, id: farId, name: 'Over there', joinCode: 'FARFAR' });
    const promise = async (siteId: string, lineId: string, plan: { downMbps: number; upMbps: number }) => {
      await sites.saveLine({ ...NEW_LINE, id: lineId, siteId, name: `line of ${lineId}`, provider: 'lab' });
      await sites.savePlan({
        ...{
          ...NEW_PLAN,
          id: `plan of ${lineId}`,
          lineId,
          name: `plan ${lineId}`,
          basis: 'payload',
          fullFrom: 0.9,
          validFromMs: 0,
        },
        ...{ downBps: plan.downMbps * 1e6, upBps: plan.upMbps * 1e6, leastDownBps: null, leastUpBps: null },
      });
      await sites.saveLineSwitch({ id: `switch of ${lineId}`, siteId, lineId, atMs: 0 });
    };
    await promise(site!.id, 'lab', LAB_PLAN);
    await promise(farId, 'far', FAR_PLAN);
    const peer = { ...NEW_PEER, siteId: site!.id } as const;
    await sites.savePeer({
      ...{ ...peer, id: 'out', name: 'outside peer', reach: 'internet', address: `http://${OUTSIDE}:${PORT}` },
    });
    await sites.savePeer({
      ...{
        ...peer,
        id: 'far',
        name: 'far office',
        reach: 'tunnel',
        address: `http://${FAR}:${PORT}`,
        farSiteId: farId,
      },
    });
    await store.close();
  }

  /** One quick run of a device, as the agent makes it. Gives the id of its run; throws with what it said otherwise. */
  run(device: LabDevice, reach: Reach): Promise<string> {
    const mbps = device === 'bench' ? (this.fault.benchPortMbps ?? CABLE_MBPS) : CABLE_MBPS;
    const agent = ['dist/agent-cli.js', 'run', this.#joinAddress, '--name', device, '--reach', reach];
    const words = [...agent, '--profile', 'quick', '--cable-mbps', String(mbps), '--json'];
    const netns = ['netns', 'exec', this.#netns(device), process.execPath, ...words];
    const limited = device === 'bench' && this.#hasQuota;
    const [file, args] = limited
      ? ['sh', ['-c', `echo $$ > ${join(this.#quota, 'cgroup.procs')}; exec ip "$@"`, 'sh', ...netns]]
      : ['ip', netns];
    return new Promise((resolve, reject) => {
      const child = spawn(file, args, {
        env: { ...process.env, XDG_STATE_HOME: join(this.#state, device) },
        stdio: ['ignore', 'pipe', 'pipe'],
      });
      let [out, said] = ['', ''];
      child.stdout.on('data', (part: Buffer) => (out += part.toString()));
      child.stderr.on('data', (part: Buffer) => (said += part.toString()));
      child.once('exit', () => {
        try {
          resolve((JSON.parse(out) as { runId: string }).runId);
        } catch {
          reject(new Error(`${device}, ${reach}: ${said.trim()}`));
        }
      });
    });
  }

  async close(): Promise<void> {
    for (const child of this.#children.reverse()) {
      child.stdin?.end();
      child.kill('SIGINT');
      await ended(child);
    }
    for (const place of PLACES) command('ip', 'netns', 'del', this.#netns(place));
    if (this.#hasQuota) rmdirSync(this.#quota);
    for (const folder of [this.#data, this.#state]) rmSync(folder, { recursive: true, force: true });
  }
}
