import {
  addedDelayWords,
  delayFigure,
  groupedBy,
  linkKindWords,
  measuredSentence,
  median,
  rateFigure,
  type LinkKind,
} from '@/core';
import type { ComparedRow } from '@/store';
import type { ConsoleContext } from '../../console/console-context';
import { calendarIn } from '../../diagnosis';
import { section, type ReportSection } from './report';

export interface ReportSpan {
  readonly fromMs: number;
  readonly untilMs: number;
}

const known = (rows: readonly ComparedRow[], of: (row: ComparedRow) => number | null | undefined) =>
  median(rows.flatMap((row) => of(row) ?? []));
const worst = ({ brief }: ComparedRow) => {
  const both = [brief?.addedDownMs, brief?.addedUpMs].flatMap((ms) => ms ?? []);
  return both.length === 0 ? null : Math.max(...both);
};

/** What was tested where: each device, link and reach with its medians; and how much that was, in a sentence. */
export async function measuredSection(
  { store }: ConsoleContext,
  siteId: string,
  timeZone: string | null,
  { fromMs, untilMs }: ReportSpan,
): Promise<{ readonly sentence: string; readonly section: ReportSection | null }> {
  const terms = [{ is: 'time', fromMs, untilMs, not: false } as const];
  const found = await store.comparisons.runs(siteId, terms, new Map());
  // Neither one connection nor a file shows what the way carried then.
  const runs = found.runs.filter(({ evidence, profile }) => evidence !== 'imported' && profile !== 'single');
  const aside = found.aside + found.runs.length - runs.length;
  const momentOf = calendarIn(timeZone);
  const days = new Set(runs.map(({ startedAtMs }) => momentOf(startedAtMs).day));
  const sentence = measuredSentence(runs.length, new Set(runs.map(({ deviceName }) => deviceName)).size, days.size);
  const groups = groupedBy(runs, ({ deviceName, linkKind, reach }) => `${deviceName}\n${linkKind}\n${reach}`);
  const rows = [...groups.values()]
    .sort((a, b) => a[0]!.deviceName.localeCompare(b[0]!.deviceName) || b.length - a.length)
    .map((of) => {
      const { deviceName, linkKind, reach } = of[0]!;
      const added = known(of, worst);
      return [
        ...[deviceName, linkKindWords(linkKind as LinkKind), reach, String(of.length)],
        ...[rateFigure(known(of, ({ downBps }) => downBps)), rateFigure(known(of, ({ upBps }) => upBps))],
        ...[delayFigure(known(of, ({ idleMs }) => idleMs)), added === null ? '–' : addedDelayWords(added)],
      ];
    });
  const left =
    aside === 0
      ? []
      : [
          `${aside} more ${aside === 1 ? 'is' : 'are'} not in it: shared on purpose, void, left out, with one connection, or from a file.`,
        ];
  return {
    sentence,
    section: section(
      'measured',
      'What was measured where',
      rows.length === 0 ? [] : ['Medians of the span.', ...left],
      {
        head: ['device', 'link', 'reach', 'runs', 'down Mb/s', 'up Mb/s', 'idle ms', 'added'],
        shares: [0.26, 0.12, 0.1, 0.07, 0.12, 0.11, 0.1, 0.12],
        rows,
      },
    ),
  };
}
