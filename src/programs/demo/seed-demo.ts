import {
  linkKindOf,
  movedBytes,
  planThroughTunnel,
  reportOf,
  seededRandom,
  sketchOf,
  stripDataOf,
  USUAL_FULL_FROM,
  type LineUse,
  type Link,
  type Plan,
  type RunSamples,
} from '@/core';
import { conditionsOf, figureColumns, firstJoinCode, refreshDiagnosis, type ConsoleContext } from '@/services';
import {
  NEW_DEVICE,
  NEW_LINE,
  NEW_PEER,
  NEW_PLAN,
  NEW_SITE,
  STARTED_RUN,
  type StoredPeer,
  type StoredRun,
} from '@/store';
import { DEMO_PORTS } from './demo-ports';
import {
  MILL_LANE,
  MILL_LANE_DEVICES,
  QUAY_STREET,
  QUAY_STREET_DEVICES,
  ROUTER_REPLACED,
  RUNS,
  type DemoDevice,
  type DemoLine,
  type DemoRun,
} from './scenario';
import { seedLanes } from './seed-lanes';
import { seedLooks } from './seed-looks';
import { seedAgent, seedDriverChange, seedSchedule } from './seed-agents';
import { simulateSamples } from './samples';

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
const SEED = 1887;
const BETWEEN_RUNS_MS = 70_000;
/** Share of a run that an unfinished one got through. */
const CUT_SHARE = 0.45;

function planOf({ name, downMbps, upMbps, leastDownMbps, leastUpMbps }: DemoLine): Plan {
  return {
    ...{ name, downBps: downMbps * 1e6, upBps: upMbps * 1e6, basis: 'payload', fullFrom: USUAL_FULL_FROM },
    ...{ leastDownBps: leastDownMbps * 1e6, leastUpBps: leastUpMbps * 1e6 },
  };
}

/** Three runs make a set; one that broke off was not made again. */
function repeated(run: DemoRun): (DemoRun & { readonly time: number })[] {
  return (run.ends === undefined && run.scheduled === undefined ? [0, 1, 2] : [0]).map((time) => ({ ...run, time }));
}

function startedAtMs(when: DemoRun['when'], nowMs: number): number {
  if ('agoH' in when) return nowMs - when.agoH * HOUR_MS;
  const midnight = new Date(nowMs - when.daysAgo * DAY_MS);
  midnight.setHours(when.hour, when.minute ?? 17, 0, 0);
  return midnight.getTime();
}

/** An office of the demo as it stands in the store. */
interface SeededOffice {
  readonly siteId: string;
  readonly lineId: string;
  readonly line: DemoLine;
  readonly peers: Readonly<Record<'local' | 'internet' | 'tunnel', StoredPeer>>;
  readonly devices: Readonly<Record<string, { readonly id: string; readonly device: DemoDevice }>>;
}

interface OfficeFacts {
  readonly office: typeof MILL_LANE | typeof QUAY_STREET;
  readonly devices: Readonly<Record<string, DemoDevice>>;
  readonly siteId: string;
  readonly farSiteId: string;
  readonly ports: { readonly line: number; readonly tunnel: number };
}

async function seedOffice(
  context: ConsoleContext,
  { office, devices, siteId, farSiteId, ports }: OfficeFacts,
): Promise<SeededOffice> {
  const { store, newId } = context;
  const { sites } = store;
  const nowMs = context.wallMs();
  const lineId = newId();
  const { line } = office;
  await sites.saveSite({ id: siteId, name: office.name, ...NEW_SITE, ...firstJoinCode(nowMs), demo: true });
  await sites.saveLine({ ...NEW_LINE, id: lineId, siteId, name: line.name, provider: line.provider });
  await sites.savePlan({ ...NEW_PLAN, ...planOf(line), id: newId(), lineId, validFromMs: nowMs - 400 * DAY_MS });
  await sites.saveLineSwitch({ id: newId(), siteId, lineId, atMs: nowMs - 400 * DAY_MS });
  const peer = (name: string, reach: StoredPeer['reach'], address: string, more: Partial<StoredPeer> = {}) => ({
    ...NEW_PEER,
    ...{ id: newId(), siteId, name, reach, address, practice: reach !== 'local' },
    ...more,
  });
  const peers = {
    local: peer(office.insidePeer, 'local', '/'),
    internet: peer(office.outsidePeer, 'internet', `:${context.port + ports.line}`),
    tunnel: peer(office.tunnelPeer, 'tunnel', `:${context.port + ports.tunnel}`, { farSiteId }),
  };
  for (const each of Object.values(peers)) await sites.savePeer(each);
  const spots = new Map<string, string>();
  const seeded: Record<string, { id: string; device: DemoDevice }> = {};
  for (const [key, device] of Object.entries(devices)) {
    if (!spots.has(device.spot)) {
      spots.set(device.spot, newId());
      await sites.saveSpot({ id: spots.get(device.spot)!, siteId, name: device.spot });
    }
    seeded[key] = { id: newId(), device };
    const { name, kind, link, notes = '' } = device;
    const [id, spotId, simulated] = [seeded[key].id, spots.get(device.spot)!, device.plays !== undefined];
    await sites.saveDevice({ ...NEW_DEVICE, id, siteId, spotId, name, kind, link, notes, simulated });
  }
  return { siteId, lineId, line, peers, devices: seeded };
}

/**
 * Fills an empty store with the two made-up offices and three weeks of their history. Times follow the clock; everything
 * else comes from one seed, and every figure from the same summarising code as a real run's. Does nothing to a store
 * that holds an office already.
 */
export async function seedDemo(context: ConsoleContext): Promise<void> {
  const { store } = context;
  if ((await store.sites.all()).length > 0 || (await store.sites.removed()).length > 0) {
    await movePracticePeers(context);
    return;
  }
  const [millId, quayId] = [context.newId(), context.newId()];
  const mill = await seedOffice(context, {
    ...{ office: MILL_LANE, devices: MILL_LANE_DEVICES, siteId: millId, farSiteId: quayId },
    ports: { line: DEMO_PORTS.millLine, tunnel: DEMO_PORTS.millTunnel },
  });
  const quay = await seedOffice(context, {
    ...{ office: QUAY_STREET, devices: QUAY_STREET_DEVICES, siteId: quayId, farSiteId: millId },
    ports: { line: DEMO_PORTS.quayLine, tunnel: DEMO_PORTS.quayTunnel },
  });
  const random = seededRandom(SEED);
  const nowMs = context.wallMs();
  let setId = '';
  const ended: ReturnType<typeof endedRun>[] = [];
  for (const demoRun of RUNS.flatMap((run) => repeated(run))) {
    const [own, far] = demoRun.device in MILL_LANE_DEVICES ? [mill, quay] : [quay, mill];
    const id = context.newId();
    if (demoRun.time === 0) setId = id;
    const startMs = startedAtMs(demoRun.when, nowMs) + demoRun.time * BETWEEN_RUNS_MS;
    // What would still be to come has not been measured.
    if (startMs > nowMs) continue;
    ended.push(endedRun(startedRun({ own, far, demoRun, id, setId, startMs }), demoRun, random));
  }
  await store.runs.takeIn(ended);
  await noteRouterSwap(context, quayId, nowMs);
  const [attic, shop] = [agentOf(mill, 'attic'), agentOf(quay, 'shopAgent')];
  await seedAgent(context, attic, 0);
  await seedAgent(context, shop, 0.6 * HOUR_MS);
  await seedDriverChange(context, shop);
  await seedSchedule(context, attic);
  const gateway = attic.device.machine?.gateway?.address ?? '';
  await seedLanes(context, attic);
  await seedLooks(context, { siteId: millId, deviceId: attic.deviceId, name: attic.device.name, gateway });
  for (const siteId of [millId, quayId]) await refreshDiagnosis(context, siteId);
}

const agentOf = ({ siteId, devices }: SeededOffice, key: string) => ({
  ...{ siteId, deviceId: devices[key]!.id, device: devices[key]!.device },
});

/** What was done at the shop nine days ago, so that it can be seen whether it helped. */
async function noteRouterSwap({ store, newId }: ConsoleContext, siteId: string, nowMs: number): Promise<void> {
  await store.findings.saveSwap({
    ...{ id: newId(), siteId, segmentId: 'router', what: 'router-replaced', deviceId: null, huntId: null },
    ...{ note: 'the old one ran hot', byName: 'Ines', undoneAtMs: null },
    atMs: startedAtMs(ROUTER_REPLACED, nowMs),
  });
}

interface StartedFacts {
  readonly own: SeededOffice;
  readonly far: SeededOffice;
  readonly demoRun: DemoRun;
  readonly id: string;
  readonly setId: string;
  readonly startMs: number;
}

/** A signal is never quite the same: some dB up and down, by the time of day. */
function heardAt(link: Link, atMs: number): Link {
  if (link.medium !== 'wifi' || link.signalDbm === undefined) return link;
  return { ...link, signalDbm: Math.round(link.signalDbm + 4 * Math.sin(atMs / 190_000)) };
}

function startedRun({ own, far, demoRun, id, setId, startMs }: StartedFacts): StoredRun {
  const { id: deviceId, device } = own.devices[demoRun.device]!;
  const link = heardAt(demoRun.over ?? device.link, startMs);
  const { reach } = demoRun;
  const peer = own.peers[reach];
  const plan = planOf(own.line);
  return {
    ...STARTED_RUN,
    ...{ id, siteId: own.siteId, deviceId, peerId: peer.id, lineId: reach === 'local' ? null : own.lineId },
    ...{ deviceName: device.name, spotName: device.spot, peerName: peer.name },
    lineName: reach === 'local' ? null : own.line.name,
    ...{ reach, link, linkKind: linkKindOf(link), profile: 'standard', practice: false, demo: true },
    plan: reach === 'local' ? null : reach === 'internet' ? plan : planThroughTunnel(plan, planOf(far.line)),
    ...{ startedAtMs: startMs, lastSeenAtMs: startMs, sameMachine: false, ipVersion: 4 },
    ...{ userAgent: 'made-up demo data', setId, told: [], noticed: [] },
    lineUse: demoRun.others === undefined ? null : lineUseAround(demoRun.others, startMs),
  };
}

/** As the router's counters tell it: over a stretch that holds the whole run. */
const lineUseAround = ({ down, up }: NonNullable<DemoRun['others']>, startMs: number): LineUse => ({
  ...{ downBps: down * 1e6, upBps: up * 1e6, fromMs: startMs - 12_000, untilMs: startMs + 48_000 },
});

/** The same samples of a device that was too busy to keep time for a share of them. */
function withStalls(samples: RunSamples, share: number): RunSamples {
  const STEP_MS = 500;
  const endMs = samples.phases.at(-1)!.toMs;
  const stalls = Array.from({ length: Math.floor(endMs / STEP_MS) }, (_, index) => ({
    atMs: index * STEP_MS,
    lateMs: share * STEP_MS,
  }));
  const client: NonNullable<RunSamples['client']> = {
    ...{ selfReadBps: null, otherTraffic: null, powerSaving: null, wallMs: 0, wallSpanMs: endMs, spanMs: endMs },
    stalls,
  };
  return { ...samples, client: samples.client === null ? client : { ...samples.client, stalls } };
}

/** The run as it stands in the record, and its samples: those of one that broke off were never handed in. */
function endedRun(run: StoredRun, { line, ends, busy }: DemoRun, random: () => number) {
  const plain = simulateSamples(line, random);
  const whole = busy === undefined ? plain : withStalls(plain, busy);
  const endMs = whole.phases.at(-1)!.toMs;
  if (ends !== undefined) {
    const endedAtMs = run.startedAtMs + endMs * CUT_SHARE;
    return { run: { ...run, status: 'unfinished', reason: ends, endedAtMs } satisfies StoredRun, samples: null };
  }
  const finished: StoredRun = {
    ...run,
    ...{ status: 'finished', reason: null, endedAtMs: run.startedAtMs + endMs },
    ...figureColumns(reportOf(whole, conditionsOf(run)), run),
    movedBytes: movedBytes(whole),
    sketch: sketchOf(stripDataOf(whole)),
  };
  return { run: finished, samples: whole };
}

/** The practice lines listen beside the front door: a demo started on another port finds them there. */
async function movePracticePeers(context: ConsoleContext): Promise<void> {
  const { sites } = context.store;
  for (const site of await sites.all()) {
    const quay = site.name === QUAY_STREET.name;
    const ports = {
      ...{ local: null, between: null },
      internet: quay ? DEMO_PORTS.quayLine : DEMO_PORTS.millLine,
      tunnel: quay ? DEMO_PORTS.quayTunnel : DEMO_PORTS.millTunnel,
    };
    for (const peer of await sites.peersOf(site.id)) {
      const offset = ports[peer.reach];
      if (site.demo && peer.practice && offset !== null)
        await sites.savePeer({ ...peer, address: `:${context.port + offset}` });
    }
  }
}
