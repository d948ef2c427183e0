import { DataTypes, type ModelStatic, type Sequelize } from 'sequelize';
import type { ComplaintRow, DiagnosisRow, FindingRow, HuntRow, HuntStepRow, LabelRow, SwapRow } from './finding-rows';
import type {
  CaseRow,
  ApiTokenRow,
  AuditRow,
  DeviceAliasRow,
  DeviceRow,
  LineRow,
  LineSwitchRow,
  PeerRow,
  PlanRow,
  ComparisonRow,
  RemovalRow,
  RunRow,
  RunSamplesRow,
  SignInRow,
  SiteRow,
  SpotRow,
  TechnicianRow,
  TurnRow,
} from './rows';

export interface Tables {
  readonly removals: ModelStatic<RemovalRow>;
  readonly apiTokens: ModelStatic<ApiTokenRow>;
  readonly technicians: ModelStatic<TechnicianRow>;
  readonly audit: ModelStatic<AuditRow>;
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
  readonly swaps: ModelStatic<SwapRow>;
  readonly diagnoses: ModelStatic<DiagnosisRow>;
  readonly findings: ModelStatic<FindingRow>;
  readonly hunts: ModelStatic<HuntRow>;
  readonly huntSteps: ModelStatic<HuntStepRow>;
  readonly labels: ModelStatic<LabelRow>;
  readonly complaints: ModelStatic<ComplaintRow>;
  readonly comparisons: ModelStatic<ComparisonRow>;
  readonly cases: ModelStatic<CaseRow>;
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
    technicians: sequelize.define<TechnicianRow>(
      'Technician',
      columns({ id, name: text, nameKey: text, hash: text, keeper: yesNo, addedAtMs: number, setAtMs: number }),
      { ...plain, tableName: 'technicians' },
    ),
    signIns: sequelize.define<SignInRow>(
      'SignIn',
      columns({
        ...{ id, technicianId: text, address: maybeText, browser: maybeText },
        ...{ createdAtMs: number, seenAtMs: number },
      }),
      { ...plain, tableName: 'sign_ins' },
    ),
    audit: sequelize.define<AuditRow>(
      'Audit',
      columns({
        id: { type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true },
        ...{ atMs: number, who: text, whoKind: text, address: maybeText, what: text, siteId: maybeText },
        ...{ subject: text, before: maybeJson, after: maybeJson },
      }),
      { ...plain, tableName: 'audit' },
    ),
    comparisons: sequelize.define<ComparisonRow>(
      'Comparison',
      columns({ id, siteId: text, name: text, trays: json, byName: text, madeAtMs: number, shareNumber: maybeNumber }),
      { ...plain, tableName: 'comparisons' },
    ),
    cases: sequelize.define<CaseRow>(
      'Case',
      columns({
        ...{ id, siteId: text, lineId: text, title: text, notes: text, contract: json, rule: json, byName: text },
        ...{ openedAtMs: number, closedAtMs: maybeNumber, deviceId: maybeText, askedAtMs: maybeNumber },
      }),
      { ...plain, tableName: 'cases' },
    ),
    removals: sequelize.define<RemovalRow>(
      'Removal',
      columns({ id, siteId: text, kind: text, name: text, removed: json, removedAtMs: number }),
      { ...plain, tableName: 'removals' },
    ),
    apiTokens: sequelize.define<ApiTokenRow>(
      'ApiToken',
      columns({
        ...{ id, name: text, scope: text, createdAtMs: number, usedAtMs: maybeNumber },
        ...{ endsAtMs: maybeNumber, madeBy: maybeText },
      }),
      { ...plain, tableName: 'api_tokens' },
    ),
    sites: sequelize.define<SiteRow>(
      'Site',
      columns({
        ...{ id, name: text, joinCode: text, joinCodeUntilMs: number, demo: yesNo, timeZone: maybeText },
        removedAtMs: maybeNumber,
      }),
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
    lines: sequelize.define<LineRow>(
      'Line',
      columns({
        id,
        siteId: text,
        name: text,
        provider: text,
        longLookAtMs: maybeNumber,
        rejudgeFromMs: maybeNumber,
        burstMs: maybeNumber,
        budgetBytes: maybeNumber,
      }),
      {
        ...plain,
        tableName: 'lines',
      },
    ),
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
        correctedAtMs: maybeNumber,
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
        ...{ cookieAtMs: maybeNumber, cookieBeforeMs: maybeNumber, openUntilMs: maybeNumber },
      }),
      { ...plain, tableName: 'devices' },
    ),
    peers: sequelize.define<PeerRow>(
      'Peer',
      columns({
        ...{ id, siteId: text, name: text, reach: text, address: text, practice: yesNo, pinned: yesNo },
        ...{ publicKey: maybeText, otherKey: maybeText, farSiteId: maybeText, pinnedAtMs: maybeNumber },
        ...{ web: maybeJson, agentId: maybeText },
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
        farEnd: { ...text, defaultValue: 'peer' },
        farLink: maybeJson,
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
        evidence: { ...text, defaultValue: 'alone' },
        leftOut: maybeText,
        movedBytes: maybeNumber,
        flags: { ...text, defaultValue: '' },
        receipt: maybeJson,
        ticketId: maybeText,
        untilMs: maybeNumber,
        planCorrectedAtMs: maybeNumber,
        thinnedAtMs: maybeNumber,
        importId: maybeText,
        ranges: maybeJson,
        lineUse: maybeJson,
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
        peerId: maybeText,
        profile: text,
        pacedMbps: maybeNumber,
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
    swaps: sequelize.define<SwapRow>(
      'Swap',
      columns({
        ...{ id, siteId: text, segmentId: text, what: text, note: text, deviceId: maybeText, atMs: number },
        ...{ byName: text, huntId: maybeText, undoneAtMs: maybeNumber },
      }),
      { ...plain, tableName: 'swaps' },
    ),
    diagnoses: sequelize.define<DiagnosisRow>(
      'Diagnosis',
      columns({ siteId: { type: DataTypes.STRING, primaryKey: true }, madeAtMs: number, diagnosis: json }),
      { ...plain, tableName: 'diagnoses' },
    ),
    findings: sequelize.define<FindingRow>(
      'Finding',
      columns({
        ...{ id, siteId: text, findingKey: text, state: text, reason: text, byName: text, strength: text },
        ...{ openedAtMs: number, changedAtMs: number, closedAtMs: maybeNumber, finding: json },
      }),
      { ...plain, tableName: 'findings' },
    ),
    hunts: sequelize.define<HuntRow>(
      'Hunt',
      columns({
        ...{ id, siteId: text, kind: text, title: text, focus: json, state: text, openedAtMs: number },
        ...{ openedBy: text, closedAtMs: maybeNumber, outcome: maybeJson },
      }),
      { ...plain, tableName: 'hunts' },
    ),
    huntSteps: sequelize.define<HuntStepRow>(
      'HuntStep',
      columns({ id, huntId: text, atMs: number, byName: text, kind: text, facts: json }),
      { ...plain, tableName: 'hunt_steps' },
    ),
    labels: sequelize.define<LabelRow>(
      'Label',
      columns({
        ...{ id, siteId: text, spotId: maybeText, deviceId: maybeText },
        ...{ createdAtMs: number, revokedAtMs: maybeNumber },
      }),
      { ...plain, tableName: 'labels' },
    ),
    complaints: sequelize.define<ComplaintRow>(
      'Complaint',
      columns({
        ...{ id, siteId: text, deviceId: text, deviceName: text, spotName: maybeText, what: text, atMs: number },
        ...{ runIds: json, huntId: maybeText, seenAtMs: maybeNumber },
      }),
      { ...plain, tableName: 'complaints' },
    ),
  };
}
