import { lookEndWords } from '@/core';
import { looksPageOf, type ConsoleContext, type LooksPage } from '@/services';
import { done, failed, type LookDocument, type Outcome } from '@/wire';

const moment = (atMs: number) => new Date(atMs).toISOString();

function lookDocument({ inside, ...look }: LooksPage['looks'][number]): LookDocument {
  return {
    ...{ id: look.id, deviceId: look.deviceId, device: look.deviceName, asked: look.asked, by: look.askedBy },
    ...{ askedAt: moment(look.askedAtMs), endedAt: look.endedAtMs === null ? null : moment(look.endedAtMs) },
    ...{ outcome: look.outcome, sentence: look.outcome === null ? null : lookEndWords(look.outcome, inside) },
  };
}

export async function looksDocument(
  context: ConsoleContext,
  siteId: string,
): Promise<Outcome<{ readonly looks: readonly LookDocument[] }, 'site-missing'>> {
  if ((await context.store.sites.byId(siteId)) === null) return failed('site-missing');
  return done({ looks: (await looksPageOf(context, siteId)).looks.map(lookDocument) });
}

export async function lookDocumentOf(
  { store }: ConsoleContext,
  lookId: string,
): Promise<Outcome<LookDocument, 'look-unknown'>> {
  const look = await store.looks.byId(lookId);
  if (look === null) return failed('look-unknown');
  return done(lookDocument({ ...look, inside: await store.looks.insideRates(look.deviceId) }));
}
