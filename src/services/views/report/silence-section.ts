import { availabilityWords, countWords, FAULT_NAMES, outageLength } from '@/core';
import type { ConsoleContext } from '../../console/console-context';
import { watchedSpanOf, type WatchedSpan } from '../../lanes/watch-page';
import type { ReportSpan } from './measured-section';
import { section, type ReportSection } from './report';

/** More than so many are told as a number. */
const MOST_TOLD = 40;

const titled = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);

const sentencesOf = ({ machines }: WatchedSpan) =>
  machines
    .filter(({ availability }) => availability.share !== null)
    .map(({ name, availability }) => `${titled(availabilityWords(availability))} (seen by ${name}).`);

/** How much of the time the line was there, by each machine that watched it. */
export async function availabilitySentences(
  context: ConsoleContext,
  siteId: string,
  span: ReportSpan,
): Promise<string[]> {
  const watched = await watchedSpanOf(context, siteId, span);
  return watched.ok ? sentencesOf(watched.value) : [];
}

/** What was silent, for how long and whose fault it was; null where nothing was watched. */
export async function silenceSection(
  context: ConsoleContext,
  siteId: string,
  span: ReportSpan,
  moment: (atMs: number) => string,
): Promise<ReportSection | null> {
  const watched = await watchedSpanOf(context, siteId, span);
  if (!watched.ok) return null;
  const sentences = sentencesOf(watched.value);
  if (sentences.length === 0) return null;
  const { outages } = watched.value;
  const told = outages.slice(0, MOST_TOLD);
  const left = outages.length - told.length;
  return section(
    'silence',
    'What was silent, and whose fault it was',
    left === 0 ? sentences : [...sentences, `${countWords(left, 'older one')} not listed.`],
    {
      head: ['when', 'how long', 'whose', 'what was seen'],
      shares: [0.2, 0.14, 0.16, 0.5],
      rows: told.map(({ fromMs, untilMs, fault, sentence }) => [
        moment(fromMs),
        outageLength(fromMs, untilMs, context.wallMs()),
        FAULT_NAMES[fault],
        titled(sentence),
      ]),
    },
  );
}
