import { addressRange } from './address-range';

describe('whom an address belongs to', () => {
  it.each([
    ['192.168.7.1', 'private'],
    ['100.64.3.9', 'carrier-grade'],
    ['169.254.1.1', 'link-local'],
    ['fe80::1%eth0', 'link-local'],
    ['fd12::1', 'private'],
    ['::ffff:10.0.0.1', 'private'],
    ['192.0.2.1', 'special'],
    ['8.8.4.4', 'public'],
  ])('%s is %s', (address, range) => expect(addressRange(address)).toBe(range));
  it('what is no address has no range', () => expect(addressRange('router.example')).toBeNull());
});
