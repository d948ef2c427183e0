import type { DeviceKind, Link, Plan } from '@/core';
import type { Line, LineSwitch, Site, Spot, StoredApiToken, StoredPeer, StoredPlan } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import { isTaken } from '../access/device-cookie';
import { shownLine } from '../office/lines';
import { planOfRow } from '../office/plan-of-row';
import { removedLately, type Removed } from '../office/removals';
import { siteOf } from '../office/site-of';

/** A line with what its contract promises, now and before. */
export interface SetUpLine extends Line {
  readonly inUse: boolean;
  readonly plan: Plan | null;
  /** All plans, the newest first. */
  readonly plans: readonly StoredPlan[];
  /** See shownLine. */
  readonly shown: string;
}

export interface SetUpDevice {
  readonly id: string;
  readonly name: string;
  readonly spotName: string;
  readonly kind: DeviceKind | null;
  readonly notes: string;
  readonly link: Link;
  /** Whether a browser or agent is this device; another one may become it until then, null: no other may. */
  readonly taken: boolean;
  readonly openUntilMs: number | null;
}

/** All that the set-up page shows and edits of one office. */
export interface SetUp {
  readonly site: Site | null;
  readonly sites: readonly Pick<Site, 'id' | 'name'>[];
  /** The one in use first. */
  readonly lines: readonly SetUpLine[];
  /** When which line was taken into use, the newest first. */
  readonly switches: readonly LineSwitch[];
  readonly spots: readonly Spot[];
  readonly devices: readonly SetUpDevice[];
  readonly peers: readonly StoredPeer[];
  readonly apiTokens: readonly (StoredApiToken & { readonly ended: boolean })[];
  readonly removed: readonly Removed[];
  readonly publicKey: string;
  readonly port: number;
}

async function linesOf(context: ConsoleContext, siteId: string): Promise<SetUpLine[]> {
  const { sites } = context.store;
  const nowMs = context.wallMs();
  const inUse = await sites.lineInUse(siteId, nowMs);
  const lines = await Promise.all(
    (await sites.linesOf(siteId)).map(async (line): Promise<SetUpLine> => {
      const plan = planOfRow(await sites.planAt(line.id, nowMs));
      const plans = await sites.plansOf(line.id);
      return { ...line, inUse: line.id === inUse?.id, plan, plans, shown: shownLine(line, plan) };
    }),
  );
  return lines.sort((one, other) => Number(other.inUse) - Number(one.inUse));
}

export async function setUpOf(context: ConsoleContext, siteId?: string): Promise<SetUp> {
  const { sites, access } = context.store;
  const [all, site, apiTokens] = await Promise.all([sites.all(), siteOf(context, siteId), access.apiTokens()]);
  const nowMs = context.wallMs();
  const tokens = apiTokens.map((token) => ({ ...token, ended: token.endsAtMs !== null && token.endsAtMs <= nowMs }));
  const shared = { site, sites: all, apiTokens: tokens, publicKey: context.publicKey, port: context.port };
  if (site === null) return { ...shared, lines: [], switches: [], removed: [], spots: [], devices: [], peers: [] };
  const [lines, switches, spots, devices, peers, removed] = await Promise.all([
    linesOf(context, site.id),
    sites.lineSwitchesOf(site.id),
    sites.spotsOf(site.id),
    sites.devicesOf(site.id),
    sites.peersOf(site.id),
    removedLately(context, site.id),
  ]);
  const spotName = (id: string | null) => spots.find((spot) => spot.id === id)?.name ?? '';
  return {
    ...shared,
    lines,
    switches,
    removed,
    spots,
    devices: devices.map(({ id, name, spotId, kind, notes, link, cookieAtMs, openUntilMs }) => ({
      ...{ id, name, kind, notes, link, taken: isTaken({ cookieAtMs }, context.wallMs()) },
      openUntilMs: (openUntilMs ?? 0) > context.wallMs() ? openUntilMs : null,
      spotName: spotName(spotId),
    })),
    peers,
  };
}
