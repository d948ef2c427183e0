import {
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  type Model,
  type ModelStatic,
  type Sequelize,
} from 'sequelize';
import type {
  DeviceKind,
  Link,
  Plan,
  ProfileName,
  Reach,
  RunBrief,
  RunReport,
  RunSketch,
  ToldCondition,
  TurnNeed,
  UnfinishedReason,
  VerdictWord,
} from '@/core';

/** Rows as they stand in the database. Ids are text, times UTC epoch ms, rates bits per second. */
interface Row<Self extends Model> extends Model<InferAttributes<Self>, InferCreationAttributes<Self>> {
  id: string;
}

export interface SiteRow extends Row<SiteRow> {
  name: string;
  joinCode: string;
  /** From then on the code opens nothing. */
  joinCodeUntilMs: number;
  demo: boolean;
  /** Null while it stands; a day after it was removed it is gone for good. */
  removedAtMs: number | null;
}

/** From this time on the site used this line. */
export interface LineSwitchRow extends Row<LineSwitchRow> {
  siteId: string;
  lineId: string;
  atMs: number;
}

/** A device that turned out to be another one. */
export interface DeviceAliasRow extends Row<DeviceAliasRow> {
  deviceId: string;
}

/** The technician's passphrase, hashed (scrypt, RFC 7914). There is at most one. */
export interface PassphraseRow extends Row<PassphraseRow> {
  hash: string;
  setAtMs: number;
}

/** A browser in which the technician signed in; the id is the SHA-256 of what its cookie holds. */
export interface SignInRow extends Row<SignInRow> {
  /** How whoever signed in is called here. */
  name: string;
  createdAtMs: number;
  seenAtMs: number;
}

export interface LineRow extends Row<LineRow> {
  siteId: string;
  name: string;
  provider: string;
}

export interface PlanRow extends Row<PlanRow> {
  lineId: string;
  name: string;
  downBps: number;
  upBps: number;
  leastDownBps: number | null;
  leastUpBps: number | null;
  basis: Plan['basis'];
  fullFrom: number;
  validFromMs: number;
}

export interface SpotRow extends Row<SpotRow> {
  siteId: string;
  name: string;
}

export interface DeviceRow extends Row<DeviceRow> {
  siteId: string;
  spotId: string | null;
  name: string;
  link: Link;
  kind: DeviceKind | null;
  notes: string;
  /** Played by the demo, behind practice lines. */
  simulated: boolean;
}

export interface PeerRow extends Row<PeerRow> {
  siteId: string;
  name: string;
  reach: Reach;
  /** Absolute URL, or ":port" for another port of the host by which the console was opened. */
  address: string;
  /** Whether a practice line stands in front of it. */
  practice: boolean;
  /** Runs of its reach go to this one; at most one peer of a site and reach is pinned. */
  pinned: boolean;
  /** By which it proves that it is the same as before, as it showed it first; null until it has. */
  publicKey: string | null;
  /** Another key that it showed since; null when it never did. */
  otherKey: string | null;
  /** The office in which it stands, when it is one of ours; only for a tunnel. */
  farSiteId: string | null;
}

export interface RunRow extends Row<RunRow> {
  siteId: string;
  deviceId: string;
  peerId: string;
  lineId: string | null;
  deviceName: string;
  spotName: string | null;
  peerName: string;
  lineName: string | null;
  reach: Reach;
  link: Link;
  linkKind: string;
  plan: Plan | null;
  profile: ProfileName;
  practice: boolean;
  demo: boolean;
  status: 'running' | 'finished' | 'unfinished';
  reason: UnfinishedReason | null;
  startedAtMs: number;
  lastSeenAtMs: number;
  endedAtMs: number | null;
  sameMachine: boolean | null;
  ipVersion: 4 | 6 | null;
  pageHiddenMs: number;
  peerLinkBps: number | null;
  otherPeerThanUsual: boolean;
  userAgent: string | null;
  methodVersion: number | null;
  verdict: VerdictWord | null;
  downBps: number | null;
  upBps: number | null;
  idleMs: number | null;
  addedMs: number | null;
  report: RunReport | null;
  /** What lists need of the report. */
  brief: RunBrief | null;
  sketch: RunSketch | null;
  /** Runs of the same set were made under the same conditions; see services/run-sets. */
  setId: string;
  /** The technician who asked the device for this run; null when it began by itself. */
  askedBy: string | null;
  /** Runs that were started at the same instant on purpose. */
  together: string | null;
  /** What the person at the device said before the run. */
  told: ToldCondition[];
  /** What the device noticed before the run, a sentence each. */
  noticed: string[];
  /** What the technician wrote beside it. */
  notes: string;
  /** Counts the links by which it was shared; null while it is shared by none. */
  shareNumber: number | null;
}

/** A place in the queue for what a run needs. The order is that of `askedAtMs`, then `place`. */
export interface TurnRow extends Row<TurnRow> {
  siteId: string;
  deviceId: string;
  deviceName: string;
  reach: Reach;
  profile: ProfileName;
  needs: TurnNeed[];
  together: string | null;
  askedBy: string | null;
  askedAtMs: number;
  place: number;
  /** When the device last asked whether it is its turn. */
  seenAtMs: number;
  status: 'waiting' | 'asked' | 'running' | 'done' | 'refused' | 'given-back' | 'withdrawn';
  runId: string | null;
  endedAtMs: number | null;
}

/** Raw samples as gzipped JSON, beside the run. */
export interface RunSamplesRow extends Model<InferAttributes<RunSamplesRow>, InferCreationAttributes<RunSamplesRow>> {
  runId: string;
  samples: Buffer;
}

/** A token by which a script uses the API; the id is its SHA-256. */
export interface ApiTokenRow extends Row<ApiTokenRow> {
  name: string;
  createdAtMs: number;
  usedAtMs: number | null;
}

/** A device, a peer or a line with its plans that was removed, whole; the id is its own. */
export interface RemovalRow extends Row<RemovalRow> {
  siteId: string;
  kind: 'device' | 'peer' | 'line';
  name: string;
  removed: object;
  removedAtMs: number;
}

export interface Tables {
  readonly removals: ModelStatic<RemovalRow>;
  readonly apiTokens: ModelStatic<ApiTokenRow>;
  readonly passphrases: ModelStatic<PassphraseRow>;
  readonly signIns: ModelStatic<SignInRow>;
  readonly sites: ModelStatic<SiteRow>;
  readonly lineSwitches: ModelStatic<LineSwitchRow>;
  readonly deviceAliases: ModelStatic<DeviceAliasRow>;
  readonly lines: ModelStatic<LineRow>;
  readonly plans: ModelStatic<PlanRow>;
  readonly spots: ModelStatic<SpotRow>;
  readonly devices: ModelStatic<DeviceRow>;
  readonly peers: ModelStatic<PeerRow>;
  readonly runs: ModelStatic<RunRow>;
  readonly turns: ModelStatic<TurnRow>;
  readonly runSamples: ModelStatic<RunSamplesRow>;
}

const id = { type: DataTypes.STRING, primaryKey: true } as const;
const text = { type: DataTypes.STRING, allowNull: false } as const;
const maybeText = { type: DataTypes.STRING, allowNull: true } as const;
const number = { type: DataTypes.DOUBLE, allowNull: false } as const;
const maybeNumber = { type: DataTypes.DOUBLE, allowNull: true } as const;
const yesNo = { type: DataTypes.BOOLEAN, allowNull: false } as const;
const json = { type: DataTypes.JSON, allowNull: false } as const;
const maybeJson = { type: DataTypes.JSON, allowNull: true } as const;

/** Sequelize writes into the column objects that it is given, so each model gets its own. */
function columns<Specs extends Record<string, object>>(specs: Specs): Specs {
  return Object.fromEntries(Object.entries(specs).map(([name, spec]) => [name, { ...spec }])) as Specs;
}

/** Declares the models; the tables themselves are made by the migrations. */
export function defineTables(sequelize: Sequelize): Tables {
  const plain = { timestamps: false } as const;
  return {
    passphrases: sequelize.define<PassphraseRow>('Passphrase', columns({ id, hash: text, setAtMs: number }), {
      ...plain,
      tableName: 'passphrases',
    }),
    signIns: sequelize.define<SignInRow>('SignIn', columns({ id, name: text, createdAtMs: number, seenAtMs: number }), {
      ...plain,
      tableName: 'sign_ins',
    }),
    removals: sequelize.define<RemovalRow>(
      'Removal',
      columns({ id, siteId: text, kind: text, name: text, removed: json, removedAtMs: number }),
      { ...plain, tableName: 'removals' },
    ),
    apiTokens: sequelize.define<ApiTokenRow>(
      'ApiToken',
      columns({ id, name: text, createdAtMs: number, usedAtMs: maybeNumber }),
      { ...plain, tableName: 'api_tokens' },
    ),
    sites: sequelize.define<SiteRow>(
      'Site',
      columns({ id, name: text, joinCode: text, joinCodeUntilMs: number, demo: yesNo, removedAtMs: maybeNumber }),
      { ...plain, tableName: 'sites' },
    ),
    lineSwitches: sequelize.define<LineSwitchRow>(
      'LineSwitch',
      columns({ id, siteId: text, lineId: text, atMs: number }),
      { ...plain, tableName: 'line_switches' },
    ),
    deviceAliases: sequelize.define<DeviceAliasRow>('DeviceAlias', columns({ id, deviceId: text }), {
      ...plain,
      tableName: 'device_aliases',
    }),
    lines: sequelize.define<LineRow>('Line', columns({ id, siteId: text, name: text, provider: text }), {
      ...plain,
      tableName: 'lines',
    }),
    plans: sequelize.define<PlanRow>(
      'Plan',
      columns({
        id,
        lineId: text,
        name: text,
        downBps: number,
        upBps: number,
        leastDownBps: maybeNumber,
        leastUpBps: maybeNumber,
        basis: text,
        fullFrom: number,
        validFromMs: number,
      }),
      { ...plain, tableName: 'plans' },
    ),
    spots: sequelize.define<SpotRow>('Spot', columns({ id, siteId: text, name: text }), {
      ...plain,
      tableName: 'spots',
    }),
    devices: sequelize.define<DeviceRow>(
      'Device',
      columns({
        ...{ id, siteId: text, spotId: maybeText, name: text, link: json },
        ...{ kind: maybeText, notes: text, simulated: yesNo },
      }),
      { ...plain, tableName: 'devices' },
    ),
    peers: sequelize.define<PeerRow>(
      'Peer',
      columns({
        ...{ id, siteId: text, name: text, reach: text, address: text, practice: yesNo, pinned: yesNo },
        ...{ publicKey: maybeText, otherKey: maybeText, farSiteId: maybeText },
      }),
      { ...plain, tableName: 'peers' },
    ),
    runs: sequelize.define<RunRow>(
      'Run',
      columns({
        id,
        siteId: text,
        deviceId: text,
        peerId: text,
        lineId: maybeText,
        deviceName: text,
        spotName: maybeText,
        peerName: text,
        lineName: maybeText,
        reach: text,
        link: json,
        linkKind: text,
        plan: maybeJson,
        profile: text,
        practice: yesNo,
        demo: yesNo,
        status: text,
        reason: maybeText,
        startedAtMs: number,
        lastSeenAtMs: number,
        endedAtMs: maybeNumber,
        sameMachine: { type: DataTypes.BOOLEAN, allowNull: true },
        ipVersion: { type: DataTypes.INTEGER, allowNull: true },
        pageHiddenMs: { ...number, defaultValue: 0 },
        peerLinkBps: maybeNumber,
        otherPeerThanUsual: yesNo,
        userAgent: maybeText,
        methodVersion: maybeNumber,
        verdict: maybeText,
        downBps: maybeNumber,
        upBps: maybeNumber,
        idleMs: maybeNumber,
        addedMs: maybeNumber,
        report: maybeJson,
        brief: maybeJson,
        sketch: maybeJson,
        setId: text,
        askedBy: maybeText,
        together: maybeText,
        told: json,
        noticed: json,
        notes: { ...text, defaultValue: '' },
        shareNumber: { type: DataTypes.INTEGER, allowNull: true },
      }),
      { ...plain, tableName: 'runs' },
    ),
    turns: sequelize.define<TurnRow>(
      'Turn',
      columns({
        id,
        siteId: text,
        deviceId: text,
        deviceName: text,
        reach: text,
        profile: text,
        needs: json,
        together: maybeText,
        askedBy: maybeText,
        askedAtMs: number,
        place: { type: DataTypes.INTEGER, allowNull: false },
        seenAtMs: number,
        status: text,
        runId: maybeText,
        endedAtMs: maybeNumber,
      }),
      { ...plain, tableName: 'turns' },
    ),
    runSamples: sequelize.define<RunSamplesRow>(
      'RunSamples',
      columns({
        runId: { type: DataTypes.STRING, primaryKey: true },
        samples: { type: DataTypes.BLOB, allowNull: false },
      }),
      { ...plain, tableName: 'run_samples' },
    ),
  };
}
