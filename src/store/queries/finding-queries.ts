import { Op, type Attributes, type Transaction } from 'sequelize';
import type { Diagnosis } from '@/core';
import type {
  ComplaintRow,
  FindingRow,
  FindingState,
  HuntRow,
  HuntStepRow,
  LabelRow,
  SwapRow,
} from '../models/finding-rows';
import type { Tables } from '../models/tables';

export type StoredSwap = Attributes<SwapRow>;
export type StoredFinding = Attributes<FindingRow>;
export type StoredHunt = Attributes<HuntRow>;
export type StoredHuntStep = Attributes<HuntStepRow>;
export type StoredLabel = Attributes<LabelRow>;
export type StoredComplaint = Attributes<ComplaintRow>;

const STATE_COLUMNS = ['state', 'reason', 'byName', 'changedAtMs', 'closedAtMs'] as const;
/** What a technician may change of a finding at any moment. */
export type FindingStanding = Pick<StoredFinding, (typeof STATE_COLUMNS)[number]>;

/** How a finding stands, and since when. */
export type StandingFinding = Pick<StoredFinding, 'id' | 'findingKey' | 'state' | 'reason' | 'openedAtMs'>;

export interface KeptDiagnosis {
  readonly madeAtMs: number;
  readonly diagnosis: Diagnosis;
}

/** What was found, changed and hunted in an office. */
export class FindingQueries {
  /** By site, what was read last. */
  readonly #read = new Map<string, KeptDiagnosis>();

  constructor(private readonly tables: Tables) {}

  /** Changes made on purpose that stand, the oldest first. */
  async swapsOf(siteId: string): Promise<StoredSwap[]> {
    const rows = await this.tables.swaps.findAll({ where: { siteId, undoneAtMs: null }, order: ['atMs'] });
    return rows.map((row) => row.get({ plain: true }));
  }

  async swap(id: string): Promise<StoredSwap | null> {
    return (await this.tables.swaps.findByPk(id))?.get({ plain: true }) ?? null;
  }

  async saveSwap(swap: StoredSwap): Promise<void> {
    await this.tables.swaps.upsert(swap);
  }

  /** The newest diagnosis of a site; the same object as long as no other was made: it is long, and each board asks for it. */
  async diagnosis(siteId: string): Promise<KeptDiagnosis | null> {
    const made = await this.tables.diagnoses.findByPk(siteId, { attributes: ['madeAtMs'], raw: true });
    const known = this.#read.get(siteId);
    if (made !== null && known?.madeAtMs === made.madeAtMs) return known;
    const read = (await this.tables.diagnoses.findByPk(siteId))?.get({ plain: true }) ?? null;
    if (read === null) this.#read.delete(siteId);
    else this.#read.set(siteId, read);
    return read;
  }

  /** The diagnosis and what became of its findings, in one transaction. */
  async saveDiagnosis(
    siteId: string,
    madeAtMs: number,
    diagnosis: Diagnosis,
    findings: readonly StoredFinding[],
  ): Promise<void> {
    await this.tables.diagnoses.sequelize!.transaction(async (transaction) => {
      await this.tables.diagnoses.upsert({ siteId, madeAtMs, diagnosis }, { transaction });
      for (const finding of findings) await this.#save(finding, transaction);
    });
    // Another one of the same millisecond is another one.
    this.#read.delete(siteId);
  }

  async #save(finding: StoredFinding, transaction?: Transaction): Promise<void> {
    await this.tables.findings.upsert(finding, transaction === undefined ? {} : { transaction });
  }

  async saveFinding(finding: StoredFinding): Promise<void> {
    await this.#save(finding);
  }

  async findingsOf(siteId: string): Promise<StoredFinding[]> {
    const rows = await this.tables.findings.findAll({ where: { siteId }, order: [['changedAtMs', 'DESC']] });
    return rows.map((row) => row.get({ plain: true }));
  }

  /** How the findings of a site stand, without what was found: that is long, and is read beforehand. By id. */
  async statesOf(siteId: string): Promise<ReadonlyMap<string, FindingStanding>> {
    const rows = await this.tables.findings.findAll({
      where: { siteId },
      attributes: ['id', ...STATE_COLUMNS],
      raw: true,
    });
    return new Map(
      rows.map(({ id, state, reason, byName, changedAtMs, closedAtMs }) => [
        id,
        { state, reason, byName, changedAtMs, closedAtMs },
      ]),
    );
  }

  /** Findings of a site in these states without what was found, which the diagnosis has: that is long. */
  async standingOf(siteId: string, states: readonly FindingState[]): Promise<StandingFinding[]> {
    return this.tables.findings.findAll({
      where: { siteId, state: [...states] },
      attributes: ['id', 'findingKey', 'state', 'reason', 'openedAtMs'],
      raw: true,
    });
  }

  async finding(id: string): Promise<StoredFinding | null> {
    return (await this.tables.findings.findByPk(id))?.get({ plain: true }) ?? null;
  }

  async huntsOf(siteId: string): Promise<StoredHunt[]> {
    const rows = await this.tables.hunts.findAll({ where: { siteId }, order: [['openedAtMs', 'DESC']] });
    return rows.map((row) => row.get({ plain: true }));
  }

  async hunt(id: string): Promise<StoredHunt | null> {
    return (await this.tables.hunts.findByPk(id))?.get({ plain: true }) ?? null;
  }

  async saveHunt(hunt: StoredHunt): Promise<void> {
    await this.tables.hunts.upsert(hunt);
  }

  async stepsOf(huntId: string): Promise<StoredHuntStep[]> {
    const rows = await this.tables.huntSteps.findAll({ where: { huntId }, order: ['atMs', 'id'] });
    return rows.map((row) => row.get({ plain: true }));
  }

  async addStep(step: StoredHuntStep): Promise<void> {
    await this.tables.huntSteps.create(step);
  }

  async labelsOf(siteId: string): Promise<StoredLabel[]> {
    const rows = await this.tables.labels.findAll({ where: { siteId, revokedAtMs: null }, order: ['createdAtMs'] });
    return rows.map((row) => row.get({ plain: true }));
  }

  async label(id: string): Promise<StoredLabel | null> {
    return (await this.tables.labels.findByPk(id))?.get({ plain: true }) ?? null;
  }

  async saveLabel(label: StoredLabel): Promise<void> {
    await this.tables.labels.upsert(label);
  }

  /** What was said since a time, the newest first. */
  async complaintsSince(siteId: string, sinceMs: number): Promise<StoredComplaint[]> {
    const rows = await this.tables.complaints.findAll({
      where: { siteId, atMs: { [Op.gte]: sinceMs } },
      order: [['atMs', 'DESC']],
    });
    return rows.map((row) => row.get({ plain: true }));
  }

  async complaint(id: string): Promise<StoredComplaint | null> {
    return (await this.tables.complaints.findByPk(id))?.get({ plain: true }) ?? null;
  }

  async saveComplaint(complaint: StoredComplaint): Promise<void> {
    await this.tables.complaints.upsert(complaint);
  }
}
