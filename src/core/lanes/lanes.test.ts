import fc from 'fast-check';
import { seededRandom, type RandomSource } from '../stats/seeded-random';
import { availabilityFigure, faultWords, laneValueWords, markEffectWords } from '../words/lane-words';
import { availabilityOf } from './availability';
import { echoOfPing } from './echo-of-ping';
import { MINUTE_MS, type LaneEcho, type LaneRole } from './lane';
import { LaneBook } from './lane-book';
import { figuresOfMinutes, laneFigures } from './lane-figures';
import { markEffect } from './mark-effect';
import { packMinute, unpackMinute } from './packed-minute';
import { readStation } from './read-station';
import { outagesOf, type Fault, type WatchedLane } from './whose-fault';

const AT = Date.UTC(2026, 10, 24, 14, 3, 0);

describe('a packed minute', () => {
  it('gives back what was packed, to 10 ms in time and 10 µs in delay', () => {
    const echo = fc.record({
      at: fc.integer({ min: 0, max: MINUTE_MS - 1 }),
      ms: fc.option(fc.double({ min: 0, max: 10_000, noNaN: true }), { nil: null }),
    });
    fc.assert(
      fc.property(fc.array(echo, { maxLength: 70 }), (unsorted) => {
        const echoes = unsorted.map(({ at, ms }) => ({ atMs: AT + at, ms })).sort((a, b) => a.atMs - b.atMs);
        const back = unpackMinute(AT, packMinute(AT, echoes));
        expect(back).toHaveLength(echoes.length);
        back.forEach((each, place) => {
          const was = echoes[place]!;
          expect(Math.abs(each.atMs - was.atMs)).toBeLessThan(10);
          if (was.ms === null) expect(each.ms).toBeNull();
          else expect(Math.abs(each.ms! - was.ms)).toBeLessThanOrEqual(0.0051);
        });
      }),
    );
  });

  it('holds on which way requests were lost, and of nonsense makes nothing that cannot be', () => {
    const echoes = [12, null, null, 13, null].map((ms, second) => ({ atMs: AT + 1000 * second, ms }));
    const raw = packMinute(AT, echoes, { lostThere: 2, lostBack: 1 });
    expect(unpackMinute(AT, raw)).toEqual(echoes);
    expect(figuresOfMinutes([raw, raw])).toMatchObject({ sent: 10, answered: 4, lostThere: 4, lostBack: 2 });
    // One that says more than was lost at all, and one that was cut short.
    for (const odd of [packMinute(AT, echoes, { lostThere: 3, lostBack: 1 }), raw.subarray(0, -1)])
      expect(figuresOfMinutes([odd])).toMatchObject({ sent: 5, answered: 2, lostThere: 0, lostBack: 0 });
  });

  it('takes about three bytes a request: a day of eight lanes stays under 3 MB', () => {
    const random = seededRandom(1);
    const echoes = Array.from({ length: 60 }, (_, second) => ({ atMs: AT + 1000 * second, ms: 12 + 3 * random() }));
    expect(8 * 1440 * (packMinute(AT, echoes).length + 80)).toBeLessThan(3e6);
  });

  it('of anything else gives no more than what lies in its minute, and never fails', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 400 }), (raw) => {
        for (const { atMs } of unpackMinute(AT, raw)) expect(atMs - AT).toBeLessThan(MINUTE_MS);
      }),
    );
  });
});

describe('the book of a lane', () => {
  const reply = (seq: number, ms: number) =>
    ({ kind: 'reply', seq, ms, atMs: null, from: 'x', ttl: 64, duplicate: false }) as const;
  const silent = (seq: number) => ({ kind: 'silent', seq, atMs: null }) as const;
  const close = (book: LaneBook) => book.closed(AT + 2 * MINUTE_MS);

  it('counts an answer for when its request was sent, however late it comes, and once', () => {
    const book = new LaneBook('l');
    book.note(echoOfPing(reply(1, 12), 1000, AT + 12), 1);
    book.note(echoOfPing(silent(2), 1000, AT + 2000), 2);
    book.note(echoOfPing(reply(2, 1500), 1000, AT + 2500), 2);
    book.note(echoOfPing(reply(2, 1500), 1000, AT + 2600), 2);
    book.note(echoOfPing(silent(3), 1000, AT + 3000), 3);
    const [minute] = close(book);
    expect(minute).toMatchObject({ laneId: 'l', fromMs: AT, sent: 3, answered: 2, minMs: 12, maxMs: 1500 });
    expect(unpackMinute(AT, minute!.raw)).toEqual([
      { atMs: AT, ms: 12 },
      { atMs: AT + 1000, ms: 1500 },
      { atMs: AT + 2000, ms: null },
    ]);
    expect(close(book)).toEqual([]);
  });

  it('takes an answer that came after more than ten seconds for none', () => {
    expect(echoOfPing(reply(1, 10_500), 1000, AT)).toMatchObject({ ms: null });
  });

  it('waits for late answers before it closes a minute', () => {
    const book = new LaneBook('l');
    book.note({ atMs: AT + 59_000, ms: null }, 1);
    expect(book.closed(AT + MINUTE_MS + 9000)).toEqual([]);
    expect(book.closed(AT + MINUTE_MS + 10_000)).toHaveLength(1);
  });

  it('knows on which way a request was lost, also where the answers around it lie in other minutes', () => {
    const book = new LaneBook('l');
    // A request each 10 s from 14:03:30 on; the far end counts what comes to it.
    const fates = ['answered', 'there', 'back', 'there', 'answered', 'back', 'answered', 'there'] as const;
    let counted = 40;
    fates.forEach((fate, place) => {
      const atMs = AT + 30_000 + 10_000 * place;
      if (fate !== 'there') counted += 1;
      book.note({ atMs, ms: null }, 5000 + place);
      if (fate === 'answered') book.note({ atMs, ms: 12, reflected: counted }, 5000 + place);
    });
    const first = book.closed(AT + MINUTE_MS + 10_000);
    const second = book.closed(AT + 3 * MINUTE_MS);
    // Of the three between the two answers one was lost on the way back; the last request of all: nobody knows where.
    expect(
      [...first, ...second].map(({ sent, answered, lostThere, lostBack }) => [sent, answered, lostThere, lostBack]),
    ).toEqual([
      [3, 1, 2, 0],
      [5, 2, 0, 2],
    ]);
    expect(figuresOfMinutes(second.map(({ raw }) => raw))).toMatchObject({ lostThere: 0, lostBack: 2 });
  });

  it('says nothing where nothing was sent, and no figure where nothing was answered', () => {
    const none = { minMs: null, medianMs: null, p95Ms: null, maxMs: null };
    expect(laneFigures([])).toEqual({ sent: 0, answered: 0, lostThere: 0, lostBack: 0, ...none });
    expect(laneFigures([{ ms: null }])).toMatchObject({ sent: 1, answered: 0, medianMs: null });
  });
});

type Silent = Readonly<Record<string, readonly [number, number]>>;

/** Lanes over ten minutes that are silent from one second to another, with packets lost by chance at a rate. */
function watched(
  roles: Readonly<Record<string, LaneRole>>,
  silent: Silent,
  {
    lost = 0,
    random = () => 1,
    unwatched,
  }: { lost?: number; random?: RandomSource; unwatched?: [number, number] } = {},
): WatchedLane[] {
  return Object.entries(roles).map(([laneId, role], place) => ({
    ...{ laneId, role, everyMs: 1000 },
    echoes: Array.from({ length: 600 }, (_, second) => second)
      .filter((second) => unwatched === undefined || second < unwatched[0] || second >= unwatched[1])
      .map((second): LaneEcho => {
        const [from, to] = silent[laneId] ?? [0, 0];
        const gone = (second >= from && second < to) || random() < lost;
        return { atMs: AT + 1000 * second + 37 * place, ms: gone ? null : 12 };
      }),
  }));
}
const OFFICE = { gateway: 'gateway', peer: 'outside', resolver: 'outside', tunnel: 'far', store: 'inside' } as const;
const OUTSIDE = ['peer', 'resolver', 'tunnel'];
const all = (names: readonly string[], span: readonly [number, number]): Silent =>
  Object.fromEntries(names.map((name) => [name, span]));

describe('whose fault a silence was', () => {
  const CASES: readonly (readonly [string, Silent, Fault])[] = [
    ['all outside: the line', all(OUTSIDE, [100, 142]), 'line'],
    ['everything: ours', all(Object.keys(OFFICE), [100, 142]), 'ours'],
    ['gateway and outside, the store inside not: ours', all(['gateway', ...OUTSIDE], [100, 142]), 'ours'],
    ['one outside: theirs', { peer: [100, 142] }, 'theirs'],
    ['the far end of the tunnel: theirs', { tunnel: [100, 142] }, 'theirs'],
    ['the store alone: inside', { store: [100, 142] }, 'inside'],
  ];
  it.each(CASES)('%s', (_, silent, fault) => {
    const found = outagesOf(watched(OFFICE, silent));
    expect(found).toHaveLength(1);
    expect(found[0]).toMatchObject({ fault, laneIds: Object.keys(silent).sort() });
    expect(Math.abs(found[0]!.fromMs - (AT + 100_000))).toBeLessThanOrEqual(1000);
    expect(Math.abs(found[0]!.untilMs! - (AT + 142_000))).toBeLessThanOrEqual(1000);
  });

  it('is found in 200 of 200 made-up cases with 1 % of packets lost by chance, dated within two seconds', () => {
    const random = seededRandom(20261124);
    let [right, dated] = [0, 0];
    for (let time = 0; time < 200; time += 1) {
      const [, names, fault] = CASES[Math.floor(random() * CASES.length)]!;
      const from = 60 + Math.floor(random() * 200);
      const to = from + 5 + Math.floor(random() * 120);
      const found = outagesOf(watched(OFFICE, all(Object.keys(names), [from, to]), { lost: 0.01, random }));
      const mine = found.find((each) => each.fault === fault && each.laneIds.length === Object.keys(names).length);
      if (mine === undefined) continue;
      right += 1;
      if (Math.abs(mine.fromMs - AT - 1000 * from) <= 2000 && Math.abs(mine.untilMs! - AT - 1000 * to) <= 2000)
        dated += 1;
    }
    // A packet that is lost by chance just before or after lengthens an outage by its second.
    expect([right, dated]).toEqual([200, 200]);
  });

  it('calls no lost packets an outage: 1 % of chance loss over a day of five lanes brings under one', () => {
    const random = seededRandom(7);
    let found = 0;
    for (let part = 0; part < 144; part += 1) found += outagesOf(watched(OFFICE, {}, { lost: 0.01, random })).length;
    expect(found).toBeLessThan(2);
  });

  it('keeps two things apart that fall together: one target away for long, the line for a moment of it', () => {
    const found = outagesOf(watched(OFFICE, { peer: [100, 300], resolver: [150, 160], tunnel: [150, 160] }));
    expect(found.map(({ fault, laneIds }) => [fault, laneIds])).toEqual([
      ['theirs', ['peer']],
      ['line', ['resolver', 'tunnel']],
    ]);
  });

  it('does not know more than there is to know', () => {
    expect(outagesOf(watched({ gateway: 'gateway', peer: 'outside' }, { peer: [100, 142] }))[0]!.fault).toBe(
      'line-or-theirs',
    );
    expect(
      outagesOf(watched({ peer: 'outside', resolver: 'outside' }, all(['peer', 'resolver'], [100, 142])))[0]!.fault,
    ).toBe('unknown');
    // A gateway that answers no echo requests has said nothing.
    const mute = watched(OFFICE, { ...all(OUTSIDE, [100, 142]), gateway: [0, 600] });
    expect(outagesOf(mute, new Set(['gateway']))).toMatchObject([{ fault: 'unknown' }]);
  });

  it('takes nobody asking for no silence, and says of one that goes on that it does', () => {
    expect(outagesOf(watched(OFFICE, {}, { unwatched: [100, 400] }))).toEqual([]);
    expect(outagesOf(watched(OFFICE, all(OUTSIDE, [560, 600])))).toMatchObject([{ fault: 'line', untilMs: null }]);
    const cut = outagesOf(watched(OFFICE, all(OUTSIDE, [90, 500]), { unwatched: [100, 400] }));
    expect(
      cut.map(({ fromMs, untilMs }) => [Math.round((fromMs - AT) / 1000), Math.round((untilMs! - AT) / 1000)]),
    ).toEqual([
      [90, 99],
      [400, 500],
    ]);
  });

  it('is said in words', () => {
    expect(faultWords('line', ['peer'], false)).toBe('the gateway answered, nothing outside did: the line');
    expect(faultWords('ours', ['gateway'], true)).toBe('the gateway was silent too: ours, by air');
  });
});

describe('how much of the time a line was there', () => {
  const outage = (fault: Fault, from: number, to: number | null) => ({
    ...{ laneIds: ['l'], fault, fromMs: AT + from * 1000, untilMs: to === null ? null : AT + to * 1000 },
  });
  const DAY = 86_400_000;

  it('is watched time without the line’s outages; theirs and inside cost nothing', () => {
    const outages = [outage('line', 100, 142), outage('theirs', 500, 600), outage('inside', 700, 900)];
    expect(availabilityOf(outages, DAY, AT, AT + DAY)).toEqual({
      ...{ share: 1 - 42_000 / DAY, watchedMs: DAY, silentMs: 42_000, outages: 1 },
    });
  });

  it('leaves out the time in which nothing is known of the line, and what lies outside of the span', () => {
    const ours = availabilityOf([outage('ours', 0, 3600), outage('line', 7200, 7236)], DAY, AT, AT + DAY);
    expect(ours).toMatchObject({ watchedMs: DAY - 3_600_000, silentMs: 36_000 });
    expect(availabilityOf([outage('line', -100, 50)], DAY, AT, AT + DAY).silentMs).toBe(50_000);
    expect(availabilityOf([outage('line', 3600, null)], 7_200_000, AT, AT + 7_200_000).silentMs).toBe(3_600_000);
  });

  it('is not known where nobody watched', () => expect(availabilityOf([], 0, AT, AT + DAY).share).toBeNull());

  it('never reads as 100 % when it was not', () => {
    expect(availabilityFigure(1 - 42_000 / DAY)).toBe('99.951 %');
    expect(availabilityFigure(0.99999999)).toBe('99.999 %');
    expect(availabilityFigure(0.987)).toBe('98.7 %');
    expect(availabilityFigure(1)).toBe('100 %');
  });
});

/** Minutes around a mark of ten, with delays that wander from minute to minute as they do, and some ms more while it stands. */
function minutesAround(moreMs: number, random: RandomSource, lossDuring = 0) {
  let wander = 0;
  return Array.from({ length: 60 }, (_, minute) => {
    wander = 0.7 * wander + (random() - 0.5);
    const during = minute >= 25 && minute < 35;
    const ms = 12 + wander + (during ? moreMs : 0);
    const answered = during ? Math.round(60 * (1 - lossDuring)) : 60;
    return {
      fromMs: AT + minute * MINUTE_MS,
      sent: 60,
      answered,
      minMs: ms - 1,
      medianMs: ms,
      p95Ms: ms + 4,
      maxMs: ms + 9,
    };
  });
}
const MARK = { fromMs: AT + 25 * MINUTE_MS, untilMs: AT + 35 * MINUTE_MS };

describe('what happened while a mark stood', () => {
  it('is told with its interval, before and after beside it', () => {
    const effect = markEffect(minutesAround(20, seededRandom(3), 0.1), MARK);
    expect(effect).toMatchObject({ before: { minutes: 25 }, during: { minutes: 10 }, after: { minutes: 25 } });
    expect(effect.against).toMatchObject({ real: true, matters: 'yes' });
    expect(markEffectWords(effect)).toMatch(
      /^3\d ms instead of 12 ms \(\d+ ms to \d+ ms more\), 10 % lost instead of 0 %$/,
    );
  });

  it('seems to matter in none of 300 marks that did nothing', () => {
    const random = seededRandom(11);
    const mattering = Array.from({ length: 300 }, () => markEffect(minutesAround(0, random), MARK)).filter(
      ({ against }) => against?.real === true && against.matters !== 'no',
    );
    expect(mattering).toHaveLength(0);
  });

  it('says when it was too short', () => {
    const short = markEffect(minutesAround(20, seededRandom(3)), { fromMs: AT + 10_000, untilMs: AT + 50_000 });
    expect(markEffectWords(short)).toBe('shorter than a whole minute: nothing can be told');
  });
});

describe('what a radio says of its access point', () => {
  const DUMP = `Station 02:00:5E:00:53:a0 (on wlan0)
	inactive time:	12 ms
	rx bytes:	8812
	tx bytes:	4410
	tx packets:	4821
	tx retries:	1203
	tx failed:	2
	signal:  	-58 [-60, -62] dBm
	signal avg:	-57 dBm
	tx bitrate:	866.7 MBit/s VHT-MCS 9 80MHz short GI VHT-NSS 2
	rx bitrate:	780.0 MBit/s
`;

  it('is read from the dump of its station', () => {
    expect(readStation(DUMP)).toEqual({
      ...{ bssid: '02:00:5e:00:53:a0', signalDbm: -58, rateMbps: 866.7, sent: 4821, sentAgain: 1203 },
    });
    expect(readStation('')).toBeNull();
    expect(readStation('Station 02:00:5e:00:53:a0 (on wlan0)\n')).toMatchObject({ signalDbm: null, sentAgain: null });
  });

  it('is said in its own units, and what a mark did to it as well', () => {
    expect([laneValueWords('signal', 58), laneValueWords('signal', null)]).toEqual(['-58 dBm', 'no signal']);
    expect([laneValueWords('retries', 4.25), laneValueWords('link-rate', 866.7)]).toEqual(['4.3 %', '867 Mb/s']);
    const minutes = (value: (place: number) => number) =>
      Array.from({ length: 60 }, (_, place) => ({
        ...{ fromMs: place * MINUTE_MS, sent: 12, answered: 12, minMs: value(place), medianMs: value(place) },
        ...{ p95Ms: value(place), maxMs: value(place) },
      }));
    const span = { fromMs: 30 * MINUTE_MS, untilMs: 60 * MINUTE_MS };
    const talks = (place: number) => place >= 30;
    const weaker = markEffect(
      minutes((place) => (talks(place) ? 71 : 58) + (place % 3)),
      span,
    );
    expect(markEffectWords(weaker, 'signal')).toBe('-72 dBm instead of -59 dBm (13 to 13 dB weaker)');
    const again = markEffect(
      minutes((place) => (talks(place) ? 38 : 6) + (place % 3)),
      span,
    );
    expect(markEffectWords(again, 'retries')).toMatch(/^39 % instead of 7\.0 % \(3[12] to 3[23] points more\)/);
  });
});
