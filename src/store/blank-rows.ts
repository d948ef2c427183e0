import type { Device, Line, Site, StoredPeer, StoredPlan } from './queries/site-queries';
import type { StoredRun } from './queries/run-queries';

/** What is not known of a row when it is made. Each new row names the rest itself. */
export const NEW_DEVICE = {
  ...{ kind: null, notes: '', simulated: false, cookieAtMs: null, cookieBeforeMs: null, openUntilMs: null },
} as const satisfies Partial<Device>;

export const NEW_SITE = { demo: false, timeZone: null, removedAtMs: null } as const satisfies Partial<Site>;

export const NEW_LINE = {
  longLookAtMs: null,
  burstMs: null,
  rejudgeFromMs: null,
  budgetBytes: null,
} as const satisfies Partial<Line>;

export const NEW_PLAN = { correctedAtMs: null } as const satisfies Partial<StoredPlan>;

export const NEW_PEER = {
  ...{
    practice: false,
    pinned: false,
    pinnedAtMs: null,
    publicKey: null,
    otherKey: null,
    farSiteId: null,
    web: null,
    agentId: null,
  },
} as const satisfies Partial<StoredPeer>;

/** A run that has just begun: nothing is measured, nobody has spoken of it yet. */
export const STARTED_RUN = {
  ...{ demo: false, status: 'running', reason: null, endedAtMs: null, untilMs: null, ticketId: null },
  ...{ sameMachine: null, ipVersion: null, pageHiddenMs: 0, userAgent: null, peerLinkBps: null },
  ...{
    farEnd: 'peer',
    farLink: null,
    otherPeerThanUsual: false,
    methodVersion: null,
    verdict: null,
    evidence: 'alone',
    receipt: null,
  },
  ...{ downBps: null, upBps: null, idleMs: null, addedMs: null, report: null, brief: null, sketch: null },
  ...{
    askedBy: null,
    together: null,
    notes: '',
    shareNumber: null,
    planCorrectedAtMs: null,
    ...{ thinnedAtMs: null, importId: null },
    ranges: null,
    lineUse: null,
  },
  ...{ leftOut: null, flags: '', movedBytes: null },
} as const satisfies Partial<StoredRun>;
