import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { seededRandom } from '@/core';
import { simulateSamples } from '@/programs/demo/samples';
import { STARTED_RUN, type Store, type StoredRun } from '..';
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

/** A run that is not finished has no figures. */
const NO_FIGURES = { report: null, downBps: null, upBps: null, verdict: null } as const;
const CANCELLED = { ...NO_FIGURES, status: 'unfinished', reason: 'cancelled' } as const;
const RUNNING = { ...NO_FIGURES, status: 'running' } as const;

describe('the runs in the store', () => {
  let folder: string;
  let store: Store;
  const put = (id: string, changes: Partial<StoredRun> = {}) =>
    store.runs.insert({ ...RUN, id, setId: id, ...changes });

  beforeEach(async () => {
    folder = mkdtempSync(join(tmpdir(), 'bent-straw-'));
    store = await openNewStore(join(folder, 'runs.sqlite'));
    await store.sites.saveSite({
      ...{ id: 's', name: 'Larkspur Bindery', joinCode: 'KMT4QX', joinCodeUntilMs: 1, demo: false, timeZone: null },
      removedAtMs: null,
    });
  });
  afterEach(async () => {
    await store.close();
    rmSync(folder, { recursive: true });
  });

  it('count a change for everything that the board shows, and none for a sign of life or a note', async () => {
    await put('r', RUNNING);
    const version = () => store.runs.boardVersion();
    const before = await version();
    await store.runs.seen('r', 5000);
    await store.runs.saveNotes('r', 'the heater was on');
    await store.runs.saveShare('r', 1);
    expect(await version()).toBe(before);
    await store.runs.end(
      'r',
      { status: 'finished', reason: null, endedAtMs: 6000, downBps: 5e6, report: RUN.report },
      null,
    );
    const ended = await version();
    expect(ended).toBeGreaterThan(before);
    await store.runs.replaceFigures('r', { downBps: 6e6 });
    const replaced = await version();
    expect(replaced).toBeGreaterThan(ended);
    await put('another');
    expect(await version()).toBeGreaterThan(replaced);
  });

  it('count it for their own office, and for no other', async () => {
    const other = { siteId: 'other', id: 'elsewhere', setId: 'elsewhere' };
    await store.sites.saveSite({ ...(await store.sites.byId('s'))!, id: 'other', joinCode: 'OTHER1' });
    expect((await store.runs.siteVersions()).size).toBe(0);
    await put('r');
    const here = await store.runs.siteVersion('s');
    expect([here === null, await store.runs.siteVersion('other')]).toEqual([false, null]);
    await store.runs.insert({ ...RUN, ...other });
    expect(await store.runs.siteVersion('s')).toBe(here);
    const there = (await store.runs.siteVersion('other'))!;
    await store.runs.seen('elsewhere', 5000);
    expect(await store.runs.siteVersion('other')).toBe(there);
    await store.removals.removeRuns({ id: 'gone', siteId: 'other', removedAtMs: 1 }, ['elsewhere']);
    expect(await store.runs.siteVersion('other')).toBeGreaterThan(there);
    await store.runs.replaceFigures('r', { downBps: 6e6 });
    expect((await store.runs.siteVersion('s'))!).toBeGreaterThan(here!);
  });

  it('count for their office when they have finished, not when they begin or break off', async () => {
    await put('r');
    const before = (await store.runs.siteVersion('s'))!;
    await put('begun', RUNNING);
    await put('broken', RUNNING);
    await store.runs.end('broken', { status: 'unfinished', reason: 'cancelled', endedAtMs: 1 }, null);
    expect(await store.runs.siteVersion('s')).toBe(before);
    const finished = { status: 'finished', reason: null, endedAtMs: 2, report: RUN.report } as const;
    await store.runs.end('begun', finished, null);
    expect((await store.runs.siteVersion('s'))!).toBeGreaterThan(before);
  });

  it('end once; what a device hands in later takes the place of its vanishing, and of nothing else', async () => {
    const samples = simulateSamples(
      {
        ...{ idleMs: 15, jitterMs: 0.4 },
        down: { rateBps: 50e6, queueMs: 25, swing: 0.01, dips: 0 },
        up: { rateBps: 10e6, queueMs: 25, swing: 0.01, dips: 0 },
      },
      seededRandom(7),
    );
    await put('r', RUNNING);
    expect(await store.runs.end('r', { status: 'unfinished', reason: 'device-vanished', endedAtMs: 1 }, null)).toBe(
      true,
    );
    expect(await store.runs.samples('r')).toBeNull();
    expect(
      await store.runs.end('r', { status: 'finished', reason: null, endedAtMs: 2, report: RUN.report }, samples),
    ).toBe(true);
    expect(await store.runs.samples('r')).toEqual(samples);
    expect(await store.runs.end('r', { status: 'unfinished', reason: 'cancelled', endedAtMs: 3 }, null)).toBe(false);
    expect(await store.runs.byId('r')).toMatchObject({ status: 'finished', endedAtMs: 2 });
  });

  it('know their neighbours of the same device and reach', async () => {
    await put('before', { startedAtMs: 1 });
    await put('local', { startedAtMs: 2, reach: 'local' });
    await put('it', { startedAtMs: 3 });
    await put('of-another', { startedAtMs: 4, deviceId: 'bench' });
    await put('after', { startedAtMs: 5 });
    const { before, after } = await store.runs.neighbours((await store.runs.byId('it'))!);
    expect([before?.id, after?.id]).toEqual(['before', 'after']);
    expect((await store.runs.neighbours((await store.runs.byId('local'))!)).before).toBeNull();
  });

  it('tell which peer is the usual one of a reach: that of most finished runs since a time, each alone on its path', async () => {
    expect(await store.runs.usualPeerId('s', 'internet', 0)).toBeNull();
    await put('a', { peerId: 'hill', startedAtMs: 1 });
    await put('b', { peerId: 'hill', startedAtMs: 2 });
    await put('c', { peerId: 'valley', startedAtMs: 3 });
    await put('d', { peerId: 'valley', startedAtMs: 4, ...CANCELLED });
    await put('e', { peerId: 'valley', startedAtMs: 5, together: 't', evidence: 'together' });
    await put('f', { peerId: 'valley', startedAtMs: 6, evidence: 'voided' });
    expect(await store.runs.usualPeerId('s', 'internet', 0)).toBe('hill');
    expect(await store.runs.usualPeerId('s', 'internet', 3)).toBe('valley');
    expect(await store.runs.usualPeerId('s', 'local', 0)).toBeNull();
  });

  it('that shared a line on purpose are no evidence of a path: not in its newest set, its rates or its set', async () => {
    await put('alone', { startedAtMs: 1 });
    await put('shared', { startedAtMs: 2, together: 't', evidence: 'together', downBps: 160e6 });
    expect((await store.runs.newestSets('s')).map(({ id }) => id)).toEqual(['alone']);
    expect(await store.runs.figuresSince('s', 'internet', 0)).toMatchObject({
      ...{ count: 1, downBps: [480e6], upBps: [96e6] },
      newest: { runId: 'alone', startedAtMs: 1 },
    });
    expect(await store.runs.figuresSince('s', 'internet', 2)).toMatchObject({ count: 0, downBps: [], newest: null });
    const alone = (await store.runs.byId('alone'))!;
    expect(await store.runs.ratesSince(alone, 0)).toEqual([{ downBps: 480e6, upBps: 96e6 }]);
    expect((await store.runs.lastFinishedOf('s', 'desk', 'wired', 'internet'))!.id).toBe('alone');
  });

  it('that are void stand for a place only while there is nothing better', async () => {
    await put('void', { startedAtMs: 5, evidence: 'voided' });
    expect((await store.runs.newestSets('s')).map(({ id }) => id)).toEqual(['void']);
    await put('good', { startedAtMs: 1 });
    expect((await store.runs.newestSets('s')).map(({ id }) => id)).toEqual(['good']);
  });

  it('over another kind of link are not the last ones over this', async () => {
    await put('cable', { startedAtMs: 1 });
    await put('air', { startedAtMs: 2, linkKind: 'wifi-5' });
    expect((await store.runs.lastFinishedOf('s', 'desk', 'wired', 'internet'))!.id).toBe('cable');
  });

  it('of the newest set of each place leave out older sets, unfinished runs and those that fill no line', async () => {
    await put('old', { startedAtMs: 1 });
    await put('n1', { startedAtMs: 2, setId: 'new' });
    await put('n2', { startedAtMs: 3, setId: 'new' });
    await put('broken', { startedAtMs: 4, setId: 'new', ...CANCELLED });
    await put('delay', { startedAtMs: 5, profile: 'delay' });
    await put('air', { startedAtMs: 1, linkKind: 'wifi-5' });
    const found = (await store.runs.newestSets('s')).map(({ id }) => id).sort();
    expect(found).toEqual(['air', 'n1', 'n2']);
  });
});
