import { caseSentence, countWords, STRENGTH_WORDS, swapSentence } from '@/core';
import type { StoredFinding, StoredHunt } from '@/store';
import type { ConsoleContext } from '../../console/console-context';
import { casesOf } from '../case-page';
import { shownFinding } from '../stands-out';
import { swapsPageOf } from '../swaps-page';
import { lineSection } from './line-section';
import { measuredSection, type ReportSpan } from './measured-section';
import { section, type ReportSection, type ReportSectionKey } from './report';
import { silenceSection } from './silence-section';

export const SPAN_SECTIONS = [
  'findings',
  'plan',
  'silence',
  'measured',
  'changed',
  'hunts',
  'cases',
] as const satisfies readonly ReportSectionKey[];

const GOES_ON = ['open', 'worked-on', 'let-be'];
/** Whether something stood at any time of a span. */
const stoodIn = ({ fromMs, untilMs }: ReportSpan, openedAtMs: number, closedAtMs: number | null) =>
  openedAtMs < untilMs && (closedAtMs === null || closedAtMs >= fromMs);
const within = ({ fromMs, untilMs }: ReportSpan, atMs: number) => atMs >= fromMs && atMs < untilMs;

const STATES: Readonly<Record<StoredFinding['state'], string>> = {
  open: 'open',
  'worked-on': 'being hunted',
  'let-be': 'let be',
  mended: 'mended',
  gone: 'gone',
};
const HUNT_STATES: Readonly<Record<StoredHunt['state'], string>> = {
  open: 'still open',
  found: 'found',
  mended: 'mended',
  'given-up': 'given up',
};

async function findingsSection({ store }: ConsoleContext, siteId: string, span: ReportSpan) {
  const [findings, devices] = await Promise.all([store.findings.findingsOf(siteId), store.sites.devicesOf(siteId)]);
  const stood = findings
    .filter(({ openedAtMs, closedAtMs }) => stoodIn(span, openedAtMs, closedAtMs))
    .sort((a, b) => b.finding.weight - a.finding.weight);
  const open = stood.filter(({ state }) => GOES_ON.includes(state)).length;
  const lead =
    stood.length === 0
      ? 'Nothing stood out.'
      : `${countWords(stood.length, 'finding')}, ${open === 0 ? 'none of them open any more' : `${open} of them open`}.`;
  const sentences = stood.map((stored) => {
    const { sentence, nextStep } = shownFinding(stored, stored.finding, devices);
    const told = `${sentence} (${STRENGTH_WORDS[stored.finding.strength]}, ${STATES[stored.state]})`;
    return GOES_ON.includes(stored.state) ? `${told} ${nextStep}` : told;
  });
  return { lead, section: section('findings', 'What stood out, and what to do', sentences) };
}

async function changedSection(
  context: ConsoleContext,
  siteId: string,
  span: ReportSpan,
  moment: (atMs: number) => string,
) {
  const { swaps } = await swapsPageOf(context, siteId);
  const sentences = swaps
    .filter(({ atMs }) => within(span, atMs))
    .map(({ atMs, what, words, compared, note }) => {
      const said = note === '' ? '' : ` (${note})`;
      return `${moment(atMs)}: ${swapSentence(what, words + said, compared)}`;
    });
  return section('changed', 'What was changed, and what it did', sentences.reverse());
}

async function huntsSection(
  { store }: ConsoleContext,
  siteId: string,
  span: ReportSpan,
  moment: (atMs: number) => string,
) {
  const hunts = (await store.findings.huntsOf(siteId)).filter(({ openedAtMs, closedAtMs }) =>
    stoodIn(span, openedAtMs, closedAtMs),
  );
  const noteOf = ({ outcome }: StoredHunt) => {
    const note = outcome?.['note'];
    return typeof note === 'string' && note !== '' ? ` “${note}”` : '';
  };
  const sentences = hunts.map(
    (hunt) => `${moment(hunt.openedAtMs)}, ${hunt.openedBy}: ${hunt.title}: ${HUNT_STATES[hunt.state]}.${noteOf(hunt)}`,
  );
  return section('hunts', 'Hunts', sentences);
}

async function casesSection(context: ConsoleContext, siteId: string, span: ReportSpan) {
  const cases = (await casesOf(context, siteId)).filter(({ stored }) =>
    stoodIn(span, stored.openedAtMs, stored.closedAtMs),
  );
  const sentences = cases.map(
    ({ stored, line, answer, evidence }) => `${stored.title} (${line.name}): ${caseSentence(answer, evidence)}`,
  );
  return section('cases', 'Cases', sentences);
}

/** All that there is to say of an office and a span. */
export async function spanReport(
  context: ConsoleContext,
  siteId: string,
  timeZone: string | null,
  span: ReportSpan,
  moment: (atMs: number) => string,
): Promise<{ readonly lead: readonly string[]; readonly sections: readonly ReportSection[] }> {
  const findings = await findingsSection(context, siteId, span);
  const lines = await lineSection(context, siteId, span, moment);
  const measured = await measuredSection(context, siteId, timeZone, span);
  const all = [
    findings.section,
    lines.section,
    await silenceSection(context, siteId, span, moment),
    measured.section,
    await changedSection(context, siteId, span, moment),
    await huntsSection(context, siteId, span, moment),
    await casesSection(context, siteId, span),
  ];
  return {
    lead: [measured.sentence, ...lines.lead, findings.lead],
    sections: all.filter((each) => each !== null),
  };
}
