import { linkChangeWords, machineSentence } from '../words/agent-words';
import { linkChanges, type MachineFacts, type NetLink } from './machine-facts';

const LINK: NetLink = {
  ...{ name: 'eth0', medium: 'wired', up: true, speedMbps: 1000, duplex: 'full', mtuBytes: 1500 },
  ...{ driver: 'r8169', addresses: ['192.0.2.7'] },
};
const with_ = (...links: NetLink[]): MachineFacts => ({
  ...{ system: 'Debian', gateway: { address: '192.0.2.1', link: 'eth0' }, gatewayMs: 0.42, resolvers: [], links },
});

describe('what changed of the links of a machine', () => {
  it('is each fact that is another one, with both values', () => {
    expect(linkChanges(with_(LINK), with_({ ...LINK, speedMbps: 100, driver: 'r8125' }))).toEqual([
      { link: 'eth0', fact: 'speedMbps', before: '1000', after: '100' },
      { link: 'eth0', fact: 'driver', before: 'r8169', after: 'r8125' },
    ]);
  });

  it.each([
    ['the same', LINK, LINK],
    ['a cable that is out', LINK, { ...LINK, up: false, speedMbps: null }],
    ['a cable that came back', { ...LINK, up: false, speedMbps: 10 }, LINK],
    ['a system that does not say', LINK, { ...LINK, speedMbps: null }],
    ['another interface', LINK, { ...LINK, name: 'eth1', speedMbps: 100 }],
  ])('is nothing for %s', (_, before, after) => {
    expect(linkChanges(with_(before), with_(after))).toEqual([]);
  });

  it('is said with its units', () => {
    const [speed, mtu] = linkChanges(with_(LINK), with_({ ...LINK, speedMbps: 100, mtuBytes: 1492 }));
    expect(linkChangeWords(speed!)).toBe('eth0 comes up at 100 Mb/s instead of 1000 Mb/s');
    expect(linkChangeWords(mtu!)).toBe('eth0 carries packets of 1492 bytes instead of 1500 bytes');
  });
});

describe('a machine in a sentence', () => {
  it('says by what it is connected and how far its gateway is', () => {
    expect(machineSentence(with_(LINK))).toBe('1000 Mb/s by cable, gateway 0.4 ms away');
  });
  it('says what is not known', () => {
    expect(machineSentence({ ...with_(LINK), gateway: null, gatewayMs: null })).toBe('no gateway known');
    expect(machineSentence({ ...with_({ ...LINK, speedMbps: null }), gatewayMs: null })).toBe(
      'by cable, rate not told, gateway does not answer',
    );
  });
});
