import { createHash } from 'node:crypto';
import {
  caseSentence,
  linkKindWords,
  measureWords,
  missingWords,
  refusedWords,
  ruleWords,
  type LinkKind,
} from '@/core';
import type { CaseRunRow } from '@/store';
import type { CasePage } from './case-page';

const iso = (atMs: number) => new Date(atMs).toISOString();
/** Figures are written with so many digits that nothing which was measured is lost, and no more. */
const rounded = (value: number | null) => (value === null ? null : Number(value.toPrecision(7)));
const mbps = (bps: number | null) => rounded(bps === null ? null : bps / 1e6);

/** Enough to check one with any library of cryptography. */
const CHECK_RECEIPT =
  'signed_receipt is two parts with a dot between: the base64url of what the far end counted, as JSON, and the base64url of its Ed25519 signature (RFC 8032) over the text "bent-straw receipt 1", a line feed, and the first part as it stands; key_of_the_peer is the public key, base64url of its 32 bytes. bytes of down and up are what the far end sent and received.';

const runDocument = (row: CaseRunRow) => ({
  ...{
    id: row.id,
    started_at: iso(row.startedAtMs),
    device: row.deviceName,
    link: linkKindWords(row.linkKind as LinkKind),
  },
  ...{ down_mbps: mbps(row.downBps), up_mbps: mbps(row.upBps), idle_ms: rounded(row.idleMs) },
  ...{ added_down_ms: rounded(row.addedDownMs), added_up_ms: rounded(row.addedUpMs) },
  ...{ flags_down: row.flagsDown, flags_up: row.flagsUp, method_version: row.methodVersion },
  receipt_of_the_peer: row.receipt,
  signed_receipt: row.signedReceipt,
  key_of_the_peer: row.peerKey,
  demo: row.demo,
  plan_corrected_at: row.planCorrectedAtMs === null ? null : iso(row.planCorrectedAtMs),
});

/** The versions of the method that the runs that count were computed with. */
export function methodVersions({ counted }: CasePage['evidence'], rows: CasePage['rows']): number[] {
  return [...new Set(counted.flatMap(({ id }) => rows.get(id)?.methodVersion ?? []))].sort((a, b) => a - b);
}

/** All that a case stands on, for whoever wants to check it without the program. */
export function caseDocument({ stored, site, line, evidence, answer, rows, nowMs, planCorrectedAtMs }: CasePage) {
  const rates = ({ advertisedBps, usualBps, leastBps }: (typeof stored.contract)['down']) => ({
    ...{ advertised_mbps: mbps(advertisedBps), usual_mbps: mbps(usualBps), least_mbps: mbps(leastBps) },
  });
  return {
    ...{ title: stored.title, office: site.name, demo_data: site.demo, time_zone: site.timeZone },
    line: { name: line.name, provider: line.provider },
    ...{ opened_at: iso(stored.openedAtMs), closed_at: stored.closedAtMs === null ? null : iso(stored.closedAtMs) },
    ...{ made_at: iso(nowMs), by: stored.byName, notes: stored.notes },
    contract: { down: rates(stored.contract.down), up: rates(stored.contract.up) },
    plan_corrected_at: planCorrectedAtMs === null ? null : iso(planCorrectedAtMs),
    rule: { ...stored.rule, words: ruleWords(stored.rule) },
    answer: {
      ...{ complete: answer.complete, falls_short: answer.fallsShort, sentence: caseSentence(answer, evidence) },
      missing: missingWords(evidence, stored.rule),
      measures: answer.measures.map((measure) => ({
        ...{ of: measure.measure, direction: measure.direction, contract_mbps: mbps(measure.contractBps) },
        ...{ wanted_mbps: mbps(measure.wantedBps), short: measure.short, among: measure.of, unit: measure.unit },
        ...{ limit: measure.limit, falls_short: measure.fallsShort, sentence: measureWords(measure) },
      })),
    },
    how_to_check_a_receipt: CHECK_RECEIPT,
    method_versions: methodVersions(evidence, rows),
    counted: evidence.counted.map(({ id, day }) => ({ day, ...runDocument(rows.get(id)!) })),
    refused: evidence.refused.map(({ run, because }) => ({
      ...{ day: run.day, ...runDocument(rows.get(run.id)!) },
      because: refusedWords(because),
    })),
  };
}

/** The same as the bytes that are attached, with their SHA-256 (FIPS 180-4) as hexadecimal digits. */
export function caseRecord(page: CasePage): { readonly bytes: Buffer; readonly sha256: string } {
  const bytes = Buffer.from(`${JSON.stringify(caseDocument(page), null, 2)}\n`);
  return { bytes, sha256: createHash('sha256').update(bytes).digest('hex') };
}
