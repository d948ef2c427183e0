import type { MachineFacts } from '@/core';
import { hostOf } from './far-end-of-run';

type MachineLink = MachineFacts['links'][number];
const link = (name: string, addresses: readonly string[], change: Partial<MachineLink> = {}): MachineLink => ({
  ...{ name, medium: 'wired', up: true, speedMbps: null, duplex: null, mtuBytes: 1500, driver: null, addresses },
  ...change,
});
const facts = (links: readonly MachineLink[], through?: string): MachineFacts => ({
  ...{ system: 'Debian', gatewayMs: null, resolvers: [], links },
  gateway: through === undefined ? null : { address: '192.0.2.1', link: through },
});

describe('where other machines reach an agent', () => {
  const loopback = link('lo', ['127.0.0.1', '::1'], { medium: 'other' });

  it('is the interface towards its gateway, not the first that there is', () => {
    const machine = facts([loopback, link('docker0', ['172.17.0.1']), link('eth0', ['192.0.2.7'])], 'eth0');
    expect(hostOf(machine)).toBe('192.0.2.7');
    expect(hostOf(facts([loopback, link('eth0', ['192.0.2.7'], { up: false }), link('wlan0', ['192.0.2.9'])]))).toBe(
      '192.0.2.9',
    );
  });

  it('is an address of IPv6 where there is none of IPv4, and none that holds for one link alone', () => {
    const addresses = ['fe80::1', '2001:db8::7'];
    expect(hostOf(facts([link('lo', ['::1'], { medium: 'other' }), link('eth0', addresses)], 'eth0'))).toBe(
      '[2001:db8::7]',
    );
    expect(hostOf(facts([link('eth0', ['fe80::1', '::1'])], 'eth0'))).toBeNull();
  });

  it('is this very machine where there is nothing else, and nothing where nothing is known', () => {
    expect(hostOf(facts([loopback]))).toBe('127.0.0.1');
    expect(hostOf(facts([]))).toBeNull();
  });
});
