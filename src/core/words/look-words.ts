import { bandOf, channelOf } from '../air/air-network';
import { airAdvice } from '../air/channel-ledger';
import type {
  AirFound,
  EchoFound,
  LookAsked,
  LookFound,
  NamesFound,
  PathFound,
  ProgramsFound,
  ShareFound,
} from '../looks/look';
import { rankResolvers, resolverAdvice } from '../looks/rank-resolvers';
import { lineRates, type LineFound } from '../looks/line-found';
import { delaysUnderLoad, type PathLoaded } from '../looks/path-load';
import { translationOf, type KnockState, type OutsideFound } from '../looks/outside-found';
import { shareAnswer } from '../looks/share-rates';
import type { PortsFound } from '../ports/port';
import { portFindings, portRates, type PortFinding } from '../ports/port-findings';
import { percentile } from '../stats/percentile';
import { countWords, delayWords, rateWords } from './quantity-words';

/** What somebody wants looked at: "the share /mnt/store". */
export function lookAskedWords(asked: LookAsked): string {
  switch (asked.what) {
    case 'share':
      return `the share ${asked.folder}`;
    case 'echo':
      return `the delay to ${asked.target}`;
    case 'names':
      return 'resolvers side by side';
    case 'path':
      return `the path to ${asked.target}${asked.loaded === true ? ', also while the line is full' : ''}`;
    case 'programs':
      return 'programs on the line';
    case 'air':
      return 'the air';
    case 'ports':
      return `the ports of ${asked.target}`;
    case 'line':
      return 'the line’s own counters';
    case 'outside':
      return 'this office from outside';
  }
}

interface Rates {
  readonly downBps: number | null;
  readonly upBps: number | null;
}

/** What holds a copy back, in the worse of both directions. */
function limitWords(
  { writeBps, readBps, limit }: ReturnType<typeof shareAnswer>,
  { place }: ShareFound,
  inside: Rates | null,
): string {
  if (limit === 'own')
    return `The folder lies ${place === 'memory' ? 'in the memory' : 'on a disk'} of the machine itself: that says nothing about a share.`;
  const network = (bps: number | null | undefined) => rateWords(bps ?? null);
  if (limit.down === 'store')
    return `The network gives ${network(inside?.downBps)} there, the store ${rateWords(readBps)}: the store is the limit.`;
  if (limit.up === 'store')
    return `The network gives ${network(inside?.upBps)} up, the store takes ${rateWords(writeBps)}: the store is the limit.`;
  if (limit.down === 'network' || limit.up === 'network')
    return `That is what the network gives (${network(inside?.downBps)} down, ${network(inside?.upBps)} up): the store is not the limit.`;
  return 'Nothing was measured inside with this machine yet: what the network gives is not known.';
}

function shareSentence(found: ShareFound, inside: Rates | null): string {
  const answer = shareAnswer(found, inside ?? { downBps: null, upBps: null });
  const read =
    answer.readBps === null
      ? 'it could not be read back past the machine’s own memory'
      : `it gives ${rateWords(answer.readBps)}`;
  return `${found.folder} takes ${rateWords(answer.writeBps)}, and ${read}. ${limitWords(answer, found, inside)}`;
}

function echoSentence({ target, rttsMs, refusal, duplicates }: EchoFound): string {
  const times = rttsMs.filter((ms) => ms !== null);
  if (times.length === 0)
    return `${target} does not answer${refusal === null ? '; it may be silent on purpose' : `: ${refusal}`}.`;
  const [least, middle, most] = [Math.min(...times), percentile(times, 0.5), Math.max(...times)];
  const lost = rttsMs.length - times.length;
  const twice = duplicates === 0 ? '' : `; ${countWords(duplicates, 'reply')} came twice`;
  return `${target} answers in ${delayWords(middle)} (${delayWords(least)} to ${delayWords(most)}); ${lost} of ${rttsMs.length} lost${twice}.`;
}

function namesSentence(found: NamesFound): string {
  const ranked = rankResolvers(found);
  const liars = ranked.filter(({ lies }) => lies > 0).map(({ resolver }) => resolver);
  const lie = liars.length === 0 ? '' : ` ${liars.join(' and ')} made up addresses for names that do not exist.`;
  return `${adviceSentence(ranked)}${lie}`;
}

function adviceSentence(ranked: ReturnType<typeof rankResolvers>): string {
  const advice = resolverAdvice(ranked);
  switch (advice.kind) {
    case 'none':
      return 'None of the resolvers answers truly and reliably.';
    case 'stay':
      return `${advice.resolver} is the one to take: none of the others is clearly sooner.`;
    case 'take':
      return advice.soonerMs !== null && advice.soonerMs > 0
        ? `Take ${advice.resolver} instead of ${advice.instead}: a page opens about ${delayWords(advice.soonerMs)} sooner for each new name. It makes no download faster.`
        : `Take ${advice.resolver} instead of ${advice.instead}, which fails or answers what is not true.`;
  }
}

/** The hop from which on the delay is there to stay, the most that one of them adds; null: none stands out. */
export function slowHop({ hops }: PathFound): { readonly place: number; readonly addedMs: number } | null {
  const least = hops.map(({ rttsMs }) => {
    const times = rttsMs.filter((ms) => ms !== null);
    return times.length === 0 ? null : Math.min(...times);
  });
  // A router that answers late while those behind it do not is only busy: what counts is what stays.
  const stays = least.map((_, index) => {
    const behind = least.slice(index).filter((ms) => ms !== null);
    return behind.length === 0 ? null : Math.min(...behind);
  });
  let worst: { place: number; addedMs: number } | null = null;
  let before = 0;
  stays.forEach((ms, index) => {
    // Behind one that says nothing it is not known which of the two it was: it is seen at the one that speaks.
    if (ms === null || least[index] === null) return;
    if (ms - before > (worst?.addedMs ?? 0)) worst = { place: hops[index]!.place, addedMs: ms - before };
    before = ms;
  });
  return worst;
}

function pathSentence(found: PathFound): string {
  const { target, hops, reached, mtuBytes } = found;
  const far = reached
    ? `${target} is ${countWords(hops.length, 'hop')} away`
    : `The way to ${target} is seen up to hop ${hops.length}; behind it nobody says anything`;
  const slow = slowHop(found);
  const address = slow === null ? undefined : hops.find(({ place }) => place === slow.place)?.addresses[0];
  const adds =
    slow === null || slow.addedMs < 1
      ? ''
      : ` Most of the delay comes in at hop ${slow.place}${address === undefined ? '' : ` (${address})`}: ${delayWords(slow.addedMs)}.`;
  const mtu = mtuBytes === null ? '' : ` Packets of up to ${mtuBytes} bytes go through whole.`;
  const loaded = found.loaded === undefined ? '' : loadedWords(found.loaded);
  return `${far}.${adds}${mtu}${loaded}`;
}

/** Where the delay of a full line comes in, each way. */
function loadedWords(loaded: PathLoaded): string {
  const delays = delaysUnderLoad(loaded);
  if (delays.length === 0) return ' While the line was full, no hop answered often enough to be told.';
  return delays
    .map(({ way, addedMs, place, address, before }) => {
      const full = ` While ${rateWords(way === 'down' ? loaded.downBps : loaded.upBps)} went ${way},`;
      if (place === null) return `${full} no hop was later than before.`;
      const from = before === null ? 'this machine' : `hop ${before.place}`;
      return `${full} ${delayWords(addedMs)} were added, between ${from} and hop ${place} (${address}).`;
    })
    .join('');
}

function programsSentence({ programs, seconds }: ProgramsFound): string {
  const [first] = programs;
  if (first === undefined) return `No program moved anything over TCP in ${seconds} s.`;
  const name = first.program ?? 'a program of another user';
  return `${name} moves most: ${rateWords(first.upBps)} up and ${rateWords(first.downBps)} down, ${first.inside ? 'inside this network' : 'to the outside'}.`;
}

/** In networks that talk all the time: "half a neighbour that talks all the time". */
const pressureWords = (pressure: number) =>
  pressure < 0.05 ? 'nobody' : `as much as ${pressure.toFixed(1)} neighbours that talk all the time`;

function airSentence({ networks }: AirFound): string {
  const heard = networks.length === 1 ? 'One network is heard.' : `${networks.length} networks are heard.`;
  const advice = airAdvice(networks);
  if (advice.kind === 'none')
    return `${heard} This machine uses none of them: which is ours, and whether it should move, is not known.`;
  const { network } = advice;
  const name = network.name ?? network.bssid;
  const place = `${name} is on channel ${channelOf(network.primaryMhz)} (${bandOf(network.primaryMhz)} GHz, ${network.widthMhz} MHz wide)`;
  if (advice.kind === 'stay')
    return `${heard} ${place}, where it shares the air with ${pressureWords(advice.pressure)}: no other is clearly quieter.`;
  const radar = advice.radar
    ? ' Radar has the right of way there: it waits a minute before it may talk, and may have to leave.'
    : '';
  return `${heard} ${place}, where it shares the air with ${pressureWords(advice.pressure)}. On channel ${advice.toChannel} it would share it with ${pressureWords(advice.toPressure)}: move it there.${radar}`;
}

function portFindingWords(finding: PortFinding): string {
  const { name } = finding.port;
  switch (finding.kind) {
    case 'half-duplex':
      return `${name} is at half duplex: one side is set by hand, or its cable is damaged.`;
    case 'slow':
      return `${name} is at ${finding.port.speedMbps} Mb/s, the others at ${finding.usualMbps}: another cable or plug, or an old device.`;
    case 'errors':
      return `${name} damaged ${countWords(finding.frames, 'frame')} meanwhile: its cable, or a plug.`;
    case 'full':
      return `${name} is full: ${rateWords(finding.bps)} ${finding.way}.`;
  }
}

function portsSentence(found: PortsFound): string {
  const rates = portRates(found);
  const up = rates.filter(({ port }) => port.up === true);
  const seconds = Math.round((found.after.atMs - found.before.atMs) / 1000);
  const busiest = up
    .filter(({ inBps, outBps }) => (inBps ?? 0) + (outBps ?? 0) > 0)
    .sort((a, b) => (b.inBps ?? 0) + (b.outBps ?? 0) - (a.inBps ?? 0) - (a.outBps ?? 0))[0];
  const moves =
    busiest === undefined
      ? `None moved anything in ${seconds} s.`
      : `${busiest.port.name} moved most in ${seconds} s: ${rateWords(busiest.inBps)} in and ${rateWords(busiest.outBps)} out.`;
  const findings = portFindings(found).map(portFindingWords);
  return `${found.system ?? found.target}: ${up.length} of ${countWords(rates.length, 'port')} are up. ${moves}${findings.map((each) => ` ${each}`).join('')}`;
}

function lineSentence(found: LineFound): string {
  const { router, outsideAddress, linkDownBps, linkUpBps, before, after } = found;
  const { downBps, upBps } = lineRates(found);
  const seconds = Math.round((after.atMs - before.atMs) / 1000);
  const link =
    linkDownBps === null || linkUpBps === null
      ? ''
      : ` It came up with ${rateWords(linkDownBps)} down and ${rateWords(linkUpBps)} up.`;
  const outside = outsideAddress === null || outsideAddress === '' ? '' : ` Its address outside is ${outsideAddress}.`;
  return `By ${router}, everybody together moves ${rateWords(downBps)} down and ${rateWords(upBps)} up over the line (${seconds} s).${link}${outside}`;
}

/** What became of a port, for a list. */
export const KNOCK_NAMES: Readonly<Record<KnockState, string>> = {
  open: 'answers',
  refused: 'refused: nobody listens',
  silent: 'silent: filtered, or led nowhere',
  unreachable: 'no way there',
};

const KNOCK_WORDS: Readonly<Record<KnockState, string>> = {
  open: 'answers',
  refused: 'is refused: the address is reached, and nobody listens there',
  silent: 'is silent: it is filtered, or led nowhere',
  unreachable: 'cannot be reached, as a router on the way says',
};

/** How the machine is seen, and what that means for whoever wants to be reached. */
function seenWords(found: OutsideFound): string {
  const { ownAddress, seenAddress, routerAddress, peer } = found;
  switch (translationOf(found)) {
    case 'none':
      return `${peer} sees this machine by its own address, ${seenAddress}: nothing translates on the way.`;
    case 'router':
      return `${peer} sees ${seenAddress}, which is the office router’s own address: it alone translates (NAT), and can lead ports in.`;
    case 'unknown-more':
      return `${peer} sees ${seenAddress}, and this machine is ${ownAddress}: addresses are translated on the way (NAT). Whether by the office’s router alone is not known, since it tells nothing by UPnP IGD.`;
    case 'provider':
      return routerAddress === null
        ? `${peer} sees ${seenAddress}, which customers of the provider share (RFC 6598): no port of this office can be opened from outside.`
        : `${peer} sees ${seenAddress}, but the office’s router calls itself ${routerAddress}: the provider translates once more (carrier-grade NAT), so no port can be led in by the router. Ask the provider for an address of one’s own, or use IPv6.`;
    case 'not-outside':
      return `${peer} sees ${seenAddress}, a private address: it is inside, or behind the tunnel, and says nothing of outside.`;
    case 'unknown':
      return `${peer} does not tell by which address it was asked.`;
  }
}

function outsideSentence(found: OutsideFound): string {
  const ports = found.ports.map(({ port, state }) => ` Port ${port} ${KNOCK_WORDS[state]}.`).join('');
  const ipv6 = found.ownIpv6
    ? ' It has an address of its own by IPv6.'
    : ' It has no address by IPv6 that others could reach.';
  return `${seenWords(found)}${ipv6}${ports}`;
}

/** What was found, in a sentence. `inside`: what the network gives the machine, for a share. */
export function lookSentence(found: LookFound, inside: Rates | null): string {
  switch (found.what) {
    case 'share':
      return shareSentence(found, inside);
    case 'echo':
      return echoSentence(found);
    case 'names':
      return namesSentence(found);
    case 'path':
      return pathSentence(found);
    case 'programs':
      return programsSentence(found);
    case 'air':
      return airSentence(found);
    case 'ports':
      return portsSentence(found);
    case 'line':
      return lineSentence(found);
    case 'outside':
      return outsideSentence(found);
  }
}

/** What became of a look, in a sentence. */
export function lookEndWords(
  end: { readonly ok: true; readonly found: LookFound } | { readonly ok: false; readonly sentence: string },
  inside: Rates | null,
): string {
  return end.ok ? lookSentence(end.found, inside) : end.sentence;
}
