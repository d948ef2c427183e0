import { join } from 'node:path';
import { QueryTypes, Sequelize } from 'sequelize';
import { linkKindOf, reportOf, seededRandom, USUAL_FULL_FROM, type Link, type Plan, type Reach } from '@/core';
import { simulateSamples } from '@/programs/demo/samples';
import { conditionsOf, figureColumns } from '@/services';
import {
  NEW_DEVICE,
  NEW_LINE,
  NEW_PEER,
  NEW_PLAN,
  NEW_SITE,
  openStore,
  STARTED_RUN,
  type Store,
  type StoredRun,
} from '@/store';

const DEVICES = 60;
/** In each of many offices. */
const DEVICES_OF_MANY = 7;
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

/** An office of the store; what is in it has ids that begin with `prefix`. */
interface Office {
  readonly siteId: string;
  readonly prefix: string;
  readonly devices: number;
}

const deviceAt = ({ prefix }: Office, index: number) => ({
  id: `${prefix}device-${index}`,
  name: `Device ${String(index).padStart(2, '0')}`,
});
const peerOf = ({ prefix }: Office, reach: Reach) => `${prefix}peer-${reach}`;
const templateOf = ({ prefix }: Office, { link, reach, down }: Place) =>
  `template ${prefix}${linkKindOf(link)} ${reach} ${down}`;
const heldBack = (place: Place): Place => ({ ...place, down: 0.2 * place.down, up: 0.2 * place.up });

async function furnish(store: Store, office: Office): Promise<void> {
  const { siteId, prefix, devices } = office;
  const lineId = `${prefix}line`;
  for (let index = 0; index < devices; index += 1)
    await store.sites.saveDevice({ ...NEW_DEVICE, ...deviceAt(office, index), siteId, spotId: null, link: WIRED });
  await store.sites.saveLine({ ...NEW_LINE, id: lineId, siteId, name: 'Bench line', provider: 'Bench' });
  await store.sites.savePlan({ ...NEW_PLAN, ...PLAN, id: `${prefix}plan`, lineId, validFromMs: 0 });
  await store.sites.saveLineSwitch({ id: `${prefix}switch`, siteId, lineId, atMs: 0 });
  for (const reach of ['local', 'internet'] as const)
    await store.sites.savePeer({
      ...{ ...NEW_PEER, id: peerOf(office, reach), siteId, name: `${reach} peer`, reach, address: '/' },
    });
}

/** A run as a device hands it in; copies of it fill the store. */
async function insertTemplate(store: Store, office: Office, place: Place): Promise<void> {
  const { siteId, prefix } = office;
  const { link, reach, down, up } = place;
  const direction = (mbps: number) => ({ rateBps: mbps * 1e6, queueMs: 25, swing: 0.01, dips: 0 });
  const samples = simulateSamples(
    { idleMs: reach === 'local' ? 0.5 : 15, jitterMs: 0.4, down: direction(down), up: direction(up) },
    seededRandom(1),
  );
  const id = templateOf(office, place);
  const isOutside = reach === 'internet';
  const run: StoredRun = {
    ...STARTED_RUN,
    ...{ id, setId: id, siteId, deviceId: '', peerId: peerOf(office, reach), deviceName: '', spotName: null },
    ...{ peerName: 'peer', lineId: isOutside ? `${prefix}line` : null, lineName: isOutside ? 'Bench line' : null },
    ...{ reach, link, linkKind: id, plan: isOutside ? PLAN : null, profile: 'standard', practice: false },
    ...{ startedAtMs: 0, lastSeenAtMs: 0, sameMachine: false, ipVersion: 4, told: [], noticed: [] },
  };
  const figures = figureColumns(reportOf(samples, conditionsOf(run)), run);
  await store.runs.insert(run);
  await store.runs.end(id, { ...figures, status: 'finished', reason: null, endedAtMs: 1 }, null);
}

/** The office that is there, or so many with a few devices each. */
async function officesIn(store: Store, count: number): Promise<Office[]> {
  const [site] = await store.sites.all();
  if (count === 1) return [{ siteId: site!.id, prefix: '', devices: DEVICES }];
  const offices = Array.from({ length: count }, (_, index): Office => {
    const prefix = index === 0 ? '' : `office-${index}-`;
    return { siteId: index === 0 ? site!.id : `${prefix}site`, prefix, devices: DEVICES_OF_MANY };
  });
  for (const { siteId, prefix } of offices.slice(1))
    await store.sites.saveSite({
      ...NEW_SITE,
      id: siteId,
      name: `Bench ${prefix}`,
      joinCode: prefix,
      joinCodeUntilMs: 0,
    });
  return offices;
}

/**
 * Fills the store of a program that was started once: 60 devices (7 in each of many offices) at 6 places each, so many
 * runs in all, one an hour at each place, three to a set; 2 % of noise, and one device that holds back.
 */
export async function fillStore(data: string, runs: number, count = 1): Promise<void> {
  const file = join(data, 'bent-straw.sqlite');
  const store = await openStore(file);
  const offices = await officesIn(store, count);
  for (const office of offices) {
    await furnish(store, office);
    for (const place of PLACES) for (const each of [place, heldBack(place)]) await insertTemplate(store, office, each);
  }
  await store.close();

  const sequelize = new Sequelize({ dialect: 'sqlite', storage: file, logging: false });
  const described = await sequelize.query<{ name: string }>('PRAGMA table_info(runs)', { type: QueryTypes.SELECT });
  const columns = described.map(({ name }) => name);
  const all = offices.flatMap((office) => Array.from({ length: office.devices }, (_, index) => ({ office, index })));
  const perPlace = Math.ceil(runs / (all.length * PLACES.length));
  const nowMs = Date.now();
  // A device at a time: what is not yet in the file itself would take as much room again.
  for (const { office, index } of all)
    await sequelize.transaction(async (transaction) => {
      for (const place of PLACES) {
        const { id, name } = deviceAt(office, index);
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
           FROM runs, counter WHERE runs.id = '${templateOf(office, index === SLOW_DEVICE ? heldBack(place) : place)}'`,
          { transaction },
        );
      }
    });
  await sequelize.query(`DELETE FROM runs WHERE id LIKE 'template %'`);
  await sequelize.query('ANALYZE');
  await sequelize.close();
}
