import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Sequelize } from 'sequelize';
import { openStore } from '..';
import { migrate, MIGRATIONS } from './migrate';

/** A report as earlier versions stored it, as far as it matters here. */
const REPORT = JSON.stringify({
  fitness: [{ code: 'over-wifi', fact: 'the device was on Wi-Fi', nextStep: 'run again over a cable' }],
  down: { yardstick: { status: 'known', rateBps: 500e6, source: 'plan', arithmetic: [] } },
  up: { yardstick: { status: 'unknown', arithmetic: [] } },
});

describe('a database of the version before offices were several', () => {
  let folder: string;
  let file: string;
  beforeEach(async () => {
    folder = mkdtempSync(join(tmpdir(), 'bent-straw-'));
    file = join(folder, 'old.sqlite');
    const old = new Sequelize({ dialect: 'sqlite', storage: file, logging: false });
    await migrate(old, file, MIGRATIONS.slice(0, 6));
    const rows = [
      `INSERT INTO sites (id, name, joinCode, demo) VALUES ('s', 'Larkspur Bindery', 'KMT4QX', 0)`,
      `INSERT INTO lines VALUES ('l', 's', 'Tarnfell', 'Tarnfell Fibre')`,
      `INSERT INTO plans VALUES ('p', 'l', 'Tarnfell', 500e6, 100e6, NULL, NULL, 'payload', 0.9, 1000)`,
      `INSERT INTO devices VALUES ('d', 's', NULL, 'Press desk', '{"medium":"unknown"}')`,
      `INSERT INTO peers VALUES ('o', 's', 'Hilltop', 'internet', ':4871', 1)`,
      `INSERT INTO removals VALUES ('gone', 's', 'device', 'Old desk',
         '{"id":"gone","siteId":"s","spotId":null,"name":"Old desk","link":{"medium":"unknown"}}', 5000)`,
      `INSERT INTO runs (id, siteId, deviceId, peerId, lineId, deviceName, peerName, lineName, reach, link, linkKind,
         profile, practice, demo, status, startedAtMs, lastSeenAtMs, verdict, downBps, upBps, addedMs, report, setId)
       VALUES ('r', 's', 'd', 'o', 'l', 'Press desk', 'Hilltop', 'Tarnfell', 'internet', '{"medium":"unknown"}',
         'unknown', 'standard', 1, 0, 'finished', 2000, 2000, 'full', 480e6, 97e6, 12, '${REPORT}', 'r')`,
    ];
    for (const row of rows) await old.query(row);
    await old.close();
  });
  afterEach(() => rmSync(folder, { recursive: true }));

  it('is copied first, and goes on with its line in use, its peer, its device and what was removed', async () => {
    const store = await openStore(file);
    expect(existsSync(`${file}.before-0007-office`)).toBe(true);
    expect(await store.sites.lineInUse('s', 10)).toMatchObject({ id: 'l' });
    expect(await store.sites.peersOf('s')).toMatchObject([{ id: 'o', pinned: false, publicKey: null, otherKey: null }]);
    expect(await store.sites.device('d')).toMatchObject({ kind: null, notes: '', simulated: false });
    await store.removals.putBack((await store.removals.byId('gone'))!);
    expect(await store.sites.device('gone')).toMatchObject({ name: 'Old desk', notes: '' });
    await store.close();
  });

  it('has of each run what lists need, made from its report', async () => {
    const store = await openStore(file);
    expect(await store.runs.newestSets('s')).toEqual([
      expect.objectContaining({
        ...{ id: 'r', practice: true, evidence: 'practice', plan: null, downBps: 480e6 },
        brief: {
          ...{
            ...{ jitterMs: null, lossShare: null },
            flags: ['over-wifi'],
            downYardstickBps: 500e6,
            upYardstickBps: null,
          },
          ...{ downLowBps: null, upLowBps: null, addedDownMs: null, addedUpMs: null },
        },
      }),
    ]);
    expect(await store.runs.byId('r')).toMatchObject({ notes: '', shareNumber: null });
    await store.close();
  });
});

describe('a database of the version with one passphrase', () => {
  it('is copied first; the passphrase waits for a name, and tokens and devices go on', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'bent-straw-'));
    const file = join(folder, 'old.sqlite');
    const old = new Sequelize({ dialect: 'sqlite', storage: file, logging: false });
    await migrate(old, file, MIGRATIONS.slice(0, 9));
    const rows = [
      `INSERT INTO passphrases VALUES ('technician', 'scrypt$1', 1000)`,
      `INSERT INTO sign_ins VALUES ('s', 'Ines', 1000, 2000)`,
      `INSERT INTO api_tokens VALUES ('t', 'weekly report', 1000, NULL)`,
      `INSERT INTO sites (id, name, joinCode, demo) VALUES ('s', 'Larkspur Bindery', 'KMT4QX', 0)`,
      `INSERT INTO devices (id, siteId, name, link, cookieAtMs)
         VALUES ('d', 's', 'Press desk', '{"medium":"unknown"}', 500), ('n', 's', 'New', '{"medium":"unknown"}', NULL)`,
    ];
    for (const row of rows) await old.query(row);
    await old.close();
    const store = await openStore(file);
    expect(existsSync(`${file}.before-0010-people`)).toBe(true);
    expect(await store.access.technicians()).toEqual([
      { id: 'first', name: '', nameKey: '', hash: 'scrypt$1', keeper: true, addedAtMs: 1000, setAtMs: 1000 },
    ]);
    expect(await store.access.signIns()).toEqual([]);
    expect(await store.access.apiTokens()).toMatchObject([{ scope: 'everything', endsAtMs: null, madeBy: null }]);
    // Cookies of before say no time: they are told by this.
    expect(await store.sites.device('d')).toMatchObject({ cookieAtMs: 500, cookieBeforeMs: 0 });
    expect(await store.sites.device('n')).toMatchObject({ cookieAtMs: null, cookieBeforeMs: null });
    await store.close();
    rmSync(folder, { recursive: true });
  });
});
