import type { InferAttributes, InferCreationAttributes, Model } from 'sequelize';
import type { Diagnosis, Finding } from '@/core';

interface Row<Self extends Model> extends Model<InferAttributes<Self>, InferCreationAttributes<Self>> {
  id: string;
}

/** One thing that was changed on purpose between two runs. */
export interface SwapRow extends Row<SwapRow> {
  siteId: string;
  /** Id of the segment as it was called before any swap. */
  segmentId: string;
  /** A code; see core/diagnose/swap.ts. */
  what: string;
  note: string;
  deviceId: string | null;
  atMs: number;
  byName: string;
  huntId: string | null;
  /** When it was taken back; null: it stands. */
  undoneAtMs: number | null;
}

/** What was thought of an office when it was worked out last. */
export interface DiagnosisRow extends Model<InferAttributes<DiagnosisRow>, InferCreationAttributes<DiagnosisRow>> {
  siteId: string;
  madeAtMs: number;
  diagnosis: Diagnosis;
}

/** What became of a finding: open, being worked on, mended, let be, or gone by itself. */
export const FINDING_STATES = ['open', 'worked-on', 'mended', 'let-be', 'gone'] as const;
export type FindingState = (typeof FINDING_STATES)[number];

export interface FindingRow extends Row<FindingRow> {
  siteId: string;
  findingKey: string;
  state: FindingState;
  /** Why it was let be, in the technician's words; empty otherwise. */
  reason: string;
  byName: string;
  strength: string;
  openedAtMs: number;
  changedAtMs: number;
  closedAtMs: number | null;
  /** As it was last. */
  finding: Finding;
}

/** What a hunt is about. */
export interface HuntFocus {
  /** Key of the finding that it was opened from. */
  readonly findingKey?: string | undefined;
  readonly deviceId?: string | undefined;
  readonly segmentIds?: readonly string[] | undefined;
}

export const HUNT_STATES = ['open', 'found', 'mended', 'given-up'] as const;
export type HuntState = (typeof HUNT_STATES)[number];

export interface HuntRow extends Row<HuntRow> {
  siteId: string;
  kind: 'hunt' | 'queue';
  title: string;
  focus: HuntFocus;
  state: HuntState;
  openedAtMs: number;
  openedBy: string;
  closedAtMs: number | null;
  outcome: Readonly<Record<string, unknown>> | null;
}

export interface HuntStepRow extends Row<HuntStepRow> {
  huntId: string;
  atMs: number;
  byName: string;
  /** A code; see services/hunts. */
  kind: string;
  facts: Readonly<Record<string, unknown>>;
}

/** A label with a code to scan, at a spot or on a device. */
export interface LabelRow extends Row<LabelRow> {
  siteId: string;
  spotId: string | null;
  deviceId: string | null;
  createdAtMs: number;
  revokedAtMs: number | null;
}

/** Somebody said that it is slow now. */
export interface ComplaintRow extends Row<ComplaintRow> {
  siteId: string;
  deviceId: string;
  deviceName: string;
  spotName: string | null;
  what: string;
  atMs: number;
  runIds: string[];
  huntId: string | null;
  /** When a technician took it off the board; null: it stands there. */
  seenAtMs: number | null;
}
