import { QueryTypes, type Sequelize } from 'sequelize';
import type { RunBrief } from '@/core';
import { OF_PATH, OF_RATE } from './of-rate';
import {
  columnsAsTexts,
  columnsOf,
  inParts,
  PART_ROWS,
  pickedFrom,
  type ColumnNames,
  type ColumnTexts,
  type RowPlace,
} from './columns-as-texts';
import type { RunQueries, StoredRun } from './run-queries';

type Figure = number | null;
type OfBrief = Pick<RunBrief, (typeof OF_BRIEF)[number]>;

/** A finished run as far as a diagnosis needs it. */
export interface EvidenceRun extends Pick<StoredRun, (typeof TEXTS)[number] | (typeof NUMBERS)[number] | 'link'> {
  readonly brief: OfBrief | null;
}

/** What `since` answers. */
export interface EvidenceOfSite {
  /** The oldest first. Runs with the same link share the very object. */
  readonly runs: readonly EvidenceRun[];
  readonly count: number;
  readonly version: number;
}

const TEXTS = ['id', 'setId', 'deviceId', 'linkKind', 'reach', 'lineId', 'peerId'] as const;
const NUMBERS = ['startedAtMs', 'downBps', 'upBps', 'ipVersion', 'peerLinkBps', 'practice'] as const;
const NAMES: ColumnNames = { texts: TEXTS, numbers: NUMBERS, documents: ['link'], lists: ['brief'] };
const OF_BRIEF = ['flags', 'downLowBps', 'upLowBps', 'addedDownMs', 'addedUpMs', 'resentShare'] as const;

/** The words of the indexes, which have all of it. */
const WHICH = `siteId = :siteId AND status = 'finished' AND ${OF_RATE} AND evidence IN (${OF_PATH})
  AND startedAtMs >= :sinceMs`;

/** Of a list of names the list of their values. */
type Values<Of, Names extends readonly (keyof Of)[]> = { [Place in keyof Names]: Of[Names[Place]] };
type BriefValues = Values<OfBrief, typeof OF_BRIEF>;

/** Plain objects of one shape, written out: there are tens of thousands of them. */
function runsOf(came: ColumnTexts): EvidenceRun[] {
  const { own, shared, documents } = columnsOf(came);
  const [setIds, deviceIds, linkKinds] = [
    shared<string>('setId'),
    shared<string>('deviceId'),
    shared<string>('linkKind'),
  ];
  const reaches = shared<EvidenceRun['reach']>('reach');
  const [lineIds, peerIds] = [shared<string | null>('lineId'), shared<string>('peerId')];
  const [startedAtMs, practice] = [own<number>('startedAtMs'), own<number>('practice')];
  const [downBps, upBps, peerLinkBps] = [own<Figure>('downBps'), own<Figure>('upBps'), own<Figure>('peerLinkBps')];
  const ipVersions = own<EvidenceRun['ipVersion']>('ipVersion');
  const [links, briefs] = [documents<EvidenceRun['link']>('link'), own<BriefValues | null>('brief')];
  return own<string>('id').map((id, place) => ({
    id,
    setId: setIds[place]!,
    startedAtMs: startedAtMs[place]!,
    deviceId: deviceIds[place]!,
    linkKind: linkKinds[place]!,
    link: links[place]!,
    reach: reaches[place]!,
    lineId: lineIds[place]!,
    peerId: peerIds[place]!,
    ipVersion: ipVersions[place]!,
    practice: practice[place] === 1,
    peerLinkBps: peerLinkBps[place]!,
    downBps: downBps[place]!,
    upBps: upBps[place]!,
    brief: briefOf(briefs[place]!),
  }));
}

function briefOf(values: BriefValues | null): OfBrief | null {
  if (values === null) return null;
  const [flags, downLowBps, upLowBps, addedDownMs, addedUpMs, resentShare] = values;
  return { flags, downLowBps, upLowBps, addedDownMs, addedUpMs, resentShare };
}

/** The runs that a diagnosis is made of. */
export class EvidenceQueries {
  constructor(
    private readonly sequelize: Sequelize,
    private readonly runs: Pick<RunQueries, 'boardVersion'>,
  ) {}

  /**
   * Finished runs of a site since a time that are evidence of their path, the oldest first; with a version of the board
   * only those that changed after it. `version`: what the next call may name; `count`: how many there are in all.
   */
  async since(siteId: string, sinceMs: number, afterVersion: number | null = null): Promise<EvidenceOfSite> {
    // The version first: what changes from here on is read again the next time.
    const version = await this.runs.boardVersion();
    if (afterVersion === null) {
      const runs = await this.#readAll(siteId, sinceMs);
      return { runs, count: runs.length, version };
    }
    const replacements = { siteId, sinceMs, afterVersion };
    const [changed, [counted]] = await Promise.all([
      this.#read(`INDEXED BY runs_changed WHERE ${WHICH} AND changed > :afterVersion`, replacements),
      this.sequelize.query<{ count: number }>(
        `SELECT COUNT(*) AS count FROM runs INDEXED BY runs_of_evidence WHERE ${WHICH}`,
        { replacements, type: QueryTypes.SELECT },
      ),
    ]);
    const runs = runsOf(changed).sort((a, b) => a.startedAtMs - b.startedAtMs);
    return { runs, count: counted!.count, version };
  }

  #readAll(siteId: string, sinceMs: number): Promise<EvidenceRun[]> {
    const behind = `INDEXED BY runs_whole_evidence WHERE ${WHICH} AND (startedAtMs, id) > (:startedAtMs, :id)
      ORDER BY startedAtMs, id LIMIT ${PART_ROWS}`;
    const read = (after: RowPlace) => this.#read(behind, { siteId, sinceMs, ...after });
    return inParts({ startedAtMs: sinceMs, id: '' }, read, runsOf);
  }

  async #read(of: string, replacements: Record<string, unknown>): Promise<ColumnTexts> {
    const columns = [...TEXTS, ...NUMBERS, 'link', `${pickedFrom('brief', OF_BRIEF)} AS brief`];
    const [came] = await this.sequelize.query<ColumnTexts>(
      columnsAsTexts(NAMES, `SELECT ${columns.join(', ')} FROM runs ${of}`),
      { replacements, type: QueryTypes.SELECT },
    );
    return came!;
  }
}
