import { QueryTypes, type Sequelize } from 'sequelize';
import type { LinkChange, MachineFacts } from '@/core';

/** A machine that stands by without a person; the device has its name and where it is. */
export interface StoredAgent {
  readonly deviceId: string;
  readonly siteId: string;
  readonly version: string;
  readonly protocol: number;
  readonly facts: MachineFacts;
  /** Kinds of looks that it knows how to take, and other things that it can do. */
  readonly can: readonly string[];
  /** How far its clock is ahead of the console's, ms. */
  readonly clockOffsetMs: number;
  /** Results that it had still to hand in when it was last heard. */
  readonly outbox: number;
  readonly joinedAtMs: number;
  readonly seenAtMs: number;
}

/** A fact of a link that changed, as it was told. */
export interface StoredLinkChange extends LinkChange {
  readonly id: string;
  readonly deviceId: string;
  readonly siteId: string;
  readonly atMs: number;
  /** When a technician said that he has seen it; null: nobody has. */
  readonly seenAtMs: number | null;
}

/** Somebody whom an agent has heard on the network of an office; the same hardware address is the same. */
export interface StoredNeighbour {
  readonly siteId: string;
  readonly mac: string;
  /** The last that it had. */
  readonly address: string;
  readonly name: string | null;
  /** The agent that heard it last. */
  readonly deviceId: string;
  readonly firstAtMs: number;
  readonly lastAtMs: number;
  /** When a technician said that he knows it; null: nobody has. */
  readonly knownAtMs: number | null;
}

const AGENT_COLUMNS = [
  ...(['deviceId', 'siteId', 'version', 'protocol', 'facts', 'clockOffsetMs', 'outbox', 'joinedAtMs'] as const),
  ...(['seenAtMs', 'can'] as const),
] as const;
const CHANGE_COLUMNS = [
  ...(['id', 'deviceId', 'siteId', 'atMs', 'link', 'fact', 'before', 'after', 'seenAtMs'] as const),
] as const;
const places = (columns: readonly string[]) => columns.map(() => '?').join(', ');

export class AgentQueries {
  constructor(private readonly sequelize: Sequelize) {}

  async byDevice(deviceId: string): Promise<StoredAgent | null> {
    return (await this.#agents('deviceId = ?', [deviceId]))[0] ?? null;
  }

  /** By name of their device. */
  ofSite(siteId: string): Promise<StoredAgent[]> {
    return this.#agents('siteId = ?', [siteId]);
  }

  async save(agent: StoredAgent): Promise<void> {
    const values = AGENT_COLUMNS.map((name) =>
      name === 'facts' || name === 'can' ? JSON.stringify(agent[name]) : agent[name],
    );
    await this.sequelize.query(
      `INSERT OR REPLACE INTO agents (${AGENT_COLUMNS.join(', ')}) VALUES (${places(AGENT_COLUMNS)})`,
      { replacements: values },
    );
  }

  /** It was heard of until now. */
  async seen(deviceId: string, seenAtMs: number): Promise<void> {
    await this.sequelize.query('UPDATE agents SET seenAtMs = ? WHERE deviceId = ?', {
      replacements: [seenAtMs, deviceId],
    });
  }

  /** When each agent of an office last began to measure; those that never did are not in it. */
  async lastRuns(siteId: string): Promise<ReadonlyMap<string, number>> {
    const rows = await this.sequelize.query<{ deviceId: string; atMs: number | null }>(
      `SELECT deviceId, (SELECT MAX(startedAtMs) FROM runs WHERE runs.deviceId = agents.deviceId) AS atMs
       FROM agents WHERE siteId = ?`,
      { replacements: [siteId], type: QueryTypes.SELECT },
    );
    return new Map(rows.flatMap(({ deviceId, atMs }) => (atMs === null ? [] : [[deviceId, atMs]])));
  }

  async remove(deviceId: string): Promise<void> {
    await this.sequelize.query('DELETE FROM agents WHERE deviceId = ?', { replacements: [deviceId] });
  }

  async addChanges(changes: readonly StoredLinkChange[]): Promise<void> {
    for (const change of changes)
      await this.sequelize.query(
        `INSERT INTO link_changes (${CHANGE_COLUMNS.map((name) => `"${name}"`).join(', ')}) VALUES (${places(CHANGE_COLUMNS)})`,
        { replacements: CHANGE_COLUMNS.map((name) => change[name]) },
      );
  }

  /** What changed since a time, the newest first. */
  async changesOf(siteId: string, sinceMs: number): Promise<StoredLinkChange[]> {
    return this.sequelize.query<StoredLinkChange>(
      'SELECT * FROM link_changes WHERE siteId = ? AND atMs >= ? ORDER BY atMs DESC',
      { replacements: [siteId, sinceMs], type: QueryTypes.SELECT },
    );
  }

  async change(id: string): Promise<StoredLinkChange | null> {
    const [found] = await this.sequelize.query<StoredLinkChange>('SELECT * FROM link_changes WHERE id = ?', {
      replacements: [id],
      type: QueryTypes.SELECT,
    });
    return found ?? null;
  }

  async noteSeen(id: string, atMs: number): Promise<void> {
    await this.sequelize.query('UPDATE link_changes SET seenAtMs = ? WHERE id = ?', { replacements: [atMs, id] });
  }

  /** Neighbours that were heard now: what is new is written down, of the others when, and by what address and name. How many are new. */
  async hear(heard: readonly Omit<StoredNeighbour, 'firstAtMs' | 'knownAtMs'>[]): Promise<number> {
    return this.sequelize.transaction(async (transaction) => {
      const count = async () => {
        const [row] = await this.sequelize.query<{ many: number }>(
          'SELECT count(*) AS many FROM neighbours WHERE siteId = ?',
          {
            ...{ replacements: [heard[0]?.siteId ?? ''], type: QueryTypes.SELECT, transaction },
          },
        );
        return row!.many;
      };
      const before = await count();
      for (const { siteId, mac, address, name, deviceId, lastAtMs } of heard)
        await this.sequelize.query(
          `INSERT INTO neighbours (siteId, mac, address, name, deviceId, firstAtMs, lastAtMs) VALUES (?, ?, ?, ?, ?, ?, ?)
           ON CONFLICT (siteId, mac) DO UPDATE SET address = excluded.address, name = coalesce(excluded.name, name),
             deviceId = excluded.deviceId, lastAtMs = excluded.lastAtMs`,
          { replacements: [siteId, mac, address, name, deviceId, lastAtMs, lastAtMs], transaction },
        );
      return (await count()) - before;
    });
  }

  /** Who was heard since a moment, those first that nobody knows, then by address. */
  async neighboursOf(siteId: string, sinceMs: number): Promise<StoredNeighbour[]> {
    return this.sequelize.query<StoredNeighbour>(
      `SELECT * FROM neighbours WHERE siteId = ? AND lastAtMs >= ? ORDER BY knownAtMs IS NOT NULL, firstAtMs DESC, address`,
      { replacements: [siteId, sinceMs], type: QueryTypes.SELECT },
    );
  }

  /** All whom nobody has said that he knows are known from now on. */
  async noteKnown(siteId: string, atMs: number): Promise<void> {
    await this.sequelize.query('UPDATE neighbours SET knownAtMs = ? WHERE siteId = ? AND knownAtMs IS NULL', {
      replacements: [atMs, siteId],
    });
  }

  async #agents(where: string, values: readonly string[]): Promise<StoredAgent[]> {
    const rows = await this.sequelize.query<
      Omit<StoredAgent, 'facts' | 'can'> & { readonly facts: string; readonly can: string }
    >(
      `SELECT agents.* FROM agents JOIN devices ON devices.id = agents.deviceId WHERE agents.${where}
       ORDER BY devices.name COLLATE NOCASE`,
      { replacements: [...values], type: QueryTypes.SELECT },
    );
    return rows.map((row) => ({
      ...row,
      facts: JSON.parse(row.facts) as MachineFacts,
      can: JSON.parse(row.can) as string[],
    }));
  }
}
