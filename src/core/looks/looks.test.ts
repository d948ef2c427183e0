import { seededRandom } from '../stats/seeded-random';
import { lookSentence, slowHop } from '../words/look-words';
import type { NameAnswer, NamesFound, PathFound, ShareFound } from './look';
import { rankResolvers, resolverAdvice } from './rank-resolvers';
import { readPingLine, readPingTarget } from './read-ping';
import { shareAnswer, shareRateBps } from './share-rates';

describe('what ping prints', () => {
  it.each([
    [
      '[1795752054.125145] 64 bytes from 127.0.0.1: icmp_seq=1 ttl=64 time=0.044 ms',
      { kind: 'reply', seq: 1, ms: 0.044, from: '127.0.0.1', ttl: 64, duplicate: false, atMs: 1795752054125.145 },
    ],
    [
      '64 bytes from ::1: icmp_seq=7 ttl=64 time=12.3 ms (DUP!)',
      { kind: 'reply', seq: 7, duplicate: true, atMs: null },
    ],
    ['64 bytes from router.example (192.0.2.1): icmp_seq=2 ttl=63 time=1234 ms', { kind: 'reply', seq: 2, ms: 1234 }],
    ['[1795752055.5] no answer yet for icmp_seq=3', { kind: 'silent', seq: 3, atMs: 1795752055500 }],
    [
      '[1795752055.5] From 192.0.2.1 icmp_seq=4 Time to live exceeded',
      { kind: 'refused', seq: 4, from: '192.0.2.1', why: 'Time to live exceeded' },
    ],
    [
      'From 192.0.2.1 icmp_seq=5 Destination Host Unreachable',
      { kind: 'refused', why: 'Destination Host Unreachable' },
    ],
  ])('%s', (line, event) => expect(readPingLine(line)).toMatchObject(event));

  it.each([
    '',
    'PING 127.0.0.1 (127.0.0.1) 56(84) bytes of data.',
    '--- statistics ---',
    'rtt min/avg/max/mdev = 1/2/3/4 ms',
  ])('%s: nothing of a request', (line) => expect(readPingLine(line)).toBeNull());

  it('says what address a name came to', () => {
    expect(readPingTarget('PING gateway.example (192.0.2.1) 56(84) bytes of data.')).toBe('192.0.2.1');
    expect(readPingTarget('PING ::1(::1) 56 data bytes')).toBe('::1');
    expect(readPingTarget('ping: nosuch.invalid: Name or service not known')).toBeNull();
  });
});

const NAMES = ['example.com', 'example.net', 'example.org'];

interface Played {
  readonly ms: number;
  readonly lies?: boolean;
  readonly fails?: number;
}

/** A look at resolvers that behave as they are described, with noise as on a real network: now and then a late answer. */
function look(played: Readonly<Record<string, Played>>, seed: number, zones = NAMES): NamesFound {
  const random = seededRandom(seed);
  const answers = [0, 1, 2].flatMap((round) =>
    zones.flatMap((name) =>
      Object.entries(played).flatMap(([resolver, { ms, lies = false, fails = 0 }]): NameAnswer[] => {
        const silent = random() < fails;
        const late = random() < 0.1 ? 40 * random() : 0;
        const answer = (kind: NameAnswer['kind'], exists: boolean, tookMs: number): NameAnswer => ({
          ...{ resolver, name, kind, round, authentic: false, trouble: silent ? 'it did not answer' : null },
          ...{ ms: silent ? null : tookMs, code: silent ? null : exists ? 'NOERROR' : 'NXDOMAIN' },
          addresses: exists && !silent ? ['203.0.113.80'] : [],
        });
        return [answer('fresh', lies, ms * (0.8 + 0.4 * random()) + late), answer('again', true, 1 + random())];
      }),
    ),
  );
  const resolvers = Object.keys(played).map((resolver, place) => ({
    resolver,
    role: place === 0 ? ('own' as const) : ('typed' as const),
  }));
  return { what: 'names', resolvers, answers };
}
const advice = (...args: Parameters<typeof look>) => resolverAdvice(rankResolvers(look(...args)));

describe('which resolver to take', () => {
  const SEEDS = Array.from({ length: 400 }, (_, seed) => seed + 1);
  const taken = (played: Readonly<Record<string, Played>>) =>
    SEEDS.filter((seed) => advice(played, seed).kind === 'take').length / SEEDS.length;

  it('leaves resolvers alone that are equally fast: wrong in under 2 of 100', () => {
    expect(taken({ own: { ms: 20 }, one: { ms: 20 }, other: { ms: 20 }, third: { ms: 20 } })).toBeLessThan(0.02);
  });

  it('finds one that is a third faster in over 95 of 100', () => {
    expect(taken({ own: { ms: 36 }, one: { ms: 20 }, other: { ms: 38 } })).toBeGreaterThan(0.95);
  });

  it('takes no resolver that makes up answers, however fast, and leaves one that does', () => {
    for (const seed of SEEDS.slice(0, 50)) {
      expect(advice({ own: { ms: 40 }, liar: { ms: 5, lies: true } }, seed)).toEqual({ kind: 'stay', resolver: 'own' });
      expect(advice({ own: { ms: 5, lies: true }, honest: { ms: 40 } }, seed)).toMatchObject({
        kind: 'take',
        resolver: 'honest',
      });
    }
  });

  it('takes none that fails often, and says when there is none', () => {
    expect(advice({ own: { ms: 30 }, flaky: { ms: 5, fails: 0.5 } }, 3)).toEqual({ kind: 'stay', resolver: 'own' });
    expect(advice({ own: { ms: 30, fails: 1 } }, 3)).toEqual({ kind: 'none' });
  });

  it('does not call an answer made up where all agree that every name exists there', () => {
    const found = look({ own: { ms: 20, lies: true }, one: { ms: 20, lies: true } }, 5, ['wild.office.example']);
    expect(rankResolvers(found).map(({ lies }) => lies)).toEqual([0, 0]);
  });

  it('names those that make up answers', () => {
    expect(lookSentence(look({ own: { ms: 40 }, liar: { ms: 5, lies: true } }, 7), null)).toMatch(
      / liar made up addresses for names that do not exist\.$/,
    );
  });

  it('says in a sentence what it helps and what not', () => {
    expect(lookSentence(look({ own: { ms: 50 }, quick: { ms: 10 } }, 7), null)).toMatch(
      /^Take quick instead of own: a page opens about \d+ ms sooner for each new name\. It makes no download faster\.$/,
    );
  });
});

const share = (writeBps: number, readBps: number | null, place: ShareFound['place'] = 'network'): ShareFound => {
  const series = (bps: number) => ({ atMs: [500, 1000], bytes: [bps / 20, bps / 8] });
  return {
    ...{ what: 'share', folder: '/mnt/store', fileSystem: 'nfs4', source: 'store:/v', place, streams: 1 },
    ...{ written: series(writeBps), read: readBps === null ? null : series(readBps) },
  };
};

describe('what a share brings', () => {
  it('is all bytes over the whole time', () => {
    expect(shareRateBps({ atMs: [100, 4000], bytes: [1e6, 100e6] })).toBe(200e6);
    expect(shareRateBps({ atMs: [], bytes: [] })).toBeNull();
  });

  it('is held against what the network brings: the store is the limit where it brings clearly less', () => {
    const network = { downBps: 940e6, upBps: 930e6 };
    expect(shareAnswer(share(300e6, 310e6), network).limit).toEqual({ up: 'store', down: 'store' });
    expect(shareAnswer(share(900e6, 910e6), network).limit).toEqual({ up: 'network', down: 'network' });
    expect(lookSentence(share(900e6, 310e6), network)).toContain(
      'The network gives 940 Mb/s there, the store 310 Mb/s: the store is the limit.',
    );
  });

  it('says what it cannot say: no run inside, no read past the cache, no share at all', () => {
    expect(lookSentence(share(300e6, null), null)).toBe(
      '/mnt/store takes 300 Mb/s, and it could not be read back past the machine’s own memory. Nothing was measured inside with this machine yet: what the network gives is not known.',
    );
    expect(lookSentence(share(300e6, 310e6, 'own-disk'), { downBps: 940e6, upBps: 930e6 })).toContain(
      'lies on a disk of the machine itself',
    );
  });
});

describe('where on a path the delay comes in', () => {
  const path = (...leastMs: (number | null)[]): PathFound => ({
    ...{ what: 'path', target: 'far.example', address: '203.0.113.80', reached: true, mtuBytes: 1492 },
    hops: leastMs.map((ms, index) => ({
      ...{ place: index + 1, addresses: ms === null ? [] : [`192.0.2.${index + 1}`], name: null },
      rttsMs: ms === null ? [] : [ms + 1, ms, null],
    })),
  });

  it('is the hop from which on it stays', () => {
    expect(slowHop(path(0.4, 4, 12, 13))).toMatchObject({ place: 3, addedMs: 8 });
  });

  it('is not a router that is only slow to answer by itself', () => {
    expect(slowHop(path(0.4, 80, 12, 13))).toMatchObject({ place: 2, addedMs: 11.6 });
    expect(slowHop(path(0.4, null, 12, 13))).toMatchObject({ place: 3 });
  });

  it('is told with the largest packet', () => {
    expect(lookSentence(path(0.4, 4, 12), null)).toBe(
      'far.example is 3 hops away. Most of the delay comes in at hop 3 (192.0.2.3): 8.0 ms. Packets of up to 1492 bytes go through whole.',
    );
  });
});
