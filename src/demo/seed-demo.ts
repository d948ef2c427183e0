import { linkKindOf, reportOf, seededRandom, sketchOf, stripDataOf, USUAL_FULL_FROM, type Plan } from '@/core';
import { conditionsOf, figureColumns, firstJoinCode, type ConsoleContext } from '@/services';
import type { StoredRun } from '@/store';
import {
  DEVICES,
  INSIDE_PEER_NAME,
  LINE,
  OFFICE_NAME,
  OUTSIDE_PEER_NAME,
  RUNS,
  type DemoDeviceKey,
  type DemoRun,
} from './scenario';
import { simulateSamples } from './simulate-samples';

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
const SEED = 1887;
const BETWEEN_RUNS_MS = 70_000;
/** Share of a run that an unfinished one got through. */
const CUT_SHARE = 0.45;

const PLAN: Plan = {
  name: LINE.name,
  downBps: LINE.downMbps * 1e6,
  upBps: LINE.upMbps * 1e6,
  leastDownBps: 300e6,
  leastUpBps: 60e6,
  basis: 'payload',
  fullFrom: USUAL_FULL_FROM,
};

/** Three runs make a set; one that broke off was not made again. */
function repeated(run: DemoRun): (DemoRun & { readonly time: number })[] {
  return (run.ends === undefined && run.scheduled === undefined ? [0, 1, 2] : [0]).map((time) => ({ ...run, time }));
}

function startedAtMs(when: DemoRun['when'], nowMs: number): number {
  if ('agoH' in when) return nowMs - when.agoH * HOUR_MS;
  const midnight = new Date(nowMs - when.daysAgo * DAY_MS);
  midnight.setHours(when.hour, 17, 0, 0);
  return midnight.getTime();
}

interface Ids {
  readonly siteId: string;
  readonly lineId: string;
  readonly inside: string;
  readonly outside: string;
  readonly devices: Readonly<Record<DemoDeviceKey, string>>;
}

async function seedOffice(context: ConsoleContext): Promise<Ids> {
  const { store, newId } = context;
  const ids = { siteId: newId(), lineId: newId(), inside: newId(), outside: newId() };
  const { siteId, lineId } = ids;
  await store.sites.saveSite({ id: siteId, name: OFFICE_NAME, ...firstJoinCode(context.wallMs()), demo: true });
  await store.sites.saveLine({ id: lineId, siteId, name: LINE.name, provider: LINE.provider });
  await store.sites.savePlan({ ...PLAN, id: newId(), lineId, validFromMs: context.wallMs() - 400 * DAY_MS });
  const peer = { siteId, practice: false } as const;
  await store.sites.savePeer({ ...peer, id: ids.inside, name: INSIDE_PEER_NAME, reach: 'local', address: '/' });
  await store.sites.savePeer({
    ...peer,
    id: ids.outside,
    name: OUTSIDE_PEER_NAME,
    reach: 'internet',
    address: `:${context.port + 1}`,
    practice: true,
  });
  const spots = new Map<string, string>();
  const devices = {} as Record<DemoDeviceKey, string>;
  for (const [key, { name, spot, link }] of Object.entries(DEVICES)) {
    if (!spots.has(spot)) {
      spots.set(spot, newId());
      await store.sites.saveSpot({ id: spots.get(spot)!, siteId, name: spot });
    }
    devices[key as DemoDeviceKey] = newId();
    await store.sites.saveDevice({ id: devices[key as DemoDeviceKey], siteId, spotId: spots.get(spot)!, name, link });
  }
  return { ...ids, devices };
}

/**
 * Fills an empty store with the made-up office and a week of its history. Times follow the clock; everything else
 * comes from one seed, and every figure from the same summarising code as a real run's. Does nothing to a store that
 * holds an office already.
 */
export async function seedDemo(context: ConsoleContext): Promise<void> {
  const { store } = context;
  if ((await store.sites.all()).length > 0) {
    await movePracticePeer(context);
    return;
  }
  const ids = await seedOffice(context);
  const random = seededRandom(SEED);
  const nowMs = context.wallMs();
  let setId = '';
  for (const demoRun of RUNS.flatMap((run) => repeated(run))) {
    const device = DEVICES[demoRun.device];
    const link = demoRun.over ?? device.link;
    const local = demoRun.reach === 'local';
    const startMs = startedAtMs(demoRun.when, nowMs) + demoRun.time * BETWEEN_RUNS_MS;
    const id = context.newId();
    if (demoRun.time === 0) setId = id;
    const started: StoredRun = {
      id,
      siteId: ids.siteId,
      deviceId: ids.devices[demoRun.device],
      peerId: local ? ids.inside : ids.outside,
      lineId: local ? null : ids.lineId,
      deviceName: device.name,
      spotName: device.spot,
      peerName: local ? INSIDE_PEER_NAME : OUTSIDE_PEER_NAME,
      lineName: local ? null : LINE.name,
      reach: demoRun.reach,
      link,
      linkKind: linkKindOf(link),
      plan: local ? null : PLAN,
      profile: 'standard',
      practice: false,
      peerLinkBps: null,
      otherPeerThanUsual: false,
      demo: true,
      status: 'running',
      reason: null,
      startedAtMs: startMs,
      lastSeenAtMs: startMs,
      endedAtMs: null,
      sameMachine: false,
      ipVersion: 4,
      pageHiddenMs: 0,
      userAgent: 'made-up demo data',
      methodVersion: null,
      verdict: null,
      downBps: null,
      upBps: null,
      idleMs: null,
      addedMs: null,
      report: null,
      sketch: null,
      setId,
      askedBy: null,
      together: null,
      told: [],
      noticed: [],
    };
    await store.runs.insert(started);
    await endDemoRun(context, started, demoRun, random);
  }
}

async function endDemoRun(
  context: ConsoleContext,
  run: StoredRun,
  { line, ends }: DemoRun,
  random: () => number,
): Promise<void> {
  const whole = simulateSamples(line, random);
  const endMs = whole.phases.at(-1)!.toMs;
  if (ends === undefined) {
    const ending = {
      status: 'finished',
      reason: null,
      endedAtMs: run.startedAtMs + endMs,
      ...figureColumns(reportOf(whole, conditionsOf(run))),
      sketch: sketchOf(stripDataOf(whole)),
    } as const;
    await context.store.runs.end(run.id, ending, whole);
    return;
  }
  const ending = { status: 'unfinished', reason: ends, endedAtMs: run.startedAtMs + endMs * CUT_SHARE } as const;
  await context.store.runs.end(run.id, ending, null);
}

/** The practice line listens beside the front door: a demo started on another port finds it there. */
async function movePracticePeer(context: ConsoleContext): Promise<void> {
  for (const site of await context.store.sites.all())
    for (const peer of await context.store.sites.peersOf(site.id))
      if (peer.practice) await context.store.sites.savePeer({ ...peer, address: `:${context.port + 1}` });
}
