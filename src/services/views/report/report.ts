import type { Site } from '@/store';

/** A table of a report; `shares`: of the width, by column. */
export interface ReportTable {
  readonly head: readonly string[];
  readonly shares: readonly number[];
  readonly rows: readonly (readonly string[])[];
}

/** One section: sentences first, then what they rest on. */
export interface ReportSection {
  readonly key: ReportSectionKey;
  readonly heading: string;
  readonly sentences: readonly string[];
  readonly table: ReportTable | null;
}

export const REPORT_SECTIONS = [
  'findings',
  'plan',
  'silence',
  'measured',
  'changed',
  'hunts',
  'cases',
  'story',
] as const;
export type ReportSectionKey = (typeof REPORT_SECTIONS)[number];

/** What heads each report of a console: who made it. `logo`: a data URL of a PNG or JPEG; null: none. */
export interface Letterhead {
  readonly name: string;
  readonly lines: readonly string[];
  readonly logo: string | null;
}

/** A report as it is read, printed and set: the same sections wherever. */
export interface Report {
  readonly title: string;
  readonly site: Pick<Site, 'id' | 'name' | 'demo' | 'timeZone'>;
  /** When it is about, in words of the office's time zone. */
  readonly span: string;
  /** What a reader in a hurry should know. */
  readonly lead: readonly string[];
  /** All that there is something to say in; those that were chosen come first to the reader, the others not at all. */
  readonly sections: readonly ReportSection[];
  /** Sections that this kind of report can have. */
  readonly possible: readonly ReportSectionKey[];
  readonly letterhead: Letterhead;
  readonly madeAtMs: number;
}

/** What a report is asked to be about. Times: UTC epoch ms, the end exclusive. */
export type ReportOrder = {
  readonly siteId: string;
  /** Null: all that are possible. */
  readonly sections: readonly ReportSectionKey[] | null;
} & (
  | { readonly kind: 'span'; readonly fromMs: number; readonly untilMs: number; readonly title: string }
  | { readonly kind: 'hunt' | 'swap'; readonly id: string }
);

/** A section with something in it; null: there is nothing to say. */
export function section(
  key: ReportSectionKey,
  heading: string,
  sentences: readonly string[],
  table: ReportTable | null = null,
): ReportSection | null {
  const filled = table !== null && table.rows.length > 0 ? table : null;
  return sentences.length === 0 && filled === null ? null : { key, heading, sentences, table: filled };
}
