import type { CreationOptional, InferAttributes, InferCreationAttributes, Model } from 'sequelize';
import type {
  CaseContract,
  CaseRule,
  DeviceKind,
  Evidence,
  FarEnd,
  Interval,
  LineUse,
  Link,
  Plan,
  ProfileName,
  Reach,
  Receipt,
  RunBrief,
  RunReport,
  RunSketch,
  ToldCondition,
  TurnNeed,
  UnfinishedReason,
  VerdictWord,
  WebFarEnd,
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
  /** IANA name of the zone whose hours its day has; null: that of the console's machine. */
  timeZone: string | null;
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

/** Somebody who may sign in. */
export interface TechnicianRow extends Row<TechnicianRow> {
  name: string;
  /** The name as it is compared: small letters, composed. */
  nameKey: string;
  /** Of the passphrase (scrypt, RFC 7914); empty for one who was invited and has not set one. */
  hash: string;
  /** Whether he may add and remove others. */
  keeper: boolean;
  addedAtMs: number;
  /** When the passphrase was set, or the last link for that was made: a link of before opens nothing. */
  setAtMs: number;
}

/** A browser in which a technician signed in; the id is the SHA-256 of what its cookie holds. */
export interface SignInRow extends Row<SignInRow> {
  technicianId: string;
  /** Where it came from and what it said it is, when it signed in. */
  address: string | null;
  browser: string | null;
  createdAtMs: number;
  seenAtMs: number;
}

/** One thing that was done, or tried. Never changed once written. */
export interface AuditRow extends Model<InferAttributes<AuditRow>, InferCreationAttributes<AuditRow>> {
  id: CreationOptional<number>;
  atMs: number;
  who: string;
  whoKind: string;
  address: string | null;
  /** A code; its words are made where it is read. */
  what: string;
  siteId: string | null;
  /** Name of what it was done to. */
  subject: string;
  before: Facts | null;
  after: Facts | null;
}

/** Name of a fact → what it was. */
export type Facts = Readonly<Record<string, string | number | boolean | null>>;

export interface LineRow extends Row<LineRow> {
  siteId: string;
  name: string;
  provider: string;
  /** When a run last looked at it for long, to see whether it is fast only at first; null: never. */
  longLookAtMs: number | null;
  /** How long it was seen to be faster at first, ms; null: it is not. */
  burstMs: number | null;
  /** What runs may move over it in a month, bytes; null: as much as they like. */
  budgetBytes: number | null;
  /** From when on its runs are still to be judged anew, since a plan was corrected; null: none are. */
  rejudgeFromMs: number | null;
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
  /** When its figures were corrected last, for the runs of its days too; null: never. */
  correctedAtMs: number | null;
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
  /** When a browser was last given a cookie by which it is this device; null: none has one. */
  cookieAtMs: number | null;
  /** When the cookie before the present one was given; null: it is the first. */
  cookieBeforeMs: number | null;
  /** Until then the technician lets another browser become this device; null: it is closed. */
  openUntilMs: number | null;
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
  pinnedAtMs: number | null;
  /** It is no peer but a web server, which agents alone can load; null: a peer. */
  web: WebFarEnd | null;
  /** It is the agent of this device, which serves as a peer for a run at a time; null: it is none. */
  agentId: string | null;
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
  /** `unknown`: a file that it came from does not say. */
  profile: ProfileName | 'unknown';
  practice: boolean;
  demo: boolean;
  /** `removed`: kept for a day, so that it can be put back; `imported`: its figures came from a file. */
  status: 'running' | 'finished' | 'unfinished' | 'removed' | 'imported';
  reason: UnfinishedReason | null;
  startedAtMs: number;
  lastSeenAtMs: number;
  endedAtMs: number | null;
  sameMachine: boolean | null;
  ipVersion: 4 | 6 | null;
  pageHiddenMs: number;
  peerLinkBps: number | null;
  otherPeerThanUsual: boolean;
  farEnd: FarEnd;
  /** How the machine at the other end was connected, where that was an agent; null: another far end, or not known. */
  farLink: Link | null;
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
  /** Why a technician took it out of all judgement; null: nobody did. */
  leftOut: string | null;
  /** What it moved in both directions, payload bytes; null: not known. */
  movedBytes: number | null;
  /** Codes of its fitness flags, each between two spaces. */
  flags: string;
  /** What it counts for; see core/judge/evidence. */
  evidence: Evidence;
  /** What its peer signed for; null in runs from before there were receipts, and while it runs. */
  receipt: StoredReceipt | null;
  ticketId: string | null;
  /** Its ticket lasts until then: whatever is heard of it later, it is over. Null in runs of before. */
  untilMs: number | null;
  /** When the plan that it is held against was corrected, or another one put in its place, after it was made. */
  planCorrectedAtMs: number | null;
  /** When its samples were let go, for they were older than they are kept; null: they are there, or never were. */
  thinnedAtMs: number | null;
  /** The file that it came from; null: it was measured here. */
  importId: string | null;
  /** Where a direction is no one figure: both ends, bits per second; null where both are one. */
  ranges: { readonly down: Interval | null; readonly up: Interval | null } | null;
  /** What others moved over the line around it; null: nobody counted, or not yet. */
  lineUse: LineUse | null;
}

/** A receipt as it is kept: null where none came that the peer's key proves. */
export interface StoredReceipt {
  readonly receipt: Receipt | null;
  /** As the peer signed it, and by which key; absent in receipts of before, of which only what they say was kept. */
  readonly signed?: string | undefined;
  readonly key?: string | undefined;
}

/** A tray as it was filled: by what was typed, by hand, or both. */
export interface StoredTray {
  /** Blank: told by what differs. */
  readonly name: string;
  readonly query: string;
  /** Null: all that match. */
  readonly runIds: readonly string[] | null;
}

/** Trays of runs that are held side by side. */
export interface ComparisonRow extends Row<ComparisonRow> {
  siteId: string;
  /** Blank: nobody named it. */
  name: string;
  trays: StoredTray[];
  byName: string;
  madeAtMs: number;
  /** Counts the links by which it was shared; null while it is shared by none. */
  shareNumber: number | null;
}

/** What a line is held to, by which rule, from when on. */
export interface CaseRow extends Row<CaseRow> {
  siteId: string;
  lineId: string;
  title: string;
  notes: string;
  contract: CaseContract;
  rule: CaseRule;
  byName: string;
  openedAtMs: number;
  /** Runs from then on are no part of it; null: it is open. */
  closedAtMs: number | null;
  /** The device that measures what is missing by itself while it stands by; null: none does. */
  deviceId: string | null;
  /** When that was last asked for; null: never. */
  askedAtMs: number | null;
}

/** A place in the queue for what a run needs. The order is that of `askedAtMs`, then `place`. */
export interface TurnRow extends Row<TurnRow> {
  siteId: string;
  deviceId: string;
  deviceName: string;
  reach: Reach;
  /** The peer that it is to go to; null: the one that runs of its reach go to. */
  peerId: string | null;
  profile: ProfileName;
  /** Rate of the UDP of a paced run, Mb/s. */
  pacedMbps: number | null;
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
  /** What it may be used for: read, measure or everything. */
  scope: string;
  createdAtMs: number;
  usedAtMs: number | null;
  /** From then on it opens nothing; null: only when it is revoked. */
  endsAtMs: number | null;
  /** Name of the technician who made it; null: of before there were several. */
  madeBy: string | null;
}

/** A device, a peer or a line with its plans that was removed, whole; the id is its own. */
export interface RemovalRow extends Row<RemovalRow> {
  siteId: string;
  kind: 'device' | 'peer' | 'line' | 'runs';
  name: string;
  removed: object;
  removedAtMs: number;
}
