import { plainAddress, readClientAddress } from './client-address';

describe('the address of a client', () => {
  it('is IPv4 where it is mapped into IPv6 (RFC 4291 §2.5.5.2)', () => {
    expect(plainAddress('::ffff:192.0.2.7')).toBe('192.0.2.7');
    expect(plainAddress('::FFFF:192.0.2.7')).toBe('192.0.2.7');
    expect(readClientAddress('::ffff:192.0.2.7').ipVersion).toBe(4);
  });

  it('stays as it is otherwise', () => {
    expect(plainAddress('2001:db8::ffff:1')).toBe('2001:db8::ffff:1');
    expect(plainAddress('192.0.2.7')).toBe('192.0.2.7');
    expect(readClientAddress('2001:db8::1').ipVersion).toBe(6);
  });

  it.each(['127.0.0.1', '127.8.9.1', '::1', '::ffff:127.0.0.1'])('%s is this machine itself', (address) => {
    expect(readClientAddress(address).sameMachine).toBe(true);
  });

  it.each(['192.0.2.7', '2001:db8::1', '', undefined])('%s is another, or not known to be this one', (address) => {
    expect(readClientAddress(address).sameMachine).toBe(false);
  });
});
