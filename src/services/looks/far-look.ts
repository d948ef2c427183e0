import type { LookAsked, TurnNeed } from '@/core';
import type { Device, StoredPeer } from '@/store';
import type { FarLook } from '@/wire';
import { signTicket } from '@/wire/peer/ticket';
import type { ConsoleContext } from '../console/console-context';
import { crossingOf } from '../office/line-choice';
import { peerFor } from '../office/peer-choice';
import { needsOf } from '../runs/start-run';

/** Long enough to get there, after what is looked at before. */
const LIFE_MS = 180_000;
/** To be seen, it moves next to nothing; to fill a line both ways for some seconds each, as much as a quick run and a half. */
const SEEN = { seconds: 30, bytes: 100_000, streams: 1 } as const;
const FILLED = { seconds: 90, bytes: 40e9, streams: 4 } as const;

/** Whether a look fills the line, which nobody else may measure over meanwhile. */
export const fillsLine = (asked: LookAsked) => asked.what === 'path' && asked.loaded === true;
/** Whether somebody outside has a part in a look. */
const wantsFar = (asked: LookAsked) => asked.what === 'outside' || fillsLine(asked);

/** The peer outside of an office that is ours; null: there is none. */
async function ownPeerOutside(context: ConsoleContext, siteId: string): Promise<StoredPeer | null> {
  const peer = await peerFor(context, siteId, 'internet', false);
  return peer === null || peer.web !== null || peer.agentId !== null || peer.otherKey !== null ? null : peer;
}

/** The peer that has a part in a look, with a ticket for it; null: none is wanted, or there is none. */
export async function farLookOf(
  context: ConsoleContext,
  { id: deviceId, siteId }: Pick<Device, 'id' | 'siteId'>,
  asked: LookAsked,
): Promise<FarLook | null> {
  const peer = wantsFar(asked) ? await ownPeerOutside(context, siteId) : null;
  if (peer === null) return null;
  const issuedAtMs = context.wallMs();
  const ticket = signTicket(
    {
      ...{ id: context.newId(), peerKey: peer.publicKey, runId: 'a look', deviceId, directions: ['down', 'up'] },
      ...{ limits: fillsLine(asked) ? FILLED : SEEN, issuedAtMs, expiresAtMs: issuedAtMs + LIFE_MS },
    },
    context.signingKey,
  );
  return { name: peer.name, address: peer.address, ticket };
}

/** What a look takes that measurements take too: the line, where it fills it. */
export async function needsOfLook(
  context: ConsoleContext,
  { siteId, link }: Pick<Device, 'siteId' | 'link'>,
  asked: LookAsked,
): Promise<TurnNeed[]> {
  const peer = fillsLine(asked) ? await ownPeerOutside(context, siteId) : null;
  if (peer === null) return [];
  return needsOf(siteId, peer, await crossingOf(context, siteId, peer, context.wallMs()), link);
}
