import { join } from 'node:path';
import { QueryTypes, Sequelize } from 'sequelize';
import { linkKindOf, reportOf, seededRandom, USUAL_FULL_FROM, type Link, type Plan, type Reach } from '@/core';
import { simulateSamples } from '@/programs/demo/samples';
import { conditionsOf, figureColumns } from '@/services';
import { NEW_DEVICE, NEW_LINE, NEW_PEER, NEW_PLAN, openStore, STARTED_RUN, type Store, type StoredRun } from '@/store';

const DEVICES = 60;
/** Every run of it comes out at a fifth. */
const SLOW_DEVICE = 7;
const PLAN: Plan = {
  ...{ name: 'Bench 500/100', downBps: 500e6, upBps: 100e6, basis: 'payload', fullFrom: USUAL_FULL_FROM },
  ...{ leastDownBps: null, leastUpBps: null },
};
const WIRED: Link = { medium: 'wired', negotiatedBps: 1e9, mtuBytes: 1500 };
const NEAR: Link = { medium: 'wifi', band: '2.4', linkRateBps: null };
const AIR: Link = { medium: 'wifi', band: '5', linkRateBps: null };

/** Where runs are made, and what they come out at, Mb/s. */
interface Place {
  readonly link: Link;
  readonly reach: Reach;
  readonly down: number;
  readonly up: number;
}

const PLACES: readonly Place[] = [
  { link: WIRED, reach: 'local', down: 938, up: 935 },
  { link: WIRED, reach: 'internet', down: 486, up: 98 },
  { link: NEAR, reach: 'local', down: 71, up: 64 },
  { link: NEAR, reach: 'internet', down: 70, up: 62 },
  { link: AIR, reach: 'local', down: 410, up: 380 },
  { link: AIR, reach: 'internet', down: 400, up: 98 },
];

const deviceAt = (index: number) => ({ id: `device-${index}`, name: `Device ${String(index).padStart(2, '0')}` });
const peerOf = (reach: Reach) => `peer-${reach}`;
const templateOf = ({ link, reach, down }: Place) => `template ${linkKindOf(link)} ${reach} ${down}`;
const heldBack = (place: Place): Place => ({ ...place, down: 0.2 * place.down, up: 0.2 * place.up });

async function furnish(store: Store, siteId: string): Promise<void> {
  for (let index = 0; index < DEVICES; index += 1)
    await store.sites.saveDevice({ ...{ ...NEW_DEVICE, ...deviceAt(index), siteId, spotId: null, link: WIRED } });
  await store.sites.saveLine({ ...NEW_LINE, id: 'line', siteId, name: 'Bench line', provider: 'Bench' });
  await store.sites.savePlan({ ...NEW_PLAN, ...PLAN, id: 'plan', lineId: 'line', validFromMs: 0 });
  await store.sites.saveLineSwitch({ id: 'switch', siteId, lineId: 'line', atMs: 0 });
  for (const reach of ['local', 'internet'] as const)
    await store.sites.savePeer({
      ...{ ...NEW_PEER, id: peerOf(reach), siteId, name: `${reach} peer`, reach, address: '/' },
    });
}

/** A run as a device hands it in; copies of it fill the store. */
async function insertTemplate(store: Store, siteId: string, place: Place): Promise<void> {
  const { link, reach, down, up } = place;
  const direction = (mbps: number) => ({ rateBps: mbps * 1e6, queueMs: 25, swing: 0.01, dips: 0 });
  const samples = simulateSamples(
    { idleMs: reach === 'local' ? 0.5 : 15, jitterMs: 0.4, down: direction(down), up: direction(up) },
    seededRandom(1),
  );
  const id = templateOf(place);
  const isOutside = reach === 'internet';
  const run: StoredRun = {
    ...STARTED_RUN,
    ...{ id, setId: id, siteId, deviceId: '', peerId: peerOf(reach), deviceName: '', spotName: null },
    ...{ peerName: 'peer', lineId: isOutside ? 'line' : null, lineName: isOutside ? 'Bench line' : null },
    ...{ reach, link, linkKind: id, plan: isOutside ? PLAN : null, profile: 'standard', practice: false },
    ...{ startedAtMs: 0, lastSeenAtMs: 0, sameMachine: false, ipVersion: 4, told: [], noticed: [] },
  };
  const figures = figureColumns(reportOf(samples, conditionsOf(run)), run);
  await store.runs.insert(run);
  await store.runs.end(id, { ...figures, status: 'finished', reason: null, endedAtMs: 1 }, null);
}

/**
 * Fills the store of a program that was started once: 60 devices at 6 places each, so many runs in all, one an hour at
 * each place, three to a set; 2 % of noise, and one device that holds back.
 */
export async function fillStore(data: string, runs: number): Promise<void> {
  const file = join(data, 'bent-straw.sqlite');
  const store = await openStore(file);
  const [site] = await store.sites.all();
  await furnish(store, site!.id);
  for (const place of PLACES) for (const each of [place, heldBack(place)]) await insertTemplate(store, site!.id, each);
  await store.close();

  const sequelize = new Sequelize({ dialect: 'sqlite', storage: file, logging: false });
  const described = await sequelize.query<{ name: string }>('PRAGMA table_info(runs)', { type: QueryTypes.SELECT });
  const columns = described.map(({ name }) => name);
  const perPlace = Math.ceil(runs / (DEVICES * PLACES.length));
  const nowMs = Date.now();
  // A device at a time: what is not yet in the file itself would take as much room again.
  for (let index = 0; index < DEVICES; index += 1)
    await sequelize.transaction(async (transaction) => {
      for (const place of PLACES) {
        const { id, name } = deviceAt(index);
        const key = `${id}-${linkKindOf(place.link)}-${place.reach}`;
        const noise = `(0.98 + 0.04 * abs(random() % 1000) / 1000.0)`;
        const values: Record<string, string> = {
          id: `'${key}-' || n`,
          setId: `'${key}-' || (n / 3)`,
          deviceId: `'${id}'`,
          deviceName: `'${name}'`,
          linkKind: `'${linkKindOf(place.link)}'`,
          startedAtMs: `${nowMs} - (${perPlace} - n) * 3600000`,
          downBps: `downBps * ${noise}`,
          upBps: `upBps * ${noise}`,
        };
        await sequelize.query(
          `WITH RECURSIVE counter(n) AS (SELECT 1 UNION ALL SELECT n + 1 FROM counter WHERE n < ${perPlace})
           INSERT INTO runs (${columns.map((column) => `"${column}"`).join(', ')})
           SELECT ${columns.map((column) => values[column] ?? `"${column}"`).join(', ')}
           FROM runs, counter WHERE runs.id = '${templateOf(index === SLOW_DEVICE ? heldBack(place) : place)}'`,
          { transaction },
        );
      }
    });
  await sequelize.query(`DELETE FROM runs WHERE id LIKE 'template %'`);
  await sequelize.query('ANALYZE');
  await sequelize.close();
}
