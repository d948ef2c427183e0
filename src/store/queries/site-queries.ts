import type { Attributes, Model } from 'sequelize';
import { Op } from 'sequelize';
import type { DeviceRow, LineRow, PeerRow, PlanRow, SiteRow, SpotRow, Tables } from '../models/tables';

export type Site = Attributes<SiteRow>;
export type Line = Attributes<LineRow>;
export type StoredPlan = Attributes<PlanRow>;
export type Spot = Attributes<SpotRow>;
export type Device = Attributes<DeviceRow>;
export type StoredPeer = Attributes<PeerRow>;

function plain<Self extends Model>(row: Self | null): Attributes<Self> | null {
  return row === null ? null : (row.get({ plain: true }) as Attributes<Self>);
}

/** Reads and writes of what an office is made of. Every `save` inserts or replaces by id. */
export class SiteQueries {
  constructor(private readonly tables: Tables) {}

  async all(): Promise<Site[]> {
    return (await this.tables.sites.findAll({ order: ['name'] })).map((row) => plain(row)!);
  }

  async byId(id: string): Promise<Site | null> {
    return plain(await this.tables.sites.findByPk(id));
  }

  async byJoinCode(joinCode: string): Promise<Site | null> {
    return plain(await this.tables.sites.findOne({ where: { joinCode } }));
  }

  async saveSite(site: Site): Promise<void> {
    await this.tables.sites.upsert(site);
  }

  async linesOf(siteId: string): Promise<Line[]> {
    return (await this.tables.lines.findAll({ where: { siteId }, order: ['name'] })).map((row) => plain(row)!);
  }

  async saveLine(line: Line): Promise<void> {
    await this.tables.lines.upsert(line);
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

  async spotsOf(siteId: string): Promise<Spot[]> {
    return (await this.tables.spots.findAll({ where: { siteId }, order: ['name'] })).map((row) => plain(row)!);
  }

  async saveSpot(spot: Spot): Promise<void> {
    await this.tables.spots.upsert(spot);
  }

  async devicesOf(siteId: string): Promise<Device[]> {
    return (await this.tables.devices.findAll({ where: { siteId }, order: ['name'] })).map((row) => plain(row)!);
  }

  async device(id: string): Promise<Device | null> {
    return plain(await this.tables.devices.findByPk(id));
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
}
