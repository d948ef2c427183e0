import { command, commandIn } from './command';

/** Where things stand in a small office whose ways can be cut: all by cables, without shapers. */
const PLACES = ['box', 'router', 'provider', 'outside', 'far', 'store'] as const;
type Place = (typeof PLACES)[number];

export const WAY = {
  gateway: '10.77.1.1',
  store: '10.77.1.2',
  peer: '10.77.3.2',
  resolver: '10.77.3.3',
  far: '10.77.4.2',
} as const;
export type WayTarget = keyof typeof WAY;

/** What is cut. */
export type Cut = 'cable of the box' | 'router' | 'line' | 'peer' | 'far end' | 'store';

/** One office in namespaces of its own: a box behind a router, a line, two hosts outside, a far end, a store inside. */
export class LabWay {
  constructor(private readonly number: number) {}

  netns(place: Place): string {
    return `straw${process.pid}-${this.number}-${place}`;
  }

  open(): void {
    for (const place of PLACES) {
      command('ip', 'netns', 'add', this.netns(place));
      command('ip', '-n', this.netns(place), 'link', 'set', 'lo', 'up');
      commandIn(this.netns(place), 'sysctl', '-qw', 'net.ipv4.ip_forward=1');
    }
    const router = this.netns('router');
    command('ip', '-n', router, 'link', 'add', 'br0', 'type', 'bridge');
    command('ip', '-n', router, 'link', 'set', 'br0', 'up');
    this.#address('router', 'br0', WAY.gateway);
    for (const [place, address] of [
      ['box', '10.77.1.9'],
      ['store', WAY.store],
    ] as const) {
      this.#cable(place, 'eth0', 'router', place);
      command('ip', '-n', router, 'link', 'set', place, 'master', 'br0');
      this.#address(place, 'eth0', address);
      this.#route(place, 'default', WAY.gateway);
    }
    this.#cable('router', 'wan0', 'provider', 'office0');
    this.#address('router', 'wan0', '10.77.2.1');
    this.#address('provider', 'office0', '10.77.2.2');
    this.#route('router', 'default', '10.77.2.2');
    this.#route('provider', '10.77.1.0/24', '10.77.2.1');
    for (const [place, device, address] of [
      ['outside', 'out0', WAY.peer],
      ['far', 'far0', WAY.far],
    ] as const) {
      this.#cable(place, 'eth0', 'provider', device);
      this.#address(place, 'eth0', address);
      this.#address('provider', device, address.replace(/\d+$/, '1'));
      this.#route(place, 'default', address.replace(/\d+$/, '1'));
    }
    this.#address('outside', 'eth0', WAY.resolver);
    for (const place of ['router', 'provider', 'outside', 'store', 'far'] as const) {
      commandIn(this.netns(place), 'nft', 'add', 'table', 'ip', 'cut');
      for (const hook of ['input', 'forward'])
        commandIn(
          this.netns(place),
          'nft',
          'add',
          'chain',
          'ip',
          'cut',
          hook,
          `{ type filter hook ${hook} priority 0 ; }`,
        );
    }
  }

  /** Cuts a way, as quietly as a broken one is: nobody says that it is gone. Returns what mends it. */
  cut(what: Cut): () => void {
    const dropAt = (place: Place, hook: 'input' | 'forward', ...match: string[]) => {
      const netns = this.netns(place);
      commandIn(netns, 'nft', 'add', 'rule', 'ip', 'cut', hook, ...match, 'drop');
      return () => void commandIn(netns, 'nft', 'flush', 'chain', 'ip', 'cut', hook);
    };
    switch (what) {
      case 'cable of the box':
        // The port of the switch goes down: the box itself still believes in its cable.
        command('ip', '-n', this.netns('router'), 'link', 'set', 'box', 'nomaster');
        return () => void command('ip', '-n', this.netns('router'), 'link', 'set', 'box', 'master', 'br0');
      case 'router': {
        const mends = (['input', 'forward'] as const).map((hook) => dropAt('router', hook, 'ip', 'saddr', '10.77.1.9'));
        return () => mends.forEach((mend) => mend());
      }
      case 'line':
        return dropAt('provider', 'forward', 'ip', 'saddr', '10.77.1.0/24');
      case 'peer':
        return dropAt('outside', 'input', 'ip', 'daddr', WAY.peer);
      case 'far end':
        return dropAt('far', 'input', 'ip', 'daddr', WAY.far);
      case 'store':
        return dropAt('store', 'input', 'ip', 'daddr', WAY.store);
    }
  }

  close(): void {
    for (const place of PLACES) command('ip', 'netns', 'del', this.netns(place));
  }

  #cable(place: Place, device: string, other: Place, otherDevice: string): void {
    command(
      ...(['ip', 'link', 'add', device, 'netns', this.netns(place), 'type', 'veth'] as const),
      ...(['peer', 'name', otherDevice, 'netns', this.netns(other)] as const),
    );
    command('ip', '-n', this.netns(place), 'link', 'set', device, 'up');
    command('ip', '-n', this.netns(other), 'link', 'set', otherDevice, 'up');
  }

  #address(place: Place, device: string, address: string): void {
    command('ip', '-n', this.netns(place), 'addr', 'add', `${address}/24`, 'dev', device);
  }

  #route(place: Place, to: string, via: string): void {
    command('ip', '-n', this.netns(place), 'route', 'add', to, 'via', via);
  }
}
