import {
  briefOf,
  evidenceOf,
  isOneFigure,
  RUN_PROFILES,
  type DirectionReport,
  type RunConditions,
  type RunReport,
} from '@/core';
import type { StoredRun } from '@/store';

/** The conditions of a stored run, as core needs them. */
export function conditionsOf(run: StoredRun): RunConditions {
  return {
    reach: run.reach,
    link: run.link,
    plan: run.plan,
    practice: run.practice,
    // Behind a practice line the peer always sees this machine; the line is what was measured.
    sameMachine: (run.sameMachine ?? false) && !run.practice,
    ipVersion: run.ipVersion ?? 4,
    pageHiddenMs: run.pageHiddenMs,
    peerLinkBps: run.practice ? null : run.peerLinkBps,
    otherPeerThanUsual: run.otherPeerThanUsual,
    ...{ farEnd: run.farEnd, farLink: run.farLink },
    ...{ told: run.told, lineUse: run.lineUse },
    together: run.together !== null,
    limitBytes: run.profile === 'unknown' ? undefined : RUN_PROFILES[run.profile].limits.bytes,
    // Absent in runs from before there were receipts.
    ...(run.receipt !== null && { receipt: run.receipt.receipt }),
  };
}

/** A figure to go by; null where nothing was measured, or what was is a range. */
const oneFigure = ({ rate }: DirectionReport) => (rate !== null && isOneFigure(rate) ? rate.steadyBps : null);

function rangesOf({ down, up }: RunReport): StoredRun['ranges'] {
  const [downRange, upRange] = [down.rate?.rangeBps ?? null, up.rate?.rangeBps ?? null];
  return downRange === null && upRange === null ? null : { down: downRange, up: upRange };
}

/** The columns that the board and the ledger go by. */
export function figureColumns(
  report: RunReport,
  { together, practice, leftOut }: Pick<StoredRun, 'together' | 'practice' | 'leftOut'>,
) {
  const flags = report.fitness.map(({ code }) => code);
  return {
    methodVersion: report.methodVersion,
    verdict: report.verdict,
    evidence: evidenceOf({ together: together !== null, practice, leftOut: leftOut !== null, flags }),
    // Each between two spaces, so that one is found and no part of another.
    flags: flags.length === 0 ? '' : ` ${flags.join(' ')} `,
    downBps: oneFigure(report.down),
    upBps: oneFigure(report.up),
    ranges: rangesOf(report),
    idleMs: report.idleDelay?.medianMs ?? null,
    addedMs: report.bloat?.addedMs ?? null,
    report,
    brief: briefOf(report),
  };
}
