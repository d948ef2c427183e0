import { QueryTypes, type Attributes, type Sequelize } from 'sequelize';
import { COMPARABLE, type LedgerTerm, type RunBrief } from '@/core';
import type { ComparisonRow } from '../models/rows';
import type { Tables } from '../models/tables';
import type { LedgerQueries } from './ledger-queries';
import type { StoredRun } from './run-queries';
import { columnsAsTexts, columnsOf, pickedFrom, type ColumnNames, type ColumnTexts } from './columns-as-texts';

export type StoredComparison = Attributes<ComparisonRow>;

const TEXTS = [
  ...(['id', 'setId', 'deviceName', 'spotName', 'peerName', 'lineName', 'reach', 'linkKind'] as const),
  ...(['profile', 'evidence'] as const),
] as const;
const NUMBERS = ['startedAtMs', 'downBps', 'upBps', 'idleMs', 'methodVersion', 'practice'] as const;
const DOCUMENTS = ['plan', 'told'] as const;
const OF_BRIEF = ['addedDownMs', 'addedUpMs', 'jitterMs', 'lossShare'] as const;
const NAMES: ColumnNames = { texts: TEXTS, numbers: NUMBERS, documents: DOCUMENTS, lists: ['brief'] };

/** A run as far as it is compared. */
export type ComparedRow = Pick<
  StoredRun,
  (typeof TEXTS)[number] | (typeof NUMBERS)[number] | (typeof DOCUMENTS)[number]
> & {
  readonly brief: Pick<RunBrief, (typeof OF_BRIEF)[number]> | null;
};
type Figure = number | null;
type BriefValues = readonly [Figure, Figure, Figure, Figure];

/** Plain objects of one shape, written out: there are thousands of them. */
function comparedRows(came: ColumnTexts): ComparedRow[] {
  const { own, shared, documents } = columnsOf(came);
  const [setIds, reaches] = [shared<string>('setId'), shared<ComparedRow['reach']>('reach')];
  const [devices, spots] = [shared<string>('deviceName'), shared<string | null>('spotName')];
  const [peers, lines] = [shared<string>('peerName'), shared<string | null>('lineName')];
  const [linkKinds, profiles] = [shared<string>('linkKind'), shared<ComparedRow['profile']>('profile')];
  const evidence = shared<ComparedRow['evidence']>('evidence');
  const [startedAtMs, practice] = [own<number>('startedAtMs'), own<number>('practice')];
  const [downs, ups, idles] = [own<Figure>('downBps'), own<Figure>('upBps'), own<Figure>('idleMs')];
  const methods = own<ComparedRow['methodVersion']>('methodVersion');
  const [plans, told] = [documents<ComparedRow['plan']>('plan'), documents<ComparedRow['told']>('told')];
  const briefs = own<BriefValues | null>('brief');
  return own<string>('id').map((id, place) => ({
    id,
    setId: setIds[place]!,
    startedAtMs: startedAtMs[place]!,
    deviceName: devices[place]!,
    spotName: spots[place]!,
    peerName: peers[place]!,
    lineName: lines[place]!,
    reach: reaches[place]!,
    linkKind: linkKinds[place]!,
    profile: profiles[place]!,
    evidence: evidence[place]!,
    practice: practice[place] === 1,
    methodVersion: methods[place]!,
    plan: plans[place]!,
    told: told[place]!,
    downBps: downs[place]!,
    upBps: ups[place]!,
    idleMs: idles[place]!,
    brief: briefOf(briefs[place]!),
  }));
}

function briefOf(values: BriefValues | null): ComparedRow['brief'] {
  if (values === null) return null;
  const [addedDownMs, addedUpMs, jitterMs, lossShare] = values;
  return { addedDownMs, addedUpMs, jitterMs, lossShare };
}

/** More runs than this are not taken into one tray: the newest are. */
export const MOST_OF_A_TRAY = 20_000;

/** Comparisons that were kept, and the runs that they are made of. */
export class ComparisonQueries {
  constructor(
    private readonly sequelize: Sequelize,
    private readonly tables: Pick<Tables, 'comparisons'>,
    private readonly ledger: LedgerQueries,
  ) {}

  async byId(id: string): Promise<StoredComparison | null> {
    return (await this.tables.comparisons.findByPk(id))?.get({ plain: true }) ?? null;
  }

  /** The newest first. */
  async ofSite(siteId: string): Promise<StoredComparison[]> {
    const rows = await this.tables.comparisons.findAll({ where: { siteId }, order: [['madeAtMs', 'DESC']] });
    return rows.map((row) => row.get({ plain: true }));
  }

  async save(comparison: StoredComparison): Promise<void> {
    await this.tables.comparisons.upsert(comparison);
  }

  async remove(id: string): Promise<void> {
    await this.tables.comparisons.destroy({ where: { id } });
  }

  /** Finished runs with rates that match, the oldest first; `aside`: how many of them are no evidence of their path. */
  async runs(
    siteId: string,
    terms: readonly LedgerTerm[],
    runsOf: ReadonlyMap<string, readonly string[]>,
  ): Promise<{ readonly runs: readonly ComparedRow[]; readonly aside: number }> {
    const { sql, values } = await this.ledger.condition(siteId, terms, runsOf);
    const which = `${sql} AND status IN ('finished', 'imported') AND profile NOT IN ('delay', 'paced')`;
    const ofPath = `evidence IN (${COMPARABLE.map((each) => `'${each}'`).join(', ')})`;
    const columns = [...TEXTS, ...NUMBERS, ...DOCUMENTS, `${pickedFrom('brief', OF_BRIEF)} AS brief`];
    const select = `SELECT ${columns.join(', ')} FROM runs WHERE ${which} AND ${ofPath} ORDER BY startedAtMs DESC LIMIT ?`;
    const [came] = await this.sequelize.query<ColumnTexts>(columnsAsTexts(NAMES, select), {
      ...{ replacements: [...values, MOST_OF_A_TRAY], type: QueryTypes.SELECT },
    });
    const [aside] = await this.sequelize.query<{ count: number }>(
      `SELECT COUNT(*) AS count FROM runs WHERE ${which} AND NOT ${ofPath}`,
      { replacements: [...values], type: QueryTypes.SELECT },
    );
    return { runs: comparedRows(came!).reverse(), aside: aside!.count };
  }
}
