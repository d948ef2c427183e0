import type { LinkKind } from '../domain/link';
import type { Reach } from '../domain/reach';
import type { RunBrief } from '../judge/run-brief';
import type { ProfileName } from '../run/run-profiles';
import type { ImportField } from './import-field';
import type { DateOrder } from './read-moment';
import type { Decimals } from './read-number';

/** What a column of a file holds. `unit`: in which its figures are written where a cell names none; null of text. */
export interface ImportColumn {
  readonly field: ImportField;
  readonly unit: string | null;
}

/** How a file is read. */
export interface ImportReading {
  /** By the place of the column; null: it is passed over. */
  readonly columns: readonly (ImportColumn | null)[];
  readonly dates: DateOrder;
  readonly decimals: Decimals;
  /** What holds for lines that do not say it. A blank device: each line has to. */
  readonly otherwise: { readonly device: string; readonly link: LinkKind; readonly reach: Reach };
}

/** A run as a file has it. Rates in bits per second, delays in ms, loss a share; null: the file does not say. */
export interface ImportedRun {
  readonly startedAtMs: number;
  readonly endedAtMs: number | null;
  readonly device: string;
  readonly spot: string | null;
  readonly peer: string;
  readonly line: string | null;
  readonly link: LinkKind;
  readonly reach: Reach;
  readonly profile: ProfileName | null;
  readonly downBps: number | null;
  readonly upBps: number | null;
  readonly idleMs: number | null;
  readonly jitterMs: number | null;
  readonly addedDownMs: number | null;
  readonly addedUpMs: number | null;
  /** The worst of what load adds; of both directions where the file does not say it apart. */
  readonly addedMs: number | null;
  readonly lossShare: number | null;
  readonly notes: string;
  readonly tags: readonly string[];
  readonly set: string | null;
  readonly id: string | null;
}

/** Why a line of a file cannot be a run. `typed`: what stands there, where something does. */
export const IMPORT_FAULTS = [
  'line-broken',
  'cells-missing',
  'moment-missing',
  'moment-unreadable',
  'moment-skipped',
  'moment-ahead',
  'ends-before',
  'device-missing',
  'name-long',
  'choice-unknown',
  'figure-unreadable',
  'figure-impossible',
] as const;
export interface ImportFault {
  readonly code: (typeof IMPORT_FAULTS)[number];
  readonly field: ImportField | null;
  readonly typed: string;
}

/** A line was read, holds no figure and so no run, or cannot be read. */
export type ReadLine =
  | { readonly run: ImportedRun }
  | { readonly without: 'figures' }
  | { readonly fault: ImportFault };

const IMPORTED = ['imported'] as const;

/** What lists need of a run whose figures came from a file: nothing proves them, and no yardstick is known. */
export function briefOfImported({ addedDownMs, addedUpMs, jitterMs, lossShare }: ImportedRun): RunBrief {
  return {
    flags: IMPORTED,
    flagsDown: IMPORTED,
    flagsUp: IMPORTED,
    downYardstickBps: null,
    upYardstickBps: null,
    downLowBps: null,
    upLowBps: null,
    addedDownMs,
    addedUpMs,
    jitterMs,
    lossShare,
  };
}
