import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { foldedName, rateBloat, readLedgerQuery, seededRandom, type LedgerTerm } from '@/core';
import { MOST_COUNTED, openStore, STARTED_RUN, type LedgerOrder, type Store, type StoredRun } from '..';
import { LEDGER_SORTS, type LedgerPlace, type LedgerSort } from './ledger-queries';
import { openNewStore } from '../store-for-tests';

const RUN: StoredRun = {
  ...STARTED_RUN,
  ...{ id: '', siteId: 's', deviceId: 'desk', peerId: 'p', lineId: null, deviceName: 'Press desk' },
  ...{ spotName: 'Workshop', peerName: 'Hilltop exchange', lineName: null, reach: 'internet', setId: '' },
  ...{ link: { medium: 'unknown' }, linkKind: 'wired', plan: null, profile: 'standard', practice: false },
  ...{ status: 'finished', startedAtMs: 0, lastSeenAtMs: 0, sameMachine: false, ipVersion: 4, methodVersion: 1 },
  ...{ verdict: 'full', downBps: 480e6, upBps: 96e6, idleMs: 14, addedMs: 12, told: [], noticed: [] },
  report: {} as StoredRun['report'],
};
const NEWEST: LedgerOrder = { by: 'when', descending: true };
/** Clocks that were put forward by half a day twice: all runs of a second lie in three hours. */
const OFFSETS = [
  { untilMs: 300, minutes: 0 },
  { untilMs: 600, minutes: 12 * 60 },
  { untilMs: null, minutes: 23 * 60 },
];
const DAYS = {
  ...{ nowMs: 1000, startOf: (typed: string) => Number(typed), dayAfter: (ms: number) => ms + 100, offsets: OFFSETS },
};
const termsOf = (text: string) => readLedgerQuery(text, DAYS).terms;

describe('the ledger in the store', () => {
  let folder: string;
  let store: Store;
  const put = (id: string, changes: Partial<StoredRun> = {}) =>
    store.runs.insert({ ...RUN, id, setId: id, ...changes });
  const found = async (text: string, order = NEWEST) =>
    (await store.ledger.slice('s', termsOf(text), order, 500)).runs.map(({ id }) => id);

  beforeEach(async () => {
    folder = mkdtempSync(join(tmpdir(), 'bent-straw-'));
    store = await openNewStore(join(folder, 'runs.sqlite'));
    for (const id of ['s', 'other'])
      await store.sites.saveSite({
        ...{ id, name: id, joinCode: id, joinCodeUntilMs: 1, demo: false, timeZone: null, removedAtMs: null },
      });
  });
  afterEach(async () => {
    await store.close();
    rmSync(folder, { recursive: true });
  });

  it('is narrowed by a part of the name of device, spot or peer and by notes, whatever their case, and by nothing else', async () => {
    await put('by-device', { deviceName: 'Glue room tablet', spotName: null, peerName: 'x', startedAtMs: 5 });
    await put('by-spot', { deviceName: 'y', spotName: 'Glue room', peerName: 'x', startedAtMs: 4 });
    await put('by-peer', { deviceName: 'y', spotName: null, peerName: 'the GLUE peer', startedAtMs: 3 });
    await put('by-note', { deviceName: 'y', spotName: null, peerName: 'x', notes: 'near the glue', startedAtMs: 2 });
    await put('else', { deviceName: 'y', spotName: null, peerName: 'x', startedAtMs: 1 });
    await put('elsewhere', { siteId: 'other', deviceName: 'Glue' });
    expect(await found('gLue')).toEqual(['by-device', 'by-spot', 'by-peer', 'by-note']);
    expect(await found('-glue')).toEqual(['else']);
    expect(await found('device=glue,peer spot=room')).toEqual([]);
    expect(await found('note=GLUE')).toEqual(['by-note']);
    await put('by-accent', { deviceName: 'Übungsraum, Straße', spotName: null, peerName: 'x' });
    for (const text of ['ÜBUNGSRAUM', 'u\u0308bungs', 'ubungsraum', 'STRASSE'])
      expect(await found(text)).toEqual(['by-accent']);
    // A sign that means something in a pattern is only a sign.
    expect(await found('%')).toEqual([]);
    expect(await found('_')).toEqual([]);
  });

  it('is narrowed by tags, flags, states and reasons', async () => {
    await put('a', { flags: ' over-wifi unsettled ', startedAtMs: 3 });
    await put('b', {
      status: 'unfinished',
      reason: 'peer-gone',
      verdict: null,
      report: null,
      downBps: null,
      upBps: null,
      startedAtMs: 2,
    });
    await put('c', { startedAtMs: 1 });
    await store.ledger.setTag('s', ['a', 'c', 'nobody'], 'Evening', true);
    await store.ledger.setTag('s', ['a'], 'Evening', true);
    expect(await found('tag=evening')).toEqual(['a', 'c']);
    expect(await found('evening flag=over-wifi')).toEqual(['a']);
    expect(await found('flag=single-run')).toEqual([]);
    expect(await found('state=unfinished why=peer-gone,no-download')).toEqual(['b']);
    expect(await found('-verdict=full')).toEqual(['b']);
    const { runs } = await store.ledger.slice('s', [], NEWEST, 10);
    expect(runs.map(({ tags }) => tags)).toEqual([['Evening'], [], ['Evening']]);
    await store.ledger.setTag('s', ['a'], 'Evening', false);
    expect(await found('tag=evening')).toEqual(['c']);
  });

  it('finds what a plain reading of each run would find', async () => {
    const random = seededRandom(12);
    const one = <Value>(of: readonly Value[]) => of[Math.floor(random() * of.length)]!;
    const figure = (most: number) => (random() < 0.1 ? null : Math.round(random() * most));
    const runs = Array.from({ length: 120 }, (_, index): StoredRun => {
      const addedMs = figure(300);
      return {
        ...{ ...RUN, id: `r${index}`, setId: `r${index}`, startedAtMs: Math.round(random() * 1000), addedMs },
        deviceName: one(['Press desk', 'Scan room', 'Bench']),
        spotName: one(['Workshop', 'Glue room', null]),
        linkKind: one(['wired', 'wifi-5', 'wifi-2.4']),
        reach: one(['local', 'internet', 'tunnel'] as const),
        verdict: one(['full', 'thin', 'starved', 'no verdict', null] as const),
        flags: one(['', ' over-wifi ', ' over-wifi unsettled ']),
        ...{ downBps: figure(1e9), upBps: figure(1e8), idleMs: figure(50) },
      };
    });
    for (const run of runs) await store.runs.insert(run);
    const names = (run: StoredRun) => [run.deviceName, run.spotName ?? '', run.peerName].map(foldedName);
    const has = (run: StoredRun, term: LedgerTerm): boolean => {
      switch (term.is) {
        case 'words':
          return names(run).some((name) => name.includes(foldedName(term.text)));
        case 'text': {
          const [device, spot] = names(run);
          const name = term.field === 'device' ? device! : spot!;
          return term.texts.some((text) => name.includes(foldedName(text)));
        }
        case 'choice':
          if (term.field === 'delay') return term.values.includes(rateBloat(run.addedMs) ?? '');
          if (term.field === 'flag') return term.values.some((flag) => run.flags.split(' ').includes(flag));
          return term.values.includes(
            String({ verdict: run.verdict, link: run.linkKind, reach: run.reach }[term.field as 'verdict']),
          );
        case 'figure': {
          const value = run[LEDGER_SORTS[term.field] as 'downBps'];
          // What was not measured is neither below nor above.
          if (value === null) return term.not;
          const [low, high] = [term.low ?? -Infinity, term.high ?? Infinity];
          return term.withEnds ? value >= low && value <= high : value > low && value < high;
        }
        case 'time':
          return run.startedAtMs >= (term.fromMs ?? -Infinity) && run.startedAtMs < (term.untilMs ?? Infinity);
        case 'hours': {
          const { minutes } = term.offsets.find(({ untilMs }) => untilMs === null || run.startedAtMs < untilMs)!;
          const hour = new Date(run.startedAtMs + 60_000 * minutes).getUTCHours();
          return term.from < term.until
            ? hour >= term.from && hour < term.until
            : hour >= term.from || hour < term.until;
        }
        case 'run-ids':
        case 'device-id':
        case 'id':
          return false;
      }
    };
    const parts = [
      ...['press', '-bench', 'device=scan,bench', 'spot=glue', '-spot=work', 'verdict=thin,none', '-verdict=full'],
      ...['link=5', 'reach!=local', 'down<500', 'down>=250', '-up<50', 'idle=10..30', 'added=75..200', 'delay=soggy'],
      ...[
        'delay=crisp,collapsed',
        '-delay=soft',
        'flag=unsettled',
        '-flag=over-wifi',
        'from=400',
        'on=300',
        'until=500',
        'hour=0..7',
        '-hour=22..3',
        'hour=12',
      ],
    ];
    for (let time = 0; time < 150; time += 1) {
      const text = Array.from({ length: 1 + Math.floor(3 * random()) }, () => one(parts)).join(' ');
      const terms = termsOf(text);
      const wanted = runs.filter((run) => terms.every((term) => has(run, term) !== term.not)).map(({ id }) => id);
      expect([text, (await found(text)).sort()]).toEqual([text, wanted.sort()]);
      expect(await store.ledger.count('s', terms)).toEqual({ count: wanted.length, isMore: false });
    }
  });

  it('comes slice by slice in any order, each run once, what a run does not have last', async () => {
    const random = seededRandom(3);
    const figure = () => (random() < 0.2 ? null : Math.round(random() * 4));
    for (let index = 0; index < 57; index += 1)
      await put(`r${index}`, {
        ...{ startedAtMs: Math.round(random() * 9), downBps: figure(), addedMs: figure() },
        ...{ deviceName: `device ${Math.round(random() * 3)}`, spotName: random() < 0.3 ? null : 'there' },
      });
    for (const by of Object.keys(LEDGER_SORTS) as LedgerSort[])
      for (const descending of [true, false]) {
        const values: unknown[] = [];
        const ids: string[] = [];
        let after: LedgerPlace | null = null;
        do {
          const slice: Awaited<ReturnType<Store['ledger']['slice']>> = await store.ledger.slice(
            ...(['s', [], { by, descending }, 10, after] as const),
          );
          ids.push(...slice.runs.map(({ id }) => id));
          values.push(...slice.runs.map((run) => run[LEDGER_SORTS[by]]));
          after = slice.next;
        } while (after !== null);
        expect(new Set(ids).size).toBe(57);
        expect(ids).toHaveLength(57);
        const known = values.filter((value) => value !== null) as (string | number)[];
        expect(values.slice(0, known.length)).toEqual(known);
        const sorted = [...known].sort((a, b) => (a < b ? -1 : a > b ? 1 : 0));
        expect(known).toEqual(descending ? sorted.reverse() : sorted);
      }
  });

  it('does not count out what is very much', async () => {
    const line = { ...RUN, id: 'x', setId: 'x' };
    await store.runs.takeIn(
      Array.from({ length: MOST_COUNTED + 5 }, (_, index) => ({
        ...{ run: { ...line, id: `m${index}`, startedAtMs: index }, samples: null },
      })),
    );
    expect(await store.ledger.count('s', [])).toEqual({ count: MOST_COUNTED, isMore: true });
    expect(await store.ledger.ids('s', [], 20_000)).toHaveLength(MOST_COUNTED + 5);
  });

  it('is changed by several at once, and none of them is refused', async () => {
    for (let index = 0; index < 5; index += 1) await put(`r${index}`, { startedAtMs: index });
    const other = await openStore(join(folder, 'runs.sqlite'));
    const ids = ['r0', 'r1', 'r2', 'r3', 'r4'];
    const writing = (async () => {
      for (let index = 0; index < 60; index += 1)
        await other.runs.insert({ ...RUN, id: `x${index}`, setId: `x${index}` });
    })();
    for (let index = 0; index < 30; index += 1)
      expect(await store.runs.setLeftOut('s', ids, index % 2 === 0 ? 'dusty' : null, () => 'alone')).toBe(5);
    const removed = await store.removals.removeRuns({ id: 'gone', siteId: 's', removedAtMs: 1 }, ids);
    await writing;
    await other.close();
    expect(removed).toBe(5);
    expect(await store.ledger.count('s', [])).toEqual({ count: 60, isMore: false });
  });

  it('keeps views by name, of each office its own', async () => {
    const view = { id: 'v', siteId: 's', name: 'Evenings', query: 'q=x', byName: 'Ines', madeAtMs: 1 };
    await store.ledger.saveView(view);
    await store.ledger.saveView({ ...view, id: 'w', query: 'q=y', byName: 'Tom' });
    await store.ledger.saveView({ ...view, id: 'o', siteId: 'other' });
    expect(await store.ledger.views('s')).toMatchObject([{ name: 'Evenings', query: 'q=y', byName: 'Tom' }]);
    await store.ledger.removeView('s', 'Evenings');
    expect(await store.ledger.views('s')).toEqual([]);
    expect(await store.ledger.views('other')).toHaveLength(1);
  });
});
