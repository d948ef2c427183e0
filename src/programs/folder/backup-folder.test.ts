import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { checkStore, openStore } from '@/store';
import { backUp, backupsIn, keepBackup, nightIsDue, restore } from './backup-folder';
import { dataFiles } from './data-folder';

const NIGHT_MS = 24 * 3600_000;
const NOW_MS = Date.UTC(2026, 10, 24, 2, 0, 0);
const office = (name: string) => ({
  ...{ id: name, name, joinCode: name, joinCodeUntilMs: 0, demo: false, timeZone: null, removedAtMs: null },
});

describe('copies of a data folder', () => {
  let place: string;
  let data: string;
  beforeEach(async () => {
    place = mkdtempSync(join(tmpdir(), 'bent-straw-copies-'));
    data = join(place, 'data');
    mkdirSync(data);
    writeFileSync(join(data, 'console-key.pem'), 'the key');
    await (await openStore(dataFiles(data).database)).close();
  });
  afterEach(() => rmSync(place, { recursive: true }));

  const addSite = async (name: string) => {
    const store = await openStore(dataFiles(data).database);
    await store.sites.saveSite(office(name));
    await store.close();
  };
  const sitesIn = async (folder: string) => {
    const store = await openStore(dataFiles(folder).database);
    const names = (await store.sites.all()).map(({ name }) => name);
    await store.close();
    return names;
  };

  it('are whole while the console writes, and hold what had been written when they began', async () => {
    const store = await openStore(dataFiles(data).database);
    await store.sites.saveSite(office('before'));
    let writing = true;
    const writer = (async () => {
      for (let count = 0; writing; count += 1) await store.sites.saveSite(office(`office ${count}`));
    })();
    const to = join(place, 'copy');
    const made = await backUp(data, to, NOW_MS).finally(() => (writing = false));
    await writer;
    await store.close();
    expect(made).toMatchObject({ madeAtMs: NOW_MS, runs: 0, dangling: [] });
    await checkStore(dataFiles(to).database);
    expect(await sitesIn(to)).toContain('before');
    expect(readFileSync(join(to, 'console-key.pem'), 'utf8')).toBe('the key');
  });

  it('write nothing over, and leave nothing behind when they fail', async () => {
    const to = join(place, 'copy');
    await backUp(data, to, NOW_MS);
    await expect(backUp(data, to, NOW_MS)).rejects.toMatchObject({ code: 'copy-exists' });
    truncateSync(dataFiles(data).database, 6000);
    const other = join(place, 'other');
    await expect(backUp(data, other, NOW_MS)).rejects.toMatchObject({ code: 'store-damaged' });
    expect(readdirSync(place).sort()).toEqual(['copy', 'data']);
    await expect(backUp(join(place, 'nowhere'), other, NOW_MS)).rejects.toMatchObject({ code: 'data-missing' });
  });

  it('are put back, and what was there lies aside whole', async () => {
    await addSite('then');
    const to = join(place, 'copy');
    await backUp(data, to, NOW_MS);
    await addSite('since');
    writeFileSync(join(data, 'console-key.pem'), 'another key');
    const aside = await restore(to, data, NOW_MS);
    expect(await sitesIn(data)).toEqual(['then']);
    expect(readFileSync(join(data, 'console-key.pem'), 'utf8')).toBe('the key');
    expect((await sitesIn(aside!)).sort()).toEqual(['since', 'then']);
    expect(readFileSync(join(aside!, 'console-key.pem'), 'utf8')).toBe('another key');
    // A copy can be put back more than once.
    await restore(to, data, NOW_MS + 1000);
    expect(await sitesIn(data)).toEqual(['then']);
  });

  it('that are damaged, newer or none at all are refused, and nothing is changed', async () => {
    await addSite('then');
    const to = join(place, 'copy');
    await backUp(data, to, NOW_MS);
    const copy = dataFiles(to).database;
    const store = await openStore(copy);
    await store.close();
    const whole = readFileSync(copy);
    writeFileSync(copy, whole.subarray(0, 6000));
    await expect(restore(to, data, NOW_MS)).rejects.toMatchObject({ code: 'store-damaged' });
    writeFileSync(copy, whole);
    // The schema number stands at byte 60 of the header, big-endian.
    const newer = Buffer.from(whole);
    newer.writeUInt32BE(999, 60);
    writeFileSync(copy, newer);
    await expect(restore(to, data, NOW_MS)).rejects.toMatchObject({ code: 'store-newer' });
    await expect(restore(data, data, NOW_MS)).rejects.toMatchObject({ code: 'copy-missing' });
    expect(await sitesIn(data)).toEqual(['then']);
    expect(readdirSync(data).filter((name) => name.includes('restore'))).toEqual([]);
  });

  it('are made each night, seven of them kept, and those that somebody asked for are left alone', async () => {
    await keepBackup(data, 'asked', NOW_MS - NIGHT_MS);
    for (let night = 0; night < 10; night += 1) {
      const atMs = NOW_MS + night * NIGHT_MS;
      expect(nightIsDue(data, atMs)).toBe(true);
      await keepBackup(data, 'night', atMs);
      expect(nightIsDue(data, atMs + 3600_000)).toBe(false);
    }
    const kept = backupsIn(dataFiles(data).backups).map(({ folder }) => basename(folder));
    expect(kept.filter((name) => name.startsWith('night-'))).toEqual(
      [9, 8, 7, 6, 5, 4, 3].map((night) => `night-${new Date(NOW_MS + night * NIGHT_MS).toISOString().slice(0, 10)}`),
    );
    expect(kept.filter((name) => name.startsWith('asked-'))).toHaveLength(1);
    expect(existsSync(dataFiles(data).backups)).toBe(true);
  });

  it('make room for themselves: the oldest nights go, but for one, and what somebody asked for stays', async () => {
    await keepBackup(data, 'asked', NOW_MS - NIGHT_MS);
    for (let night = 0; night < 3; night += 1) await keepBackup(data, 'night', NOW_MS + night * NIGHT_MS);
    const { size } = statSync(dataFiles(data).database);
    const nights = () => readdirSync(dataFiles(data).backups).filter((name) => name.startsWith('night-'));
    await keepBackup(data, 'night', NOW_MS + 3 * NIGHT_MS, () => 1.5 * size);
    expect(nights()).toEqual(
      [1, 2, 3].map((night) => `night-${new Date(NOW_MS + night * NIGHT_MS).toISOString().slice(0, 10)}`),
    );
    await expect(keepBackup(data, 'night', NOW_MS + 4 * NIGHT_MS, () => 0)).rejects.toMatchObject({
      code: 'copy-no-room',
    });
    // What would not be enough is not given up for nothing.
    expect(nights()).toHaveLength(3);
    expect(readdirSync(dataFiles(data).backups).filter((name) => name.startsWith('asked-'))).toHaveLength(1);
  });
});
