import type { LinkChange, LinkFact, MachineFacts, NetLink } from '../watch/machine-facts';
import { delayFigure } from './quantity-words';

const MEDIUM_WORDS: Readonly<Record<NetLink['medium'], string>> = {
  wired: 'by cable',
  wifi: 'by Wi-Fi',
  tunnel: 'by a tunnel',
  other: 'by a link of another kind',
};

const linkWords = ({ medium, speedMbps }: NetLink) =>
  speedMbps === null ? `${MEDIUM_WORDS[medium]}, rate not told` : `${speedMbps} Mb/s ${MEDIUM_WORDS[medium]}`;

/** How a machine is connected: "1000 Mb/s by cable, gateway 0.4 ms away". */
export function machineSentence({ gateway, gatewayMs, links }: MachineFacts): string {
  if (gateway === null) return 'no gateway known';
  const link = links.find(({ name }) => name === gateway.link);
  const far = gatewayMs === null ? 'gateway does not answer' : `gateway ${delayFigure(gatewayMs)} ms away`;
  return link === undefined ? far : `${linkWords(link)}, ${far}`;
}

const CHANGE_WORDS: Readonly<Record<LinkFact, (before: string, after: string) => string>> = {
  speedMbps: (before, after) => `comes up at ${after} Mb/s instead of ${before} Mb/s`,
  duplex: (before, after) => `runs at ${after} duplex instead of ${before} duplex`,
  mtuBytes: (before, after) => `carries packets of ${after} bytes instead of ${before} bytes`,
  driver: (before, after) => `is driven by ${after} instead of ${before}`,
};

/** What changed of a link: "eth0 comes up at 100 Mb/s instead of 1000 Mb/s". */
export function linkChangeWords({ link, fact, before, after }: LinkChange): string {
  return `${link} ${CHANGE_WORDS[fact](before, after)}`;
}
