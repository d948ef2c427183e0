import { huntPageOf, standsOut, type ConsoleContext } from '@/services';
import { done, failed } from '@/wire';

const iso = (atMs: number) => new Date(atMs).toISOString();

export async function findingsDocument(context: ConsoleContext, siteId: string) {
  if ((await context.store.sites.byId(siteId)) === null) return failed('site-missing');
  const { findings } = await standsOut(context, siteId, await context.store.sites.devicesOf(siteId));
  return done(
    findings.map(
      ({ sinceMs, id, code, sentence, nextStep, strength, state, reason, devices, runsFor, runsAgainst }) => ({
        ...{ id, code, sentence, nextStep, strength, state, reason, devices, runsFor, runsAgainst },
        since: Number.isFinite(sinceMs) && sinceMs > 0 ? iso(sinceMs) : null,
      }),
    ),
  );
}

export async function huntDocument(context: ConsoleContext, huntId: string) {
  const page = await huntPageOf(context, huntId);
  if (!page.ok) return page;
  const { hunt, found, segments, tests } = page.value;
  return done({
    ...{ id: hunt.id, title: hunt.title, state: hunt.state, openedAt: iso(hunt.openedAtMs) },
    found: found?.words ?? [],
    suspected: segments.map(({ id, words, suspicion }) => ({ id, what: words, probability: suspicion })),
    next: tests.map(({ kind, deviceId, deviceName, reach, minutes, swap, byClick, gainBits, ifFast, ifSlow }) => ({
      ...{ kind, deviceId, device: deviceName, reach, minutes, swap, byClick, gainBits, ifFast, ifSlow },
    })),
  });
}
