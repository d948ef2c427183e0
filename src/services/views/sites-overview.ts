import { planThroughTunnel, siteStrawOf, VERDICT_WORDS, type Plan, type StrawSegment, type VerdictWord } from '@/core';
import type { SetRun, Site, StoredPeer } from '@/store';
import { cellOf } from './board-cells';
import type { ConsoleContext } from '../console/console-context';
import { crossingOf } from '../office/line-choice';
import { setsOf } from '../runs/run-sets';
import { weekOfRuns, type WeekOfRuns } from './week-of-runs';

export interface SiteTunnel extends WeekOfRuns {
  readonly peerName: string;
  readonly farSiteName: string | null;
  /** The slower end of both lines; null while a plan is missing. */
  readonly slowerEnd: Plan | null;
}

/** A site beside the others: its own line held against its own plan, and its tunnels. */
export interface SiteSummary {
  readonly site: Pick<Site, 'id' | 'name' | 'demo'>;
  readonly lineName: string | null;
  readonly plan: Plan | null;
  readonly straw: readonly StrawSegment[];
  readonly internet: WeekOfRuns;
  /** How the newest sets inside the office were judged: how many of each verdict. */
  readonly inside: Readonly<Record<VerdictWord, number>>;
  readonly tunnels: readonly SiteTunnel[];
  readonly deviceCount: number;
  readonly standingCount: number;
}

function verdictsOf(runs: readonly SetRun[]): SiteSummary['inside'] {
  const counts = Object.fromEntries(VERDICT_WORDS.map((word) => [word, 0])) as Record<VerdictWord, number>;
  for (const set of setsOf(runs).values()) {
    const cell = cellOf(set);
    if (cell !== null) counts[cell.verdict] += 1;
  }
  return counts;
}

/** All sites side by side, each against its own plan; tunnels between them against the slower end. */
export async function sitesOverview(context: ConsoleContext): Promise<SiteSummary[]> {
  const { sites } = context.store;
  const all = await sites.all();
  const nowMs = context.wallMs();
  const tunnelOf = async (siteId: string, peer: StoredPeer): Promise<SiteTunnel> => {
    const far = all.find((site) => site.id === peer.farSiteId);
    const [own, other] = await Promise.all([
      crossingOf(context, siteId, { reach: 'internet' }, nowMs),
      far === undefined ? null : crossingOf(context, far.id, { reach: 'internet' }, nowMs),
    ]);
    const slowerEnd = own.plan === null || !other?.plan ? null : planThroughTunnel(own.plan, other.plan);
    const week = await weekOfRuns(context, siteId, 'tunnel', slowerEnd);
    return { ...week, peerName: peer.name, farSiteName: far?.name ?? null, slowerEnd };
  };
  return Promise.all(
    all.map(async (site): Promise<SiteSummary> => {
      const [devices, peers, { line, plan }, newest] = await Promise.all([
        sites.devicesOf(site.id),
        sites.peersOf(site.id),
        crossingOf(context, site.id, { reach: 'internet' }, nowMs),
        context.store.runs.newestSets(site.id),
      ]);
      return {
        site: { id: site.id, name: site.name, demo: site.demo },
        lineName: line?.name ?? null,
        plan,
        straw: siteStrawOf({
          deviceCount: devices.length,
          links: devices.map((device) => device.link),
          lineName: line?.name ?? null,
          plan,
          outsidePeerName: peers.find((peer) => peer.reach === 'internet')?.name ?? null,
        }),
        internet: await weekOfRuns(context, site.id, 'internet', plan),
        inside: verdictsOf(newest.filter((run) => run.reach === 'local')),
        tunnels: await Promise.all(
          peers.filter((peer) => peer.reach === 'tunnel').map((peer) => tunnelOf(site.id, peer)),
        ),
        deviceCount: devices.length,
        standingCount: devices.filter((device) => context.standing.isPresent(device.id)).length,
      };
    }),
  );
}
