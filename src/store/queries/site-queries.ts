import { Op, QueryTypes, type Attributes, type Model } from 'sequelize';
import type { DeviceRow, LineRow, LineSwitchRow, PeerRow, PlanRow, SiteRow, SpotRow } from '../models/rows';
import type { Tables } from '../models/tables';
import { fromOne, rowsAsOne } from './rows-as-one';

export type Site = Attributes<SiteRow>;
export type Line = Attributes<LineRow>;
export type LineSwitch = Attributes<LineSwitchRow>;
export type StoredPlan = Attributes<PlanRow>;
export type Spot = Attributes<SpotRow>;
export type Device = Attributes<DeviceRow>;
export type StoredPeer = Attributes<PeerRow>;

const DEVICE_COLUMNS = [
  ...(['id', 'siteId', 'spotId', 'name', 'link', 'kind', 'notes', 'simulated'] as const),
  ...(['cookieAtMs', 'cookieBeforeMs', 'openUntilMs'] as const),
] as const satisfies readonly (keyof Device)[];

function plain<Self extends Model>(row: Self | null): Attributes<Self> | null {
  return row === null ? null : (row.get({ plain: true }) as Attributes<Self>);
}

/** Reads and writes of what an office is made of. Every `save` inserts or replaces by id. */
export class SiteQueries {
  constructor(private readonly tables: Tables) {}

  async all(): Promise<Site[]> {
    const rows = await this.tables.sites.findAll({ where: { removedAtMs: null }, order: ['name'] });
    return rows.map((row) => plain(row)!);
  }

  async byId(id: string): Promise<Site | null> {
    return plain(await this.tables.sites.findOne({ where: { id, removedAtMs: null } }));
  }

  async byJoinCode(joinCode: string): Promise<Site | null> {
    return plain(await this.tables.sites.findOne({ where: { joinCode, removedAtMs: null } }));
  }

  /** Offices that were removed and can be put back, the newest first. */
  async removed(): Promise<Site[]> {
    const rows = await this.tables.sites.findAll({
      where: { removedAtMs: { [Op.not]: null } },
      order: [['removedAtMs', 'DESC']],
    });
    return rows.map((row) => plain(row)!);
  }

  /** Sets or takes back the time at which an office was removed. */
  async markRemoved(id: string, removedAtMs: number | null): Promise<void> {
    await this.tables.sites.update({ removedAtMs }, { where: { id } });
  }

  /** Deletes offices that were removed too long ago, with their lines, devices, peers, runs and samples. */
  async forgetRemovedBefore(removedAtMs: number): Promise<void> {
    await this.tables.sites.destroy({ where: { removedAtMs: { [Op.lt]: removedAtMs } } });
  }

  async saveSite(site: Site): Promise<void> {
    await this.tables.sites.upsert(site);
  }

  async linesOf(siteId: string): Promise<Line[]> {
    return (await this.tables.lines.findAll({ where: { siteId }, order: ['name'] })).map((row) => plain(row)!);
  }

  /** Which line was taken into use when, the newest first. */
  async lineSwitchesOf(siteId: string): Promise<LineSwitch[]> {
    const rows = await this.tables.lineSwitches.findAll({ where: { siteId }, order: [['atMs', 'DESC']] });
    return rows.map((row) => plain(row)!);
  }

  async saveLineSwitch(lineSwitch: LineSwitch): Promise<void> {
    await this.tables.lineSwitches.upsert(lineSwitch);
  }

  /** The line that a site used at a time; null when it had none yet. */
  async lineInUse(siteId: string, atMs: number): Promise<Line | null> {
    const [row] = await this.tables.lines.sequelize!.query<Line | { readonly id: null }>(
      `SELECT lines.* FROM line_switches LEFT JOIN lines ON lines.id = line_switches.lineId
       WHERE line_switches.siteId = :siteId AND atMs <= :atMs ORDER BY atMs DESC LIMIT 1`,
      { replacements: { siteId, atMs }, type: QueryTypes.SELECT },
    );
    return row === undefined || row.id === null ? null : row;
  }

  async line(id: string): Promise<Line | null> {
    return plain(await this.tables.lines.findByPk(id));
  }

  async saveLine(line: Line): Promise<void> {
    await this.tables.lines.upsert(line);
  }

  /** Lines with runs that are still to be judged anew. */
  async linesToJudge(): Promise<Line[]> {
    const rows = await this.tables.lines.findAll({ where: { rejudgeFromMs: { [Op.not]: null } } });
    return rows.map((row) => plain(row)!);
  }

  /** Plans of a line, the newest first. */
  async plansOf(lineId: string): Promise<StoredPlan[]> {
    const rows = await this.tables.plans.findAll({ where: { lineId }, order: [['validFromMs', 'DESC']] });
    return rows.map((row) => plain(row)!);
  }

  /** The plan in force at a time. */
  async planAt(lineId: string, atMs: number): Promise<StoredPlan | null> {
    return plain(
      await this.tables.plans.findOne({
        where: { lineId, validFromMs: { [Op.lte]: atMs } },
        order: [['validFromMs', 'DESC']],
      }),
    );
  }

  /** The plan that holds from exactly this time on. */
  async planFrom(lineId: string, validFromMs: number): Promise<StoredPlan | null> {
    return plain(await this.tables.plans.findOne({ where: { lineId, validFromMs } }));
  }

  async savePlan(plan: StoredPlan): Promise<void> {
    await this.tables.plans.upsert(plan);
  }

  async removePlan(id: string): Promise<void> {
    await this.tables.plans.destroy({ where: { id } });
  }

  async spotsOf(siteId: string): Promise<Spot[]> {
    return (await this.tables.spots.findAll({ where: { siteId }, order: ['name'] })).map((row) => plain(row)!);
  }

  async saveSpot(spot: Spot): Promise<void> {
    await this.tables.spots.upsert(spot);
  }

  async devicesOf(siteId: string): Promise<Device[]> {
    const [found] = await this.tables.devices.sequelize!.query<{ found: string }>(
      `SELECT ${rowsAsOne(DEVICE_COLUMNS, 'name')} AS found FROM devices WHERE siteId = :siteId`,
      { replacements: { siteId }, type: QueryTypes.SELECT },
    );
    return fromOne<Device>(DEVICE_COLUMNS, found!.found);
  }

  /** A device by its id, or by one under which it was known before two were merged. */
  async device(id: string): Promise<Device | null> {
    const found = await this.tables.devices.findByPk(id);
    if (found !== null) return plain(found);
    const alias = await this.tables.deviceAliases.findByPk(id);
    return alias === null ? null : plain(await this.tables.devices.findByPk(alias.deviceId));
  }

  async saveDevice(device: Device): Promise<void> {
    await this.tables.devices.upsert(device);
  }

  async peersOf(siteId: string): Promise<StoredPeer[]> {
    return (await this.tables.peers.findAll({ where: { siteId }, order: ['reach', 'name'] })).map((row) => plain(row)!);
  }

  async peer(id: string): Promise<StoredPeer | null> {
    return plain(await this.tables.peers.findByPk(id));
  }

  async savePeer(peer: StoredPeer): Promise<void> {
    await this.tables.peers.upsert(peer);
  }

  /** What a peer's keys are now; its other columns stay. */
  async saveKeys(id: string, keys: Pick<StoredPeer, 'publicKey' | 'otherKey'>): Promise<void> {
    await this.tables.peers.update(keys, { where: { id } });
  }

  /** Runs of a reach go to this peer from now on, and to no other of the site. */
  async pinPeer({ id, siteId, reach }: StoredPeer, pinnedAtMs: number): Promise<void> {
    await this.tables.peers.update(
      { pinned: false, pinnedAtMs: null },
      { where: { siteId, reach, id: { [Op.ne]: id } } },
    );
    await this.tables.peers.update({ pinned: true, pinnedAtMs }, { where: { id } });
  }
}
