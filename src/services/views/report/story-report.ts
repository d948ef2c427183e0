import {
  delayFigure,
  rateFigure,
  shareWords,
  storyWho,
  storyWords,
  SWAP_WORDS,
  swapSentence,
  type StoryLine,
} from '@/core';
import type { ConsoleContext } from '../../console/console-context';
import { huntPageOf } from '../hunt-page';
import { swapsPageOf } from '../swaps-page';
import { section, type ReportSection } from './report';

interface Told {
  readonly title: string;
  readonly siteId: string;
  readonly fromMs: number;
  readonly untilMs: number;
  readonly lead: readonly string[];
  readonly sections: readonly ReportSection[];
}

/** A line of a hunt's story as text. */
function lineText(line: StoryLine): string {
  const who = storyWho(line);
  if (line.kind === 'run') return `${who}: ${storyWords(line)}.`;
  return who === null || who === '' ? storyWords(line) : `${storyWords(line)} ${who}`;
}

/** A hunt from its first line to its last; null: there is none of that id. */
export async function huntReport(
  context: ConsoleContext,
  huntId: string,
  moment: (atMs: number) => string,
): Promise<Told | null> {
  const page = await huntPageOf(context, huntId);
  if (!page.ok) return null;
  const { hunt, story, found, finding, swaps } = page.value;
  const ended = hunt.closedAtMs !== null;
  const lead = [
    ...(finding === null ? [] : [finding.sentence]),
    ...(found === null
      ? [ended ? 'It ended without being found.' : 'It is not found yet.']
      : [`Found, ${shareWords(found.probability)} sure: ${found.words.join(', or ')}.`]),
  ];
  const during = swaps.filter(({ atMs }) => atMs >= hunt.openedAtMs && atMs <= (hunt.closedAtMs ?? Infinity));
  const sections = [
    section('story', 'How it went', [], {
      head: ['when', 'what'],
      shares: [0.22, 0.78],
      rows: story.map((line) => [moment(line.atMs), lineText(line)]),
    }),
    section(
      'changed',
      'What the changes did',
      during.map(({ what, words, compared }) => swapSentence(what, words, compared)),
    ),
  ];
  return {
    ...{
      title: hunt.title,
      siteId: hunt.siteId,
      fromMs: hunt.openedAtMs,
      untilMs: hunt.closedAtMs ?? page.value.nowMs,
    },
    ...{ lead, sections: sections.filter((each) => each !== null) },
  };
}

/** A swap with the runs before and after it; null: there is none of that id. */
export async function swapReport(
  context: ConsoleContext,
  siteId: string,
  swapId: string,
  moment: (atMs: number) => string,
): Promise<Told | null> {
  const swap = (await swapsPageOf(context, siteId)).swaps.find(({ id }) => id === swapId);
  if (swap === undefined) return null;
  const { what, words, note, atMs, byName, compared } = swap;
  const before = new Set(compared?.runIdsBefore);
  const ids = compared?.runIds ?? [];
  const { runs } = await context.store.comparisons.runs(siteId, [{ is: 'run-ids', ids, not: false }], new Map());
  const rows = runs.map((run) => [
    ...[moment(run.startedAtMs), before.has(run.id) ? 'before' : 'after', run.deviceName],
    ...[rateFigure(run.downBps), rateFigure(run.upBps), delayFigure(run.idleMs)],
  ]);
  const sections = [
    section('measured', 'The runs before and after', [], {
      head: ['when', '', 'device', 'down Mb/s', 'up Mb/s', 'idle ms'],
      shares: [0.24, 0.12, 0.28, 0.13, 0.12, 0.11],
      rows,
    }),
  ];
  const [first, last] = [runs[0]?.startedAtMs ?? atMs, runs.at(-1)?.startedAtMs ?? atMs];
  return {
    title: `${SWAP_WORDS[what]}, ${words}`.replace(/^./, (letter) => letter.toUpperCase()),
    ...{ siteId, fromMs: Math.min(first, atMs), untilMs: Math.max(last, atMs) },
    lead: [
      swapSentence(what, words, compared),
      `Changed ${moment(atMs)} by ${byName}${note === '' ? '' : `: ${note}`}.`,
    ],
    sections: sections.filter((each) => each !== null),
  };
}
