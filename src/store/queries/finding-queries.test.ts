import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Diagnosis, Finding } from '@/core';
import { NEW_SITE } from '../blank-rows';
import type { Store } from '../store';
import type { StoredComplaint, StoredFinding, StoredHunt, StoredSwap } from './finding-queries';
import { openNewStore } from '../store-for-tests';

const FINDING: Finding = {
  ...{ key: 'packets-lost x', facts: { code: 'packets-lost', resentShare: 0.01, runs: 2 }, strength: 'likely' },
  ...{ segments: [], sinceMs: 1, hours: null, deviceIds: ['d'], evidence: { for: ['r'], against: [] }, weight: 0.5 },
};
const DIAGNOSIS: Diagnosis = { findings: [FINDING], segments: [], occasions: 4 };
const stored = (id: string, changes: Partial<StoredFinding> = {}): StoredFinding => ({
  ...{ id, siteId: 's', findingKey: `key ${id}`, state: 'open', reason: '', byName: '', strength: 'likely' },
  ...{ openedAtMs: 1, changedAtMs: 1, closedAtMs: null, finding: FINDING },
  ...changes,
});
const swap = (id: string, atMs: number, changes: Partial<StoredSwap> = {}): StoredSwap => ({
  ...{ id, siteId: 's', segmentId: 'router', what: 'router-replaced', note: '', deviceId: null, atMs, byName: 'Ines' },
  ...{ huntId: null, undoneAtMs: null },
  ...changes,
});
const hunt = (id: string, openedAtMs: number): StoredHunt => ({
  ...{
    id,
    siteId: 's',
    kind: 'hunt',
    title: id,
    focus: { deviceId: 'd' },
    state: 'open',
    openedAtMs,
    openedBy: 'Ines',
  },
  ...{ closedAtMs: null, outcome: null },
});
const complaint = (id: string, atMs: number): StoredComplaint => ({
  ...{ id, siteId: 's', deviceId: 'd', deviceName: 'desk', spotName: null, what: 'calls', atMs, runIds: [] },
  ...{ huntId: null, seenAtMs: null },
});

describe('what was found, changed and hunted', () => {
  let folder: string;
  let store: Store;
  beforeEach(async () => {
    folder = mkdtempSync(join(tmpdir(), 'bent-straw-'));
    store = await openNewStore(join(folder, 'findings.sqlite'));
    for (const id of ['s', 'other'])
      await store.sites.saveSite({ ...NEW_SITE, id, name: id, joinCode: id, joinCodeUntilMs: 1 });
  });
  afterEach(async () => {
    await store.close();
    rmSync(folder, { recursive: true });
  });

  it('lists swaps that stand, the oldest first, of one office', async () => {
    const { findings } = store;
    for (const each of [swap('b', 2), swap('a', 1), swap('undone', 3, { undoneAtMs: 4 })])
      await findings.saveSwap(each);
    await findings.saveSwap(swap('elsewhere', 1, { siteId: 'other' }));
    expect((await findings.swapsOf('s')).map(({ id }) => id)).toEqual(['a', 'b']);
    // One that was taken back is still known by its id.
    expect(await findings.swap('undone')).toMatchObject({ undoneAtMs: 4 });
    expect(await findings.swap('none')).toBeNull();
  });

  it('keeps a diagnosis whole, with what became of its findings, or nothing of it', async () => {
    const { findings } = store;
    expect(await findings.diagnosis('s')).toBeNull();
    await findings.saveDiagnosis('s', 7, DIAGNOSIS, [stored('a'), stored('b', { changedAtMs: 5 })]);
    expect(await findings.diagnosis('s')).toMatchObject({ madeAtMs: 7, diagnosis: DIAGNOSIS });
    expect((await findings.findingsOf('s')).map(({ id }) => id)).toEqual(['b', 'a']);
    // Two findings under one key cannot be: the whole change is left out, the diagnosis too.
    const twice = [stored('c'), stored('d', { findingKey: 'key c' })];
    await findings.saveDiagnosis('s', 8, DIAGNOSIS, twice).catch(() => undefined);
    const keys = (await findings.findingsOf('s')).map(({ findingKey }) => findingKey);
    expect(new Set(keys).size).toBe(keys.length);
  });

  it('is worked out anew under the same office, not beside it', async () => {
    await store.findings.saveDiagnosis('s', 7, DIAGNOSIS, []);
    await store.findings.saveDiagnosis('s', 9, { ...DIAGNOSIS, findings: [] }, []);
    expect(await store.findings.diagnosis('s')).toMatchObject({ madeAtMs: 9, diagnosis: { findings: [] } });
    expect(await store.findings.diagnosis('other')).toBeNull();
    // Another one of the same millisecond is not taken for the one that was read.
    await store.findings.saveDiagnosis('s', 9, { ...DIAGNOSIS, occasions: 5 }, []);
    expect(await store.findings.diagnosis('s')).toMatchObject({ diagnosis: { occasions: 5 } });
    expect(await store.findings.diagnosis('s')).toBe(await store.findings.diagnosis('s'));
  });

  it('lists hunts with the newest first, and the steps of one as they came', async () => {
    const { findings } = store;
    for (const each of [hunt('old', 1), hunt('new', 2)]) await findings.saveHunt(each);
    expect((await findings.huntsOf('s')).map(({ id }) => id)).toEqual(['new', 'old']);
    const step = (id: string, atMs: number) => ({ id, huntId: 'new', atMs, byName: 'Ines', kind: 'note', facts: {} });
    for (const each of [step('2', 20), step('1', 10), step('3', 20)]) await findings.addStep(each);
    expect((await findings.stepsOf('new')).map(({ id }) => id)).toEqual(['1', '2', '3']);
    expect(await findings.stepsOf('old')).toEqual([]);
  });

  it('lists complaints of a time on, the newest first', async () => {
    const { findings } = store;
    for (const each of [complaint('a', 10), complaint('b', 30), complaint('c', 20)]) await findings.saveComplaint(each);
    expect((await findings.complaintsSince('s', 20)).map(({ id }) => id)).toEqual(['b', 'c']);
    expect(await findings.complaintsSince('other', 0)).toEqual([]);
    expect(await findings.complaint('a')).toMatchObject({ what: 'calls' });
  });

  it('hides labels that were revoked, and knows them by their id', async () => {
    const label = { siteId: 's', spotId: 'spot', deviceId: null, createdAtMs: 1 };
    await store.findings.saveLabel({ ...label, id: 'a', revokedAtMs: null });
    await store.findings.saveLabel({ ...label, id: 'b', revokedAtMs: 5 });
    expect((await store.findings.labelsOf('s')).map(({ id }) => id)).toEqual(['a']);
    expect(await store.findings.label('b')).toMatchObject({ revokedAtMs: 5 });
  });
});
