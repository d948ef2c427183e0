import fc from 'fast-check';
import { lookAskedSchema, lookFoundSchema, lookRequestSchema, snmpLoginSchema } from './look-messages';

const asks = (asked: unknown) => lookAskedSchema.safeParse(asked).success;

describe('what a machine is asked to look at', () => {
  it('names a target as people write it', () => {
    for (const target of [
      '192.0.2.1',
      '2001:db8::1',
      '::1',
      'fe80::1%eth0',
      'router.lan',
      'attic-box',
      ' 192.0.2.1 ',
      '_sip.lan',
    ])
      for (const what of ['echo', 'path', 'ports']) expect([target, asks({ what, target })]).toEqual([target, true]);
  });

  it('never names one that the program which is asked could read as an option, or as two words', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        const found = lookAskedSchema.safeParse({ what: 'path', target: text });
        if (!found.success || found.data.what !== 'path') return;
        expect(found.data.target).not.toMatch(/^-|[\s;|&$`'"\\<>(){}]/);
      }),
      { numRuns: 1000 },
    );
    for (const target of [
      '-f',
      '--help',
      '',
      ' ',
      'a b',
      'a;b',
      '$(id)',
      '`id`',
      'a\nb',
      '.hidden',
      `a${'b'.repeat(300)}`,
    ])
      expect([target, asks({ what: 'echo', target })]).toEqual([target, false]);
  });

  it('names resolvers by how they are asked', () => {
    const names = (resolver: string) => asks({ what: 'names', resolvers: [resolver] });
    for (const one of [
      '192.0.2.53',
      '2001:db8::53',
      'tls:192.0.2.53',
      'tcp:192.0.2.53',
      '192.0.2.53#5353',
      'https://dns.example/query',
    ])
      expect([one, names(one)]).toEqual([one, true]);
    for (const one of ['dns.example', 'http://dns.example', 'udp:192.0.2.53', '-x', 'https://a b', '192.0.2.53#123456'])
      expect([one, names(one)]).toEqual([one, false]);
    expect(asks({ what: 'names', resolvers: Array(9).fill('192.0.2.53') })).toBe(false);
    expect(asks({ what: 'names', names: [] })).toBe(false);
  });

  it('is bounded in what it moves and how long it lasts', () => {
    const share = { what: 'share', folder: '/mnt/store' };
    expect(lookAskedSchema.parse(share)).toEqual({ ...share, megabytes: 512, streams: 1 });
    for (const change of [
      { megabytes: 7 },
      { megabytes: 20_001 },
      { megabytes: 8.5 },
      { streams: 0 },
      { streams: 9 },
      { folder: ' ' },
    ])
      expect(asks({ ...share, ...change })).toBe(false);
    expect(asks({ what: 'echo', target: 'a', count: 301 })).toBe(false);
    expect(asks({ what: 'programs', seconds: 61 })).toBe(false);
    expect(asks({ what: 'line', seconds: 11 })).toBe(false);
    expect(asks({ what: 'everything' })).toBe(false);
    expect(asks({ what: 'air', more: true })).toBe(false);
  });

  it('takes a login for a switch, with keys as long as its standard asks for (RFC 3414: eight letters)', () => {
    expect(snmpLoginSchema.parse({})).toEqual({ port: 161, community: null, user: null });
    const user = { name: 'ines', authKey: 'pillow gravel', privKey: null };
    expect(snmpLoginSchema.safeParse({ user }).success).toBe(true);
    expect(snmpLoginSchema.safeParse({ user: { ...user, authKey: 'short' } }).success).toBe(false);
    expect(lookRequestSchema.safeParse({ asked: { what: 'air' }, login: { community: '' } }).success).toBe(false);
  });
});

describe('what a machine says that it found', () => {
  const echo = { what: 'echo', target: 'a', address: null, rttsMs: [1.5, null], duplicates: 0, refusal: null };

  it('is taken as it is', () => {
    expect(lookFoundSchema.parse(echo)).toEqual(echo);
  });

  it('is not taken where it cannot be, or is more than anybody would read', () => {
    for (const change of [
      ...[{ rttsMs: [-1] }, { rttsMs: [Number.NaN] }, { rttsMs: Array(301).fill(1) }, { duplicates: -1 }],
      ...[{ target: 'x'.repeat(401) }, { what: 'echoes' }, { extra: 1 }],
    ])
      expect([change, lookFoundSchema.safeParse({ ...echo, ...change }).success]).toEqual([change, false]);
  });

  it('of the air stays within what radios do', () => {
    const network = {
      ...{ name: 'glue room', bssid: '02:00:00:00:00:01', primaryMhz: 2437, centreMhz: 2437, widthMhz: 20 },
      ...{ signalDbm: -61, load: 0.4, stations: 3, country: null, own: true },
    };
    const found = (change: object) =>
      lookFoundSchema.safeParse({ what: 'air', device: 'wlan0', by: 'iw', networks: [{ ...network, ...change }] })
        .success;
    expect(found({})).toBe(true);
    for (const change of [{ load: 1.01 }, { signalDbm: 60 }, { primaryMhz: 0 }, { widthMhz: 641 }, { stations: -1 }])
      expect([change, found(change)]).toEqual([change, false]);
  });
});
