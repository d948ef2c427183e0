import { linkKindOf, linkKindWords, type Link } from '../domain/link';
import { ceilingOfLink } from '../ceiling/link-ceiling';
import { planPayloadBps, type Plan } from '../domain/plan';
import type { Reach } from '../domain/reach';

export const SEGMENT_KINDS = ['device', 'link', 'hop', 'router', 'line', 'tunnel', 'far-end'] as const;

/** One length of the straw. `capacityBps` is what it can carry at best, null when nobody knows. */
export interface StrawSegment {
  readonly kind: (typeof SEGMENT_KINDS)[number];
  readonly label: string;
  readonly capacityBps: number | null;
  /** Whether this is where the rest is held back. */
  readonly kink: boolean;
  /** What it has been proven to carry, down and up, bits per second; absent: the picture is not of proofs. */
  readonly proven?: { readonly downBps: number | null; readonly upBps: number | null } | undefined;
  /** What a finding says of it, short: its figure. */
  readonly kinkWords?: string | undefined;
}

export interface StrawPathInput {
  readonly deviceName: string;
  readonly peerName: string;
  readonly lineName: string | null;
  readonly reach: Reach;
  readonly link: Link;
  readonly plan: Plan | null;
  readonly ipVersion: 4 | 6;
  /** Whether the run was seen to be held back by its link: a figure near the ceiling, and a plan above it. */
  readonly heldByLink: boolean;
  /** Whether the link is another than the person said: then nothing is known of it. */
  readonly linkDoubtful: boolean;
  /** How the machine at the other end is connected, where that is one of ours. */
  readonly farLink?: Link | null | undefined;
}

/**
 * The path of a run as lengths of straw, from the device to the far end. The kink is the link when it was seen to hold
 * the run back; a link that is merely below the plan, with a figure far from what it can carry, is none.
 */
export function strawPathOf(input: StrawPathInput): StrawSegment[] {
  const {
    deviceName,
    peerName,
    lineName,
    reach,
    link,
    plan,
    ipVersion,
    heldByLink,
    linkDoubtful,
    farLink = null,
  } = input;
  const linkBps = linkDoubtful ? null : (ceilingOfLink(link, ipVersion)?.payloadBps ?? null);
  const lineBps = plan === null ? null : planPayloadBps(plan, 'down');
  // What both ends of a tunnel give is known of the tunnel, not of this line.
  const ofTunnel = plan?.slowerEnd !== undefined;
  const plain = { capacityBps: null, kink: false };
  const inside: StrawSegment[] = [
    { ...plain, kind: 'device', label: deviceName },
    {
      kind: 'link',
      label: linkKindWords(linkKindOf(link)),
      capacityBps: linkBps,
      kink: heldByLink && reach !== 'local' && reach !== 'between',
    },
    { ...plain, kind: 'hop', label: link.medium === 'wifi' ? 'access point' : 'switch' },
  ];
  const farEnd: StrawSegment = { ...plain, kind: 'far-end', label: peerName };
  if (reach === 'local') return [...inside, farEnd];
  if (reach === 'between' && lineName === null)
    return [
      ...inside,
      {
        ...plain,
        kind: 'link',
        label: farLink === null ? 'its link' : linkKindWords(linkKindOf(farLink)),
        capacityBps: farLink === null ? null : (ceilingOfLink(farLink, ipVersion)?.payloadBps ?? null),
      },
      farEnd,
    ];
  return [
    ...inside,
    { ...plain, kind: 'router', label: 'router' },
    { kind: 'line', label: lineName ?? 'line', capacityBps: ofTunnel ? null : lineBps, kink: false },
    ...(reach === 'tunnel' || reach === 'between'
      ? [
          {
            ...plain,
            kind: 'tunnel',
            label: reach === 'tunnel' ? 'tunnel' : 'both lines',
            capacityBps: ofTunnel ? lineBps : null,
          } as const,
        ]
      : []),
    farEnd,
  ];
}

export interface SiteStrawInput {
  readonly deviceCount: number;
  readonly links: readonly Link[];
  readonly lineName: string | null;
  readonly plan: Plan | null;
  readonly outsidePeerName: string | null;
  /** What each part has been proven to carry, and what was found there; absent: what links and plan promise is drawn. */
  readonly known?: ReadonlyMap<StrawSegment['kind'], KnownPart> | undefined;
}

/** What is known of a part of a site's straw. */
export interface KnownPart {
  readonly downBps: number | null;
  readonly upBps: number | null;
  readonly kinkWords: string | null;
}

/** The path of a whole site, from its devices to the outside peer; the best link stands for the inside. */
export function siteStrawOf(input: SiteStrawInput): StrawSegment[] {
  const { deviceCount, links, lineName, plan, outsidePeerName, known } = input;
  const ceilings = links.flatMap((link) => ceilingOfLink(link, 4)?.payloadBps ?? []);
  const plain = { capacityBps: null, kink: false };
  const promised: StrawSegment[] = [
    { ...plain, kind: 'device', label: deviceCount === 1 ? '1 device' : `${deviceCount} devices` },
    { ...plain, kind: 'link', label: 'cables, air', capacityBps: ceilings.length === 0 ? null : Math.max(...ceilings) },
    { ...plain, kind: 'hop', label: 'switch' },
    { ...plain, kind: 'router', label: 'router' },
    {
      ...plain,
      kind: 'line',
      label: lineName ?? 'no line yet',
      capacityBps: plan === null ? null : planPayloadBps(plan, 'down'),
    },
    { ...plain, kind: 'far-end', label: outsidePeerName ?? 'no outside peer yet' },
  ];
  if (known === undefined) return promised;
  return promised.map((segment) => {
    const part = known.get(segment.kind);
    const kinkWords = part?.kinkWords ?? null;
    return {
      ...segment,
      capacityBps: part?.downBps ?? null,
      proven: { downBps: part?.downBps ?? null, upBps: part?.upBps ?? null },
      kink: kinkWords !== null,
      kinkWords: kinkWords ?? undefined,
    };
  });
}
