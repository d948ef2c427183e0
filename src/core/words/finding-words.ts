import type { Direction } from '../domain/plan';
import { planPayloadBps } from '../domain/plan';
import type { Finding, FindingFacts, Strength } from '../diagnose/finding';
import type { DiagnosedKind, DiagnosedSegment } from '../diagnose/segment';
import { SWAP_WORDS } from './swap-words';
import { delayWords, nominalRateFigure, rateFigure, rateWords, shareWords } from './quantity-words';

/** A finding as a person reads it: what it is, and what to do about it. Both are whole sentences. */
export interface FindingWords {
  readonly sentence: string;
  readonly nextStep: string;
}

const KIND_WORDS: Readonly<Record<DiagnosedKind, string>> = {
  device: 'the device itself',
  cable: 'its cable or port',
  air: 'the air',
  'unknown-link': 'its link',
  vpn: 'its VPN',
  hop: 'the switch',
  router: 'the router',
  line: 'the provider’s line',
  'line-in-hours': 'the provider’s line in some hours',
  'far-network': 'the network beyond the line',
  tunnel: 'the tunnel',
  'far-line': 'the line at the other office',
  peer: 'the far end',
};

/** What a segment is called in a sentence: "the cable of Scan room workstation", "the air of office ceiling (5 GHz)". */
export function segmentWords({ kind, name, band, deviceId }: DiagnosedSegment): string {
  switch (kind) {
    case 'device':
      return name ?? KIND_WORDS.device;
    case 'cable':
      return name === null ? 'a cable or port' : `the cable or port of ${name}`;
    case 'air': {
      const where = band === null ? 'Wi-Fi' : `${band} GHz`;
      if (name === null) return `the ${where} air`;
      return deviceId === null ? `the ${where} air of “${name}”` : `the ${where} air at ${name}`;
    }
    case 'unknown-link':
    case 'vpn':
      return name === null ? KIND_WORDS[kind] : `${kind === 'vpn' ? 'the VPN' : 'the link'} of ${name}`;
    case 'line':
    case 'line-in-hours':
      return name === null ? KIND_WORDS.line : `the line ${name}`;
    case 'peer':
    case 'far-network':
    case 'tunnel':
    case 'far-line':
      return name === null ? KIND_WORDS[kind] : `${KIND_WORDS[kind]} (${name})`;
    case 'hop':
    case 'router':
      return KIND_WORDS[kind];
  }
}

export const STRENGTH_WORDS: Readonly<Record<Strength, string>> = {
  fact: 'read off',
  found: 'found',
  likely: 'likely',
  hint: 'a hint',
};

const WAY: Readonly<Record<Direction, string>> = { down: 'down', up: 'up' };
const big = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

export function listed(names: readonly string[], last = 'or'): string {
  if (names.length <= 1) return names[0] ?? '';
  return `${names.slice(0, -1).join(', ')} ${last} ${names.at(-1)!}`;
}

/** Hours of the day as one speaks of them: [19, 20, 21] → "between 19:00 and 22:00". */
export function hoursWords(hours: readonly number[]): string {
  const clock = (hour: number) => `${String(hour % 24).padStart(2, '0')}:00`;
  const spans: [number, number][] = [];
  for (const hour of [...hours].sort((a, b) => a - b)) {
    const last = spans.at(-1);
    if (last !== undefined && last[1] === hour) last[1] = hour + 1;
    else spans.push([hour, hour + 1]);
  }
  // Through midnight it is one span.
  if (spans.length > 1 && spans[0]![0] === 0 && spans.at(-1)![1] === 24) spans[0]![0] = spans.pop()![0];
  return `between ${listed(
    spans.map(([from, to]) => `${clock(from)} and ${clock(to)}`),
    'and',
  )}`;
}

function holdsBack(
  facts: Extract<FindingFacts, { code: 'segment-holds-back' }>,
  { segments, strength }: Finding,
): FindingWords {
  const { measuredBps, expectedBps, compared, direction } = facts;
  const [first] = segments;
  const figures = `${rateFigure(measuredBps)} of ${rateFigure(expectedBps)} Mb/s ${WAY[direction]}`;
  const beside =
    compared === null ? '' : ` ${compared.deviceName} makes ${rateFigure(compared.bps)} over what they share.`;
  const many = segments.length > 1;
  const who = listed(segments.map(segmentWords));
  const sentence =
    first?.kind === 'device' && !many
      ? `${big(segmentWords(first))} makes ${figures}.${beside} ${strength === 'found' ? 'It is the device itself.' : 'It seems to be the device itself.'}`
      : many
        ? `${figures}: ${who}.${beside}`
        : `${big(who)} holds back: ${figures}.${beside}`;
  return { sentence, nextStep: many ? 'Hunt for it: one more test tells them apart.' : STEPS[first?.kind ?? 'device'] };
}

const STEPS: Readonly<Record<DiagnosedKind, string>> = {
  device: 'Run from another device in its place, close what runs on it, look at its network driver.',
  cable: 'Try another cable, then another port of the switch, and run again after each.',
  air: 'Try 5 or 6 GHz, another channel, or a place nearer to the access point.',
  'unknown-link': 'Read on the device how it is connected, and write it down.',
  vpn: 'Run once with the VPN off.',
  hop: 'Connect one device past the switch and run again.',
  router: 'Connect one device straight to the modem and run again; look for an update or a setting of the router.',
  line: 'Show the provider the record of these runs.',
  'line-in-hours': 'Show the provider the record of these hours.',
  'far-network': 'Put a second peer outside, with another provider: it parts the line from what is beyond.',
  tunnel: 'Look at the processor of both ends and at the size of its packets.',
  'far-line': 'Look at the line of the other office.',
  peer: 'Use another peer, or give this one a faster port.',
};

/** Puts a finding into sentences with figures. */
export function findingWords(finding: Finding): FindingWords {
  const { facts, segments, deviceIds, hours } = finding;
  const everybody = deviceIds.length === 1 ? 'one device' : `${deviceIds.length} devices`;
  switch (facts.code) {
    case 'cable-came-up-slow': {
      const others =
        facts.othersCount > 0
          ? `, where ${facts.othersCount === 1 ? 'another' : `${facts.othersCount} others`} of this office came up at ${nominalRateFigure(facts.othersBps)}`
          : '';
      const shows = facts.measuredBps === null ? '' : ` It shows ${rateWords(facts.measuredBps)}.`;
      return {
        sentence: `The cable of ${segments[0]?.name ?? 'a device'} came up at ${nominalRateFigure(facts.negotiatedBps)} Mb/s${others}.${shows}`,
        nextStep: 'Swap the cable first, then the port; it should come up faster at once.',
      };
    }
    case 'segment-holds-back':
      return holdsBack(facts, finding);
    case 'line-below-plan': {
      const promised = planPayloadBps(facts.plan, facts.direction);
      return {
        sentence: `${big(segmentWords(segments[0]!))} gives ${rateFigure(facts.measuredBps)} of the ${nominalRateFigure(promised)} Mb/s ${WAY[facts.direction]} that are paid for.`,
        nextStep: STEPS.line,
      };
    }
    case 'line-below-least':
      return {
        sentence: `${big(segmentWords(segments[0]!))} gives ${rateFigure(facts.measuredBps)} Mb/s ${WAY[facts.direction]}, below the ${nominalRateFigure(facts.leastBps)} that the contract names at least.`,
        nextStep: STEPS.line,
      };
    case 'line-slow-in-hours':
      return {
        sentence: `${big(hoursWords(hours ?? []))} the line gives ${rateFigure(facts.bps)} Mb/s ${WAY[facts.direction]}; else ${rateFigure(facts.elseBps)}. Seen ${facts.occasions} times.`,
        nextStep: 'Find out whether somebody uses the line in these hours; if not, it is the provider’s.',
      };
    case 'queue-too-deep': {
      const what = facts.direction === 'up' ? 'uploads' : 'downloads';
      const where =
        facts.where === 'inside'
          ? `${big(segmentWords(segments[0]!))} has a deep queue`
          : `the queue before ${facts.direction === 'up' ? 'the upload' : 'the download'} of ${segments[0] === undefined ? 'the line' : segmentWords(segments[0])} is too deep`;
      return {
        sentence:
          facts.where === 'inside'
            ? `${where}: whoever ${what} makes everything on it wait ${delayWords(facts.addedMs)}.`
            : `Whoever ${what} makes everybody wait ${delayWords(facts.addedMs)} (${everybody}): ${where}.`,
        nextStep:
          facts.where === 'inside'
            ? 'Move it nearer to the access point, or to a cable.'
            : 'Set the router’s queue management a little below what the line really gives; the queue advice finds the figure.',
      };
    }
    case 'tunnel-slower-end':
      return {
        sentence: `Through the tunnel come ${rateFigure(facts.measuredBps)} Mb/s ${WAY[facts.direction]}: the slower end between ${facts.plan.slowerEnd ?? 'both lines'} gives no more than ${nominalRateFigure(planPayloadBps(facts.plan, facts.direction))}.`,
        nextStep: 'Nothing is broken. A faster upload at the slower end would help.',
      };
    case 'packets-lost':
      return {
        sentence: `${shareWords(facts.resentShare)} of what is sent ${segments[0]?.kind === 'cable' ? `over ${segmentWords(segments[0])}` : 'on this way'} gets lost and has to be sent again (${facts.runs} runs).`,
        nextStep: 'Swap the cable and the port on this way: that is where packets get lost most often.',
      };
    case 'peer-below-plan':
      return {
        sentence: `The far end’s own port shows ${rateWords(facts.peerBps)} at most; the plan is ${nominalRateFigure(facts.plan.downBps)}.`,
        nextStep: 'Use a peer with a faster port, or no run can show the plan.',
      };
    case 'swap-told': {
      const helped = facts.afterBps > facts.beforeBps;
      // What all share is named by the swap already.
      const places = (segments[0]?.name ?? null) === null ? '' : ` (${segmentWords(segments[0]!)})`;
      return {
        sentence: `${helped ? 'It helped' : 'It got worse'}: ${SWAP_WORDS[facts.what]}${places}. ${facts.deviceName} makes ${rateFigure(facts.afterBps)} Mb/s ${WAY[facts.direction]}, before it ${rateFigure(facts.beforeBps)} (${facts.runsAfter} and ${facts.runsBefore} times measured).`,
        nextStep: helped
          ? 'Nothing is to be done: it stands here for two weeks after the change.'
          : 'Put back what was there before, measure once more, and hunt if that does not help.',
      };
    }
    case 'contradicting-runs':
      return {
        sentence: `Two runs over ${segments[0] === undefined ? 'the same way' : segmentWords(segments[0])} do not agree: ${rateFigure(facts.lowBps)} and ${rateFigure(facts.highBps)} Mb/s ${WAY[facts.direction]}.`,
        nextStep: 'Run once more: a third tells which of them was odd.',
      };
  }
}
