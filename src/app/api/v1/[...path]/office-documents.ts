import { ledgerRunOf, runPageOf, setUpOf, trayOf, type Board, type ConsoleContext, type SetUp } from '@/services';
import { done, failed } from '@/wire';

/** What the API answers with: moments as ISO 8601, rates in bits per second. */
const iso = (atMs: number) => new Date(atMs).toISOString();
type Site = NonNullable<SetUp['site']>;
export const siteDocument = ({ id, name, joinCode, joinCodeUntilMs, demo, timeZone }: Site) => ({
  ...{ id, name, joinCode, joinCodeUntil: iso(joinCodeUntilMs), demo, timeZone },
});

export const codeDocument = ({ joinCode, joinCodeUntilMs }: Pick<Site, 'joinCode' | 'joinCodeUntilMs'>) => ({
  ...{ joinCode, joinCodeUntil: iso(joinCodeUntilMs) },
});

export async function officeDocument(context: ConsoleContext, siteId: string) {
  const { site, lines, devices, peers } = await setUpOf(context, siteId);
  if (site === null || site.id !== siteId) return failed('site-missing');
  return done({
    site: siteDocument(site),
    lines: lines.map(({ id, name, provider, inUse, plan, plans, shown }) => ({
      ...{ id, name, provider, inUse, plan, plans, shown },
    })),
    devices: devices.map((device) => ({ ...device, standsBy: context.standing.isPresent(device.id) })),
    peers: peers.map(({ id, name, reach, address, pinned, publicKey, otherKey, farSiteId, web }) => ({
      ...{ id, name, reach, address, pinned, publicKey, keyChanged: otherKey !== null, farSiteId, web },
    })),
  });
}

export function boardDocument({ columns, groups }: Board) {
  return groups.flatMap(({ spotName, rows }) =>
    rows.map((row) => ({
      ...{ deviceId: row.deviceId, device: row.deviceName, spot: spotName, standsBy: row.standsBy },
      cells: row.cells.flatMap(({ cell }, index) => {
        if (cell === null) return [];
        const { runId, count, startedAtMs, verdict, downBps, upBps, yardstickDownBps, yardstickUpBps, addedMs } = cell;
        return {
          ...columns[index]!,
          ...{ runId, runs: count, newestAt: iso(startedAtMs), verdict },
          ...{ downBps, upBps, yardstickDownBps, yardstickUpBps, addedMs },
        };
      }),
    })),
  );
}

export async function queueDocument(context: ConsoleContext, siteId: string) {
  if ((await context.store.sites.byId(siteId)) === null) return failed('site-missing');
  const tray = await trayOf(context, siteId);
  return done(
    tray.map(({ turnId, deviceName, reach, profile, askedBy, together, state }) => ({
      ...{ turnId, device: deviceName, reach, profile, askedBy, together, status: state.status },
      why: state.status === 'waiting' ? state.why : null,
    })),
  );
}

export async function runDocument(context: ConsoleContext, runId: string) {
  const found = await runPageOf(context, runId);
  if (!found.ok) return found;
  const { run, result, unfinished, set, sharePath } = found.value;
  return done({
    ...ledgerRunOf(run),
    ...{ sentence: result?.sentence ?? null, report: result?.report ?? null, unfinished },
    set:
      set === null
        ? null
        : {
            ...{ runIds: set.runs.map(({ id }) => id), verdict: set.judgement.verdict },
            ...{ downBps: set.judgement.down?.median ?? null, upBps: set.judgement.up?.median ?? null },
          },
    ...{ notes: run.notes, sharePath },
  });
}
