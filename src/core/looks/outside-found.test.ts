import { translationOf } from './outside-found';

const OWN = '192.168.7.20';
const of = (seenAddress: string | null, routerAddress: string | null = null, ownAddress = OWN) =>
  translationOf({ ownAddress, seenAddress, routerAddress });

describe('who translates addresses on the way out', () => {
  it.each([
    ['a machine with an address of its own', of('203.0.113.9', null, '203.0.113.9'), 'none'],
    ['one by IPv6', of('2001:db8::9', null, '2001:db8::9'), 'none'],
    ['the same, written as one of IPv6', of('::ffff:203.0.113.9', null, '203.0.113.9'), 'none'],
    ['the office’s router', of('203.0.113.9', '203.0.113.9'), 'router'],
    ['a router that says nothing', of('203.0.113.9'), 'unknown-more'],
    ['a provider whose customers share addresses (RFC 6598)', of('203.0.113.9', '100.72.1.5'), 'provider'],
    ['a router behind a router', of('203.0.113.9', '192.168.1.2'), 'provider'],
    ['a provider that gives one public address and uses another', of('203.0.113.9', '198.51.100.4'), 'provider'],
    ['a peer in the provider’s own network', of('100.72.1.5', '100.72.1.5'), 'provider'],
    ['a peer in this network', of('192.168.7.20', '203.0.113.9'), 'not-outside'],
    ['a peer behind a tunnel', of('10.8.0.6'), 'not-outside'],
    ['a peer on this machine', of('127.0.0.1', null, '127.0.0.1'), 'not-outside'],
    ['a peer in this network by IPv6', of('fd00:7::20'), 'not-outside'],
    ['a peer that does not tell', of(null), 'unknown'],
  ])('%s', (_, said, expected) => {
    expect(said).toBe(expected);
  });

  it('takes the neighbours of a range for what they are', () => {
    for (const address of ['100.63.255.255', '100.128.0.0', '172.15.0.1', '172.32.0.1', '11.0.0.1', '192.169.0.1'])
      expect([address, of(address)]).toEqual([address, 'unknown-more']);
    for (const address of ['172.16.0.1', '172.31.255.254', '10.255.0.1', '169.254.1.1'])
      expect([address, of(address)]).toEqual([address, 'not-outside']);
    expect(of('100.64.0.0')).toBe('provider');
    expect(of('100.127.255.255')).toBe('provider');
  });
});
