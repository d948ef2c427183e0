import { Op, QueryTypes, type Attributes, type Sequelize } from 'sequelize';
import type { FitnessCode } from '@/core';
import type { CaseRow } from '../models/rows';
import type { Tables } from '../models/tables';
import { OF_RATE } from './of-rate';

export type StoredCase = Attributes<CaseRow>;

/** A finished run over a line, as a case has it. Rates bits per second, delays ms; null: not measured. */
export interface CaseRunRow {
  readonly id: string;
  readonly startedAtMs: number;
  readonly deviceName: string;
  readonly linkKind: string;
  readonly practice: boolean;
  readonly demo: boolean;
  readonly evidence: string;
  readonly leftOut: string | null;
  readonly downBps: number | null;
  readonly upBps: number | null;
  readonly idleMs: number | null;
  readonly addedDownMs: number | null;
  readonly addedUpMs: number | null;
  readonly methodVersion: number | null;
  readonly planCorrectedAtMs: number | null;
  readonly flagsDown: readonly FitnessCode[];
  readonly flagsUp: readonly FitnessCode[];
  /** Whether a receipt of the peer proves what it moved. */
  readonly receipt: boolean;
  /** The receipt as the peer signed it, and its key; null: none, or of a time when only its figures were kept. */
  readonly signedReceipt: string | null;
  readonly peerKey: string | null;
}

type Row = Omit<CaseRunRow, 'practice' | 'demo' | 'receipt' | 'flagsDown' | 'flagsUp'> & {
  readonly practice: number;
  readonly demo: number;
  readonly receipt: number;
  readonly flagsDown: string | null;
  readonly flagsUp: string | null;
};

const flagsOf = (text: string | null) => JSON.parse(text ?? '[]') as FitnessCode[];

/** Cases, and the runs that they are made of. */
export class CaseQueries {
  constructor(
    private readonly sequelize: Sequelize,
    private readonly tables: Pick<Tables, 'cases'>,
  ) {}

  async byId(id: string): Promise<StoredCase | null> {
    return (await this.tables.cases.findByPk(id))?.get({ plain: true }) ?? null;
  }

  /** The newest first. */
  async ofSite(siteId: string): Promise<StoredCase[]> {
    const rows = await this.tables.cases.findAll({ where: { siteId }, order: [['openedAtMs', 'DESC']] });
    return rows.map((row) => row.get({ plain: true }));
  }

  /** Open cases that a device measures for. */
  async measuring(): Promise<StoredCase[]> {
    const rows = await this.tables.cases.findAll({ where: { closedAtMs: null, deviceId: { [Op.ne]: null } } });
    return rows.map((row) => row.get({ plain: true }));
  }

  async save(stored: StoredCase): Promise<void> {
    await this.tables.cases.upsert(stored);
  }

  async remove(id: string): Promise<void> {
    await this.tables.cases.destroy({ where: { id } });
  }

  /** All finished runs over its line since it was opened, fit or not, the oldest first. */
  async runs({ siteId, lineId, openedAtMs, closedAtMs }: StoredCase): Promise<CaseRunRow[]> {
    const rows = await this.sequelize.query<Row>(
      `SELECT id, startedAtMs, deviceName, linkKind, practice, demo, evidence, leftOut, downBps, upBps, idleMs,
         brief ->> '$.addedDownMs' AS addedDownMs, brief ->> '$.addedUpMs' AS addedUpMs, methodVersion,
         planCorrectedAtMs, brief -> '$.flagsDown' AS flagsDown, brief -> '$.flagsUp' AS flagsUp,
         receipt ->> '$.receipt' IS NOT NULL AS receipt, receipt ->> '$.signed' AS signedReceipt,
         receipt ->> '$.key' AS peerKey
       FROM runs WHERE lineId = ? AND siteId = ? AND startedAtMs >= ? AND startedAtMs <= ? AND status = 'finished'
         AND reach = 'internet' AND ${OF_RATE} ORDER BY startedAtMs, id`,
      {
        replacements: [lineId, siteId, openedAtMs, closedAtMs ?? Number.MAX_SAFE_INTEGER],
        type: QueryTypes.SELECT,
      },
    );
    return rows.map((row) => ({
      ...row,
      ...{ practice: row.practice === 1, demo: row.demo === 1, receipt: row.receipt === 1 },
      ...{ flagsDown: flagsOf(row.flagsDown), flagsUp: flagsOf(row.flagsUp) },
    }));
  }
}
